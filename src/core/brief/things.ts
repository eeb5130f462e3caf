import type { DeviceKind, Need, Purpose } from '../plan';

/** What is usual for each kind of thing a brief names. */
export interface Thing {
  /** What the segment they are in is for. */
  readonly purpose: Purpose;
  readonly kind: DeviceKind;
  /** The PoE class they usually ask for; null: they have a power supply of their own. */
  readonly poeClass: number | null;
  /** Do others have to find them at an address that stays? */
  readonly fixed: boolean;
  /** Does somebody carry them about? Then nobody lists them one by one. */
  readonly carried: boolean;
}

const thing = (
  purpose: Purpose,
  kind: DeviceKind,
  more: Partial<Omit<Thing, 'purpose' | 'kind'>> = {},
): Thing => ({ purpose, kind, poeClass: null, fixed: false, carried: false, ...more });

export const things: Readonly<Record<Need['thing'], Thing>> = {
  workstation: thing('staff', 'computer'),
  laptop: thing('staff', 'computer', { carried: true }),
  telephone: thing('voice', 'phone', { poeClass: 2 }),
  guest: thing('guest', 'computer', { carried: true }),
  printer: thing('iot', 'printer', { fixed: true }),
  screen: thing('iot', 'appliance'),
  appliance: thing('iot', 'appliance'),
  server: thing('servers', 'server', { fixed: true }),
  camera: thing('cameras', 'camera', { poeClass: 3, fixed: true }),
  recorder: thing('cameras', 'recorder', { fixed: true }),
  sensor: thing('building', 'sensor'),
  controller: thing('control-cell', 'controller', { fixed: true }),
  'safety-controller': thing('control-cell', 'safety-controller', { fixed: true }),
  'operator-panel': thing('control-cell', 'operator-panel', { fixed: true }),
  drive: thing('control-cell', 'drive', { fixed: true }),
  'control-room': thing('supervisory', 'computer', { fixed: true }),
  'exchange-server': thing('exchange', 'server', { fixed: true }),
  scanner: thing('staff', 'appliance', { carried: true }),
};

/** The PoE class a need asks for; class 3 where power is wanted for what usually has none. */
export function classOf({ thing: kind, power, link }: Need): number | null {
  if (link === 'wireless' || power === 'no') return null;
  return things[kind].poeClass ?? (power === 'yes' ? 3 : null);
}

/** Is each of them a device of its own in the plan, or are they only counted? */
export const isListed = ({ thing: kind, link }: Need): boolean => link === 'wired' || !things[kind].carried;

/** Groups that may share boxes where groups are kept apart by boxes of their own. */
export type World = '' | 'business' | 'plant' | 'visitors';
const PLANT: ReadonlySet<Purpose> = new Set(['control-cell', 'supervisory', 'exchange', 'building']);
const VISITORS: ReadonlySet<Purpose> = new Set(['guest', 'iot', 'cameras']);
export const worldOf = (purpose: Purpose): World =>
  PLANT.has(purpose) ? 'plant' : VISITORS.has(purpose) ? 'visitors' : 'business';
