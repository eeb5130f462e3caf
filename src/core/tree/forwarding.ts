import { memo, memoOn } from '../plan/memo';
import type { Plan } from '../plan/plan';
import type { VidSet } from '../switching/facts';
import { type Bridge, type Fabric, fabricOf } from '../switching/fabric';
import { type Trees, growTrees } from './trees';
import { lostBetween, treesWithout } from './without';

const GROWN_OF = ['box', 'cable', 'device', 'bridge', 'instance', 'treePort', 'vlan'] as const;

const wiredOf = memo((plan: Plan): Fabric => fabricOf(plan, 'works', last?.fabric));
/** The ports of boxes that are off in the second plan and on in the first; null where they differ in more than that. */
export const lostPorts = (before: Plan, after: Plan): ReadonlySet<string> | null =>
  lostBetween(wiredOf(before), wiredOf(after));

interface Last {
  readonly plan: Plan;
  readonly fabric: Fabric;
  readonly trees: Trees;
}
/** The last trees grown whole: what is tried out on a plan is mostly that plan with a few ports off. */
let last: Last | null = null;

/** The trees of a plan, grown again only when something they are read off changes. */
export const treesOf: (plan: Plan) => Trees = memoOn([...GROWN_OF, 'port'], (plan: Plan) => {
  const fabric = wiredOf(plan);
  if (last && GROWN_OF.every((table) => plan[table] === last!.plan[table])) {
    const lost = lostBetween(last.fabric, fabric);
    const kept = lost && treesWithout(last.trees, plan, fabric, lost);
    if (kept) return kept;
  }
  const trees = growTrees(plan, fabric);
  last = { plan, fabric, trees };
  return trees;
});

/** What is stopped at which port of a box, by its place. */
type Stopped = readonly { readonly port: number; readonly set: VidSet }[];
interface Overlaid {
  readonly stopped: Stopped;
  readonly bridge: Bridge;
}
const overlaid = new WeakMap<Bridge, Overlaid>();

/** A box with what trees and rings block at its ports; the same object again while that is the same. */
function withBlocked(bridge: Bridge, stopped: Stopped): Bridge {
  const known = overlaid.get(bridge);
  const same =
    known?.stopped.length === stopped.length &&
    stopped.every(({ port, set }, i) => known.stopped[i]!.port === port && known.stopped[i]!.set === set);
  if (same) return known.bridge;
  const facts = [...bridge.facts];
  for (const { port, set } of stopped) {
    const open = facts[port];
    if (open) facts[port] = { ...open, blocked: set };
  }
  const made: Bridge = { ...bridge, facts };
  overlaid.set(bridge, { stopped, bridge: made });
  return made;
}

/** The fabric as frames find it: its links, without the ports that trees and rings block. */
export function forwardingFabric(plan: Plan): Fabric {
  const wired = wiredOf(plan);
  const { blocked } = treesOf(plan);
  if (blocked.size === 0) return wired;
  const stopped = new Map<number, { port: number; set: VidSet }[]>();
  for (const [id, set] of blocked) {
    const seat = wired.seats.get(id);
    if (!seat) continue;
    const known = stopped.get(seat.bridge);
    if (known) known.push({ port: seat.port, set });
    else stopped.set(seat.bridge, [{ port: seat.port, set }]);
  }
  const bridges = wired.bridges.map((bridge, at) => {
    const own = stopped.get(at);
    return own ? withBlocked(bridge, own) : bridge;
  });
  return { ...wired, bridges };
}
