import { deriveBy, memo, type Plan } from '../../plan';
import { forwardingFabric } from '../tree';
import {
  type PortFacts,
  blocks,
  egress,
  sameSet,
  type Bridge,
  type Fabric,
  type Flood,
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

/** Does only what is sent out come in too? */
const admitsMembers = (facts: PortFacts): boolean =>
  facts.ingressFilter && !facts.tagged.except && facts.pvid === facts.untagged;
/** Is a frame in the same VLAN on both sides of a link between two ports? */
const keepVlans = (a: PortFacts, b: PortFacts): boolean =>
  admitsMembers(a) && admitsMembers(b) && a.untagged === b.untagged;

/** The VLANs a changed port may treat differently; null when that could be any. */
function changedVids(fabric: Fabric, bridge: Bridge, port: number, a: PortFacts | null, b: PortFacts | null) {
  if (!bridge.box.vlanAware || a?.tagged.except || b?.tagged.except) return null;
  const inward = (fabric.links.get(bridge.ports[port]!.id) ?? []).some((link) => fabric.seats.has(link.to));
  const vids = new Set<number>();
  const tagBy = (facts: PortFacts | null, vid: number) => (facts === null ? null : egress(facts, vid));
  for (const vid of [...passingAt(a), ...passingAt(b)]) if (tagBy(a, vid) !== tagBy(b, vid)) vids.add(vid);
  if (!inward) return vids;
  // On a link that changes no VLAN, and whose ends let in nothing but their own, only these can differ.
  const far = fabric.links.get(bridge.ports[port]!.id) ?? [];
  const keeps = far.every(({ to }) => {
    const seat = fabric.seats.get(to);
    const other = seat && fabric.bridges[seat.bridge]!;
    if (!seat || !other?.box.vlanAware) return false;
    const facts = other.facts[seat.port]!;
    return [a, b].every((own) => own === null || facts === null || keepVlans(own, facts));
  });
  if (keeps) return vids;
  if (a === null || b === null) return null;
  // Frames come in here from another box: whatever decides their VLAN may draw in floods of any VLAN.
  const sameEntry =
    sameSet(a.blocked, b.blocked) &&
    a.pvid === b.pvid &&
    a.accepts === b.accepts &&
    a.ingressFilter === b.ingressFilter &&
    !(a.pvid !== null && vids.has(a.pvid));
  return sameEntry ? vids : null;
}

/** The VLANs in which nothing crosses the link of a port before and after, as its other end lets none pass. */
function idleLink(
  fabric: Fabric,
  next: Fabric,
  port: string,
  own: readonly (PortFacts | null)[],
): (vid: number) => boolean {
  const far = fabric.links.get(port) ?? [];
  const shuts = (at: Fabric, id: string, vid: number): boolean => {
    const seat = at.seats.get(id);
    const facts = seat && at.bridges[seat.bridge]!.facts[seat.port];
    if (!seat || facts === undefined || !at.bridges[seat.bridge]!.box.vlanAware) return false;
    // Where the two ends have another VLAN without a tag, what is none of its own comes out as one that is.
    const keeps = facts !== null && own.every((side) => side === null || keepVlans(side, facts));
    return facts === null || (keeps && egress(facts, vid) === null);
  };
  return (vid) => far.length > 0 && far.every(({ to }) => shuts(fabric, to, vid) && shuts(next, to, vid));
}

const comparedWith = memo(
  (_next: Fabric) => new WeakMap<Fabric, { readonly vids: ReadonlySet<number> | null }>(),
);
/** The VLANs whose floods may differ between two fabrics; null when those of any may. */
export function changedBetween(fabric: Fabric, next: Fabric): ReadonlySet<number> | null {
  const compared = comparedWith(next);
  let known = compared.get(fabric);
  if (!known) compared.set(fabric, (known = { vids: compareFabrics(fabric, next) }));
  return known.vids;
}

function compareFabrics(fabric: Fabric, next: Fabric): ReadonlySet<number> | null {
  const dirty = new Set<number>();
  if (fabric === next) return dirty;
  if (fabric.links !== next.links || fabric.bridges.length !== next.bridges.length) return null;
  for (const [i, before] of fabric.bridges.entries()) {
    const after = next.bridges[i]!;
    if (before === after) continue;
    if (before.device !== after.device || before.box.vlanAware !== after.box.vlanAware) return null;
    if (before.ports.length !== after.ports.length) return null;
    for (let port = 0; port < after.ports.length; port++) {
      if (before.ports[port]!.id !== after.ports[port]!.id) return null;
      const [a, b] = [before.facts[port]!, after.facts[port]!];
      if (a === b || sameFacts(a, b)) continue;
      const vids = changedVids(next, after, port, a, b);
      if (vids === null) return null;
      const idle = idleLink(fabric, next, after.ports[port]!.id, [a, b]);
      for (const vid of vids) if (!idle(vid)) dirty.add(vid);
    }
  }
  return dirty;
}

/** Does a flood go through none of some VLANs? */
export function avoids(known: Flood, dirty: ReadonlySet<number>): boolean {
  for (const vid of vidsOf(known)) if (dirty.has(vid)) return false;
  return true;
}

const vidsOf = memo((known: Flood) => new Set([...known.came.keys()].map((key) => key % 4096)));

export function sameFacts(a: PortFacts | null, b: PortFacts | null): boolean {
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

/** A flood with the fabric it was last found to be right for. */
interface Held {
  readonly fabric: Fabric;
  readonly flood: Flood;
}

const held = deriveBy((plan, key: number, before: Held | undefined): Held => {
  const now = fabric(plan);
  const dirty = before && changedBetween(before.fabric, now);
  if (before && dirty && avoids(before.flood, dirty)) return { fabric: now, flood: before.flood };
  return { fabric: now, flood: flood(now, { state: { bridge: Math.floor(key / 4096), vid: key % 4096 } }) };
}, Object.is);
const floodBy = deriveBy((plan, key: number): Flood => held(plan, key).flood);
/** Who hears a box that speaks in one of its VLANs. */
export const floodFrom = (plan: Plan, state: State): Flood => floodBy(plan, stateKey(state));
