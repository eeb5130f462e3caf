import { type Fabric, type State, enters, inwardPorts, leaves, stateKey } from './fabric';
import type { Tag } from './facts';

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
