import { memoOn } from '../plan/memo';
import type { Plan } from '../plan/plan';
import type { VidSet } from '../switching/facts';
import { type Bridge, type Fabric, fabricOf } from '../switching/fabric';
import { type Trees, growTrees } from './trees';

/** The trees of a plan, grown again only when something they are read off changes. */
export const treesOf: (plan: Plan) => Trees = memoOn(
  ['box', 'port', 'cable', 'device', 'bridge', 'instance', 'treePort', 'vlan'],
  (plan: Plan) => growTrees(plan, fabricOf(plan)),
);

interface Overlaid {
  readonly stopped: readonly (VidSet | undefined)[];
  readonly bridge: Bridge;
}
const overlaid = new WeakMap<Bridge, Overlaid>();

/** A box with what trees and rings block at its ports; the same object again while that is the same. */
function withBlocked(bridge: Bridge, blocked: Trees['blocked']): Bridge {
  const stopped = bridge.ports.map(({ id }) => blocked.get(id));
  if (stopped.every((set) => set === undefined)) return bridge;
  const known = overlaid.get(bridge);
  if (known?.stopped.every((set, i) => set === stopped[i])) return known.bridge;
  const made: Bridge = {
    ...bridge,
    facts: bridge.facts.map((facts, i) => {
      const set = stopped[i];
      return facts && set ? { ...facts, blocked: set } : facts;
    }),
  };
  overlaid.set(bridge, { stopped, bridge: made });
  return made;
}

/** The fabric as frames find it: its links, without the ports that trees and rings block. */
export function forwardingFabric(plan: Plan, before?: Fabric): Fabric {
  const wired = fabricOf(plan, 'works', before);
  const { blocked } = treesOf(plan);
  if (blocked.size === 0) return wired;
  return { ...wired, bridges: wired.bridges.map((bridge) => withBlocked(bridge, blocked)) };
}
