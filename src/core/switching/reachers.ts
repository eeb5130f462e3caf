import { type Fabric, type State, inwardPorts, stateKey } from './fabric';
import { type Tag, holds, ingress } from './facts';

/**
 * Every state from which a frame gets to `target`: a flood asked the other way round. Reach is directional, so this is not
 * the flood of `target`; one call answers for all who want to reach one place.
 */
export function reachersOf(fabric: Fabric, target: State): ReadonlySet<number> {
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
    if (!bridges[seat.bridge]!.box.vlanAware) return add({ bridge: seat.bridge, vid: tag });
    if (tag === 0) {
      if (facts.untagged !== null) add({ bridge: seat.bridge, vid: facts.untagged });
    } else if (tag !== facts.untagged && holds(facts.tagged, tag)) add({ bridge: seat.bridge, vid: tag });
  };
  for (const state of pending) {
    const { box, ports, facts } = bridges[state.bridge]!;
    for (const i of inwardPorts(fabric)[state.bridge]!) {
      const entered = facts[i];
      const into = links.get(ports[i]!.id);
      if (!entered || !into) continue;
      const tags: readonly Tag[] = box.vlanAware ? [0, state.vid] : [state.vid];
      for (const tag of tags) {
        if (box.vlanAware) {
          const made = ingress(entered, tag);
          if ('refused' in made || made.vid !== state.vid) continue;
        }
        for (const link of into) before(link.to, tag);
      }
    }
  }
  return found;
}
