import { memo } from '../plan/memo';
import type { Plan } from '../plan/plan';
import { forwardingFabric } from '../tree/forwarding';
import { type PortFacts, type VidSet, tagOf } from './facts';
import { type Bridge, type Fabric, type Flood, type State, flood, stateKey } from './fabric';

/** A fabric with the floods asked of it so far, by the state they began in. */
export interface Reach {
  readonly fabric: Fabric;
  readonly floods: Map<number, Flood>;
}

/** The VLANs a changed port may treat differently; null when that could be any. */
function changedVids(fabric: Fabric, bridge: Bridge, port: number, a: PortFacts | null, b: PortFacts | null) {
  if (!bridge.box.vlanAware || a?.tagged.except || b?.tagged.except) return null;
  if (a && b && !sameSet(a.blocked, b.blocked)) return null;
  const inward = (fabric.links.get(bridge.ports[port]!.id) ?? []).some((link) => fabric.seats.has(link.to));
  const vids = new Set<number>();
  const tagBy = (facts: PortFacts | null, vid: number) => (facts === null ? null : tagOf(facts, vid));
  for (const facts of [a, b])
    for (const vid of [...(facts?.tagged.vids ?? []), facts?.untagged ?? -1])
      if (vid >= 0 && tagBy(a, vid) !== tagBy(b, vid)) vids.add(vid);
  if (!inward) return vids;
  // Frames come in here from another box: whatever decides their VLAN may draw in floods of any VLAN.
  const sameEntry =
    a !== null &&
    b !== null &&
    a.pvid === b.pvid &&
    a.accepts === b.accepts &&
    a.ingressFilter === b.ingressFilter &&
    !(a.pvid !== null && vids.has(a.pvid));
  return sameEntry ? vids : null;
}

/**
 * The floods that are the same in `next` as they were: those through none of the VLANs that a changed port treats
 * differently. None when cables or boxes changed.
 */
function carriedOver({ fabric, floods }: Reach, next: Fabric): Map<number, Flood> {
  const none = new Map<number, Flood>();
  if (fabric.links !== next.links || fabric.bridges.length !== next.bridges.length) return none;
  const dirty = new Set<number>();
  for (const [i, before] of fabric.bridges.entries()) {
    const after = next.bridges[i]!;
    if (before === after) continue;
    if (before.device !== after.device || before.box.vlanAware !== after.box.vlanAware) return none;
    if (before.ports.length !== after.ports.length) return none;
    for (let port = 0; port < after.ports.length; port++) {
      if (before.ports[port]!.id !== after.ports[port]!.id) return none;
      const vids = changedVids(next, after, port, before.facts[port]!, after.facts[port]!);
      if (sameFacts(before.facts[port]!, after.facts[port]!)) continue;
      if (vids === null) return none;
      for (const vid of vids) dirty.add(vid);
    }
  }
  const kept = new Map<number, Flood>();
  for (const [key, known] of floods)
    if (![...vidsOf(known)].some((vid) => dirty.has(vid))) kept.set(key, known);
  return kept;
}

const vidsOf = memo((known: Flood) => new Set([...known.came.keys()].map((key) => key % 4096)));

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

function sameSet(a: VidSet | null, b: VidSet | null): boolean {
  if (a === null || b === null || a === b) return a === b;
  return a.except === b.except && a.vids.size === b.vids.size && [...a.vids].every((vid) => b.vids.has(vid));
}

/** The last plan asked about: the next is usually one edit away from it. */
let latest: Reach | null = null;

/** The fabric of a plan, with every flood that is known to be the same as before the last edit. */
export const reachOf = memo((plan: Plan): Reach => {
  const fabric = forwardingFabric(plan, latest?.fabric);
  latest = { fabric, floods: latest ? carriedOver(latest, fabric) : new Map() };
  return latest;
});

/** Who hears a box that speaks in one of its VLANs. */
export function floodFrom({ fabric, floods }: Reach, state: State): Flood {
  const key = stateKey(state);
  let known = floods.get(key);
  if (!known) floods.set(key, (known = flood(fabric, { state })));
  return known;
}
