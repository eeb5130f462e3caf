import {
  type Fabric,
  type State,
  enters,
  inwardPorts,
  leaves,
  stateKey,
  type PortFacts,
  type Tag,
  type VidSet,
  sameSet,
} from '../wiring';
import { memo } from '../../plan';

/**
 * Every state from which a frame gets to `target`: a flood asked the other way round. Reach is directional, so this is not
 * the flood of `target`; one call answers for all who want to reach one place.
 */
export function reverseFlood(fabric: Fabric, target: State): ReadonlySet<number> {
  const { bridges, seats, links } = fabric;
  const found = new Set([stateKey(target)]);
  const pending: State[] = [target];
  const add = (state: State) => {
    const key = stateKey(state);
    if (found.has(key)) return;
    found.add(key);
    pending.push(state);
  };
  /** The VLANs a bridge sends out of a port with a tag. */
  const before = (portId: string, tag: Tag) => {
    const seat = seats.get(portId);
    const facts = seat && bridges[seat.bridge]!.facts[seat.port];
    if (!seat || !facts) return;
    const bridge = bridges[seat.bridge]!;
    const vid = bridge.box.vlanAware && tag === 0 ? facts.untagged : tag;
    if (vid !== null && leaves(bridge, seat.port, vid) === tag) add({ bridge: seat.bridge, vid });
  };
  for (const state of pending) {
    const bridge = bridges[state.bridge]!;
    for (const i of inwardPorts(fabric)[state.bridge]!) {
      const into = links.get(bridge.ports[i]!.id);
      if (!into) continue;
      const tags: readonly Tag[] = bridge.box.vlanAware ? [0, state.vid] : [state.vid];
      for (const tag of tags) {
        const made = enters(bridge, i, tag);
        if (!made || 'refused' in made || made.vid !== state.vid) continue;
        for (const link of into) before(link.to, tag);
      }
    }
  }
  return found;
}

/** Few sets are compared again and again. */
const alike = memo((a: VidSet) => memo((b: VidSet) => sameSet(a, b)));

/** Does a port take in from its link just what it sends out on it? */
const isEven = ({ pvid, untagged, tagged, accepts }: PortFacts): boolean =>
  (untagged === null ? pvid === null || accepts === 'tagged' : pvid === untagged && accepts !== 'tagged') &&
  (accepts !== 'untagged' || (!tagged.except && tagged.vids.size === 0));

/** Does a link between two ports treat both directions alike? `aware`: do their boxes know VLANs? */
export function isEvenLink(own: PortFacts, ownAware: boolean, far: PortFacts, farAware: boolean): boolean {
  if (!ownAware) return farAware ? isEven(far) && far.ingressFilter : true;
  if (!farAware) return isEven(own) && own.ingressFilter;
  return isEven(own) && isEven(far) && own.untagged === far.untagged && alike(own.tagged)(far.tagged);
}

/** Do the links of a port treat both directions alike, as far as they lead to boxes? */
function isEvenAt({ bridges, links, seats }: Fabric, at: number, index: number): boolean {
  const bridge = bridges[at]!;
  const own = bridge.facts[index];
  return (links.get(bridge.ports[index]!.id) ?? []).every(({ to }) => {
    const seat = seats.get(to);
    const far = seat && bridges[seat.bridge]!;
    const facts = far && far.facts[seat.port];
    // Nothing passes where an end is shut, nor to who is no box.
    return !own || !far || !facts || isEvenLink(own, bridge.box.vlanAware, facts, far.box.vlanAware);
  });
}

/**
 * Does every link between boxes treat the two directions alike? Then a flood of a place and the reachers of it are the same.
 * Never says so wrongly; a box without VLANs beside one that has them counts as uneven unless the port filters.
 */
export const isSymmetric = memo((fabric: Fabric): boolean =>
  inwardPorts(fabric).every((inward, at) => inward.every((index) => isEvenAt(fabric, at, index))),
);
