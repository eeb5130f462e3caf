import type { Collection } from '../plan/collection';
import { memo } from '../plan/memo';
import type { Plan } from '../plan/plan';
import type { Cable, Device, Port } from '../plan/records';

/** Kinds that only join cables: a frame passes from the front to the rear of the same number. */
export const isPassive = (kind: Device['kind']): boolean => kind === 'patch-panel' || kind === 'outlet';

export type Side = Cable['fromSide'];
export interface CableEnd {
  readonly port: string;
  readonly side: Side;
}

/** A way a frame can go between two ports of boxes or end devices, over one or more cables and panels. */
export interface Link {
  readonly from: string;
  readonly to: string;
  readonly cables: readonly string[];
  /** The panel and outlet ports passed, in order. */
  readonly through: readonly string[];
}

interface Laid {
  readonly cable: Cable;
  readonly other: CableEnd;
}
const NONE: readonly Laid[] = [];

/** Cables by where they end: by side, then port. */
const byEnd = memo((cables: Collection<Cable>) => {
  const ends: Record<Side, Map<string, Laid[]>> = { front: new Map(), rear: new Map() };
  const add = ({ port, side }: CableEnd, laid: Laid) => {
    const list = ends[side].get(port);
    if (list) list.push(laid);
    else ends[side].set(port, [laid]);
  };
  for (const cable of cables.values()) {
    const from = { port: cable.from, side: cable.fromSide };
    const to = { port: cable.to, side: cable.toSide };
    add(from, { cable, other: to });
    add(to, { cable, other: from });
  }
  return ({ port, side }: CableEnd): readonly Laid[] => ends[side].get(port) ?? NONE;
});

/** The cables that end at a port on one side; more than one is a mistake that can be recorded. */
export const cablesAt = (plan: Plan, end: CableEnd): readonly Cable[] =>
  byEnd(plan.cable)(end).map(({ cable }) => cable);

/**
 * Where each cabled port leads, through panels and outlets. A port with two cables (a mistake) leads to both.
 */
function wire(plan: Plan): ReadonlyMap<string, readonly Link[]> {
  const ends = byEnd(plan.cable);
  const panels = new Set<string>();
  for (const device of plan.device.values())
    if (isPassive(device.kind)) for (const port of plan.port.group(device.id).values()) panels.add(port.id);
  const passive = (port: string) => panels.has(port);
  const links = new Map<string, readonly Link[]>();
  const linksFrom = (start: string): Link[] => {
    const found: Link[] = [];
    const follow = (end: CableEnd, used: readonly string[], through: readonly string[]) => {
      for (const { cable, other } of ends(end)) {
        if (used.includes(cable.id)) continue;
        const laid = [...used, cable.id];
        if (passive(other.port))
          follow({ port: other.port, side: other.side === 'front' ? 'rear' : 'front' }, laid, [
            ...through,
            other.port,
          ]);
        else found.push({ from: start, to: other.port, cables: laid, through });
      }
    };
    follow({ port: start, side: 'front' }, [], []);
    return found;
  };
  for (const cable of plan.cable.values())
    for (const start of [cable.from, cable.to])
      if (!links.has(start) && !passive(start)) links.set(start, linksFrom(start));
  return links;
}

const remembered = new WeakMap<
  object,
  { readonly devices: object; readonly links: ReturnType<typeof wire> }
>();

/**
 * Every port's links. They depend on the cables and on which devices are panels, and a port never changes its device,
 * so an edit of a port leaves them as they are.
 */
export function linksOf(plan: Plan): ReadonlyMap<string, readonly Link[]> {
  const known = remembered.get(plan.cable);
  if (known?.devices === plan.device) return known.links;
  const links = wire(plan);
  remembered.set(plan.cable, { devices: plan.device, links });
  return links;
}

const sortedPorts = memo((group: ReadonlyMap<string, Port>) =>
  [...group.values()].sort((a, b) => a.number - b.number || (a.id < b.id ? -1 : 1)),
);
/** The ports of a device by number; the inner port, number 0, first. */
export const portsOf = (plan: Plan, device: string): readonly Port[] => sortedPorts(plan.port.group(device));
/** The port behind which a box itself lives: its management, routing and DHCP. Panels and end devices have none. */
export const innerPort = (plan: Plan, device: string): Port | undefined =>
  portsOf(plan, device).find((port) => port.number === 0);
