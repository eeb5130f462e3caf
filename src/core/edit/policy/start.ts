import * as z from 'zod';
import {
  type Draft,
  operation,
  type Plan,
  type Purpose,
  type Site,
  type Zone,
  badInput,
  vlansOf,
} from '../../plan';
import { insertZone } from './operations';
import { zonesOf } from '../../model/policy';

/** Starting points: zones by what segments are for, and what passes between them, each with why. */

interface ZoneStart {
  readonly name: string;
  readonly purposes: readonly Purpose[];
  readonly inside?: 'deny';
  readonly manages?: true;
}
interface CellStart {
  readonly from: string;
  readonly to: string;
  /** Services by id; none for everything. */
  readonly services?: readonly string[];
  readonly why: string;
}
export interface Start {
  readonly kind: Site['kind'];
  readonly name: string;
  readonly about: string;
  readonly zones: readonly ZoneStart[];
  /** Control cells get a zone each: a machine has no business with the next one. */
  readonly cellsApart: boolean;
  readonly cells: readonly CellStart[];
}

const guests: ZoneStart = { name: 'Guests', purposes: ['guest'], inside: 'deny' };
const voice: ZoneStart = { name: 'Voice', purposes: ['voice'] };
const management: ZoneStart = { name: 'Management', purposes: ['management'], manages: true };

export const starts: readonly Start[] = [
  {
    kind: 'home',
    name: 'a home',
    about: 'The family reaches its devices; devices and guests reach nothing inside.',
    zones: [
      { name: 'Family', purposes: ['staff', 'servers', 'voice'], manages: true },
      { name: 'Devices', purposes: ['iot', 'cameras', 'building'] },
      guests,
      management,
    ],
    cellsApart: true,
    cells: [
      { from: 'Family', to: 'Devices', why: 'who lives there operates the devices' },
      { from: 'Family', to: 'Management', why: 'who lives there looks after the boxes' },
    ],
  },
  {
    kind: 'office',
    name: 'an office',
    about:
      'Staff reach servers and printers, only management reaches the boxes, guests reach the Internet alone.',
    zones: [
      { name: 'Staff', purposes: ['staff'] },
      { name: 'Servers', purposes: ['servers'] },
      voice,
      { name: 'Devices', purposes: ['iot', 'cameras', 'building'] },
      guests,
      management,
    ],
    cellsApart: true,
    cells: [
      { from: 'Staff', to: 'Servers', why: 'that is where their work is' },
      {
        from: 'Staff',
        to: 'Devices',
        services: ['stdhttp', 'stdprint'],
        why: 'they print and look at pages, no more',
      },
      { from: 'Management', to: 'Servers', why: 'servers are looked after from there' },
      { from: 'Management', to: 'Devices', why: 'devices are looked after from there' },
      { from: 'Management', to: 'Voice', why: 'telephones are looked after from there' },
    ],
  },
  {
    kind: 'industrial',
    name: 'a plant with an exchange zone',
    about:
      'Office and plant meet only in the exchange zone; each machine cell stands alone, and only supervision reaches it.',
    zones: [
      { name: 'Office', purposes: ['staff', 'servers'] },
      voice,
      { name: 'Exchange', purposes: ['exchange'] },
      { name: 'Supervision', purposes: ['supervisory'] },
      { name: 'Devices', purposes: ['iot', 'cameras', 'building'] },
      guests,
      management,
    ],
    cellsApart: true,
    cells: [
      {
        from: 'Office',
        to: 'Exchange',
        services: ['stdhttps', 'stdopcua'],
        why: 'the office reads what the plant leaves there',
      },
      {
        from: 'Supervision',
        to: 'Exchange',
        services: ['stdhttps', 'stdopcua'],
        why: 'the plant leaves there what the office may read',
      },
      { from: 'Supervision', to: 'cells', why: 'operators run the machines' },
      { from: 'Management', to: 'cells', why: 'boxes and controllers are looked after from there' },
      { from: 'Management', to: 'Supervision', why: 'supervision is looked after from there' },
      { from: 'Management', to: 'Devices', why: 'devices are looked after from there' },
    ],
  },
];

/** Purposes that belong to nobody: a parking VLAN goes nowhere, a transit one joins routers. */
const APART: ReadonlySet<Purpose> = new Set(['control-cell', 'parking', 'transit']);

/** What a starting point would make of a plan: its zones with their segments, the ones without any left out. */
export function startFor(
  plan: Plan,
  start: Start,
): { readonly name: string; readonly segments: readonly string[] }[] {
  const named = (purposes: readonly Purpose[]) =>
    vlansOf(plan)
      .filter(({ purpose }) => purposes.includes(purpose))
      .map(({ name }) => name);
  return [
    ...start.zones
      .map(({ name, purposes }) => ({ name, segments: named(purposes) }))
      .filter(({ segments }) => segments.length > 0),
    ...vlansOf(plan)
      .filter(({ purpose }) => APART.has(purpose))
      .map(({ name }) => ({ name, segments: [name] })),
  ];
}

/** Runs what writes one record of a starting point; `key` says which, the same every time. */
type Under = <T>(key: string, work: () => T) => T;

/**
 * Writes the zones of a starting point and what passes between them. Segments that are to be `alone` get a zone each, whatever
 * they are for.
 */
export function writeStart(
  draft: Draft,
  start: Start,
  under: Under = (_key, work) => work(),
  alone: ReadonlySet<string> = new Set(),
): void {
  const all = vlansOf(draft.plan);
  const made = new Map<string, string>();
  const cells: string[] = [];
  const taken = new Set<string>();
  const zone = (name: string, fields: Partial<Omit<Zone, 'id'>>, key = name) =>
    under(`zone ${key}`, () => insertZone(draft, { name, ...fields })).id;
  for (const { name, purposes, inside = 'allow', manages = false } of start.zones) {
    const vlans = all
      .filter(({ id, purpose }) => purposes.includes(purpose) && !alone.has(id))
      .map(({ id }) => id)
      .sort();
    if (vlans.length === 0) continue;
    for (const id of vlans) taken.add(id);
    made.set(name, zone(name, { vlans, inside, manages }));
  }
  for (const vlan of all.filter(({ id }) => !taken.has(id))) {
    const inside = vlan.purpose === 'guest' ? 'deny' : 'allow';
    const id = zone(vlan.name.slice(0, 40), { vlans: [vlan.id], inside }, vlan.id);
    if (vlan.purpose === 'control-cell') cells.push(id);
  }
  const uplinks = [...draft.plan.uplink.values()].map(({ id }) => id).sort();
  if (uplinks.length > 0) zone('Internet', { uplinks, inside: 'deny' });
  for (const { id, name } of draft.plan.tunnel.values()) zone(name, { tunnels: [id] }, id);
  zone('Gateway', { gateway: true });
  for (const { from, to, services } of start.cells) {
    const source = made.get(from);
    const targets = to === 'cells' ? cells : [made.get(to)].filter((id) => id !== undefined);
    if (source === undefined) continue;
    for (const target of targets)
      under(`cell ${source} ${target}`, () =>
        draft.insert('cell', {
          from: source,
          to: target,
          decision: services ? 'services' : 'allow',
          services: [...(services ?? [])],
        }),
      );
  }
}

export const startPolicy = operation(
  'startPolicy',
  z.strictObject({ kind: z.string() }),
  (draft, { kind }) => {
    const start = starts.find((item) => item.kind === kind);
    if (!start) throw badInput(`There is no starting point “${kind}”.`, 'kind');
    if (zonesOf(draft.plan).length > 0)
      throw badInput('There are zones already; remove them first, or change them.', 'kind');
    writeStart(draft, start);
    return `Zones as in ${start.name}`;
  },
);
