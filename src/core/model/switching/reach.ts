import { derive, deriveBy, despite, equal, memo, type Plan } from '../../plan';
import { forwardingFabric } from '../tree';
import {
  type PortFacts,
  blocks,
  egress,
  ingress,
  sameSet,
  type Fabric,
  type Flood,
  type Link,
  type Origin,
  type Seat,
  type State,
  flood,
  stateKey,
} from '../wiring';

/** The VLANs that really pass at a port. */
const passingAt = (facts: PortFacts | null): number[] =>
  facts === null
    ? []
    : [...facts.tagged.vids, ...(facts.untagged === null ? [] : [facts.untagged])].filter(
        (vid) => !blocks(facts, vid),
      );

/** VLANs in which something is not as it was. */
export interface Dirty {
  /** Those in which frames leave a box otherwise. */
  readonly leaving: ReadonlySet<number>;
  /** Those in which they then come to be in the next box. */
  readonly entering: ReadonlySet<number>;
}

const NOTHING: ReadonlyMap<number, number> = new Map();
/** By VLAN before a link the one behind it; null where that cannot be listed. */
function crossing({ bridges }: Fabric, from: Seat, to: Seat): ReadonlyMap<number, number> | null {
  const [near, far] = [bridges[from.bridge]!, bridges[to.bridge]!];
  const [own, other] = [near.facts[from.port]!, far.facts[to.port]!];
  if (own === null || other === null) return NOTHING;
  if (!near.box.vlanAware || !far.box.vlanAware || own.tagged.except) return null;
  const found = new Map<number, number>();
  for (const vid of passingAt(own)) {
    const tag = egress(own, vid);
    const entered = tag === null ? null : ingress(other, tag);
    if (entered && 'vid' in entered) found.set(vid, entered.vid);
  }
  return found;
}

/** Compares two fabrics port by port. */
class Comparing {
  readonly leaving = new Set<number>();
  readonly entering = new Set<number>();

  constructor(
    private readonly before: Fabric,
    private readonly after: Fabric,
  ) {}

  /** Says whether all VLANs in which a port may do otherwise could be listed. */
  compare(id: string): boolean {
    const { before, after } = this;
    const seat = after.seats.get(id);
    if (!seat) return true;
    const { box, ports } = after.bridges[seat.bridge]!;
    const [a, b] = [before, after].map(({ bridges }) => bridges[seat.bridge]!.facts[seat.port]!);
    if (!box.vlanAware || a?.tagged.except || b?.tagged.except) return false;
    const [old, now] = [before.links.get(id) ?? [], after.links.get(id) ?? []];
    let heard = ports[seat.port]!.number === 0;
    for (const { to } of [...old, ...now]) {
      const far = after.seats.get(to);
      if (!far) heard = true;
      else if (!this.compareLink(seat, far, has(old, to), has(now, to))) return false;
    }
    if (heard) this.compareHeard(a!, b!, equal(old, now));
    return true;
  }

  private compareLink(near: Seat, far: Seat, was: boolean, is: boolean): boolean {
    for (const [from, to] of [
      [near, far],
      [far, near],
    ] as const) {
      const old = was ? crossing(this.before, from, to) : NOTHING;
      const now = is ? crossing(this.after, from, to) : NOTHING;
      if (!old || !now) return false;
      for (const [one, other] of [
        [old, now],
        [now, old],
      ] as const)
        for (const [vid, beyond] of one)
          if (other.get(vid) !== beyond) {
            this.leaving.add(vid);
            this.entering.add(beyond);
          }
    }
    return true;
  }

  /** What devices at a port, and the box itself at its inner one, hear. */
  private compareHeard(a: PortFacts | null, b: PortFacts | null, sameLinks: boolean): void {
    const tagBy = (facts: PortFacts | null, vid: number) => (facts === null ? null : egress(facts, vid));
    for (const vid of [...passingAt(a), ...passingAt(b)])
      if (!sameLinks || tagBy(a, vid) !== tagBy(b, vid)) this.leaving.add(vid);
  }
}
const has = (links: readonly Link[], port: string): boolean => links.some(({ to }) => to === port);

const comparedWith = memo((_next: Fabric) => new WeakMap<Fabric, { readonly dirty: Dirty | null }>());
/** The VLANs whose floods may differ between two fabrics; null when those of any may. */
export function changedBetween(fabric: Fabric, next: Fabric): Dirty | null {
  const compared = comparedWith(next);
  let known = compared.get(fabric);
  if (!known) compared.set(fabric, (known = { dirty: compareFabrics(fabric, next) }));
  return known.dirty;
}

/** The ports whose links are not the same. */
function* relinked(a: Fabric['links'], b: Fabric['links']): Generator<string> {
  if (a === b) return;
  for (const [port, links] of b) if (!equal(links, a.get(port))) yield port;
  for (const port of a.keys()) if (!b.has(port)) yield port;
}

function compareFabrics(fabric: Fabric, next: Fabric): Dirty | null {
  const comparing = new Comparing(fabric, next);
  if (fabric === next) return comparing;
  if (fabric.bridges.length !== next.bridges.length) return null;
  for (const [i, before] of fabric.bridges.entries()) {
    const after = next.bridges[i]!;
    if (before === after) continue;
    if (before.device !== after.device || before.box.vlanAware !== after.box.vlanAware) return null;
    if (before.ports.length !== after.ports.length) return null;
    for (let port = 0; port < after.ports.length; port++) {
      const { id } = after.ports[port]!;
      if (before.ports[port]!.id !== id) return null;
      const [a, b] = [before.facts[port]!, after.facts[port]!];
      if (a !== b && !sameFacts(a, b) && !comparing.compare(id)) return null;
    }
  }
  for (const port of relinked(fabric.links, next.links)) if (!comparing.compare(port)) return null;
  return comparing;
}

/** Are some states in none of some VLANs? */
export function avoids(states: States, dirty: ReadonlySet<number>): boolean {
  for (const vid of vidsOf(states)) if (dirty.has(vid)) return false;
  return true;
}
/** Are some VLANs the same in two fabrics, and could that be told? */
export function untouched(vids: ReadonlySet<number>, was: Fabric, is: Fabric): boolean {
  const dirty = changedBetween(was, is);
  return dirty !== null && ![...vids].some((vid) => dirty.leaving.has(vid));
}
type States = ReadonlyMap<number, unknown> | ReadonlySet<number>;
/** The VLANs that some states are in. */
export const vidsOf = memo((states: States) => new Set([...states.keys()].map((key) => key % 4096)));

function sameFacts(a: PortFacts | null, b: PortFacts | null): boolean {
  if (a === null || b === null) return a === b;
  return (
    a.pvid === b.pvid &&
    a.untagged === b.untagged &&
    a.accepts === b.accepts &&
    a.ingressFilter === b.ingressFilter &&
    sameSet(a.tagged, b.tagged) &&
    sameSet(a.blocked, b.blocked)
  );
}

/** The boxes and links as frames find them: without what trees and rings block. */
export const fabric = forwardingFabric;
/** The seats of the ports of boxes: they stay what they are whatever the ports do. */
export const seatsIn = derive((plan): Fabric['seats'] => fabric(plan).seats, Object.is);

/** Does a frame that begins somewhere begin alike in two fabrics? */
export function beginsAlike(origin: Origin, a: Fabric, b: Fabric): boolean {
  if ('state' in origin) return true;
  const [seat, other] = [a.seats.get(origin.port), b.seats.get(origin.port)];
  const factsAt = ({ bridges }: Fabric, { bridge, port }: Seat) => bridges[bridge]!.facts[port];
  return !!seat && equal(seat, other) && equal(factsAt(a, seat), factsAt(b, seat));
}

/** Floods that are kept by where they begin: where nothing on its way changed, one is the same again. */
export const keptFloods = <K extends string | number>(
  originOf: (key: K) => Origin,
  only: 'boxes' | 'all',
): ((plan: Plan, key: K) => Flood) =>
  deriveBy(
    (plan, key: K) => flood(fabric(plan), originOf(key), only),
    equal,
    despite(fabric, ({ came }: Flood, was, is, key: K) => {
      const dirty = beginsAlike(originOf(key), was, is) && changedBetween(was, is);
      return !!dirty && avoids(came, dirty.leaving);
    }),
  );

const floodBy = keptFloods(
  (key: number) => ({ state: { bridge: Math.floor(key / 4096), vid: key % 4096 } }),
  'all',
);
/** Who hears a box that speaks in one of its VLANs. */
export const floodFrom = (plan: Plan, state: State): Flood => floodBy(plan, stateKey(state));
