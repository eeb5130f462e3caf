import { derive, deriveBy, equal, memo, pick, type Plan } from '../../plan';
import {
  type VidSet,
  type Bridge,
  type Fabric,
  type WiredPort,
  bridgeOf,
  fabricOf,
  isOpen,
  vidsById,
} from '../wiring';
import { type Trees, growTrees } from './trees';
import { lostBetween, treesAfterLoss } from './recompute-after-loss';

/** The ports of boxes that are off in the second plan and on in the first; null where they differ in more than that. */
export const lostPorts = (before: Plan, after: Plan): ReadonlySet<string> | null =>
  lostBetween(fabricOf(before), fabricOf(after));

/** What trees are grown of besides boxes and links. */
const treeRecords = derive((plan) => ({
  bridges: [...plan.bridge.values()],
  instances: [...plan.instance.values()],
  ports: [...plan.stpPort.values()],
  lags: [...plan.lag.values()].map(({ id, lacp }) => ({ id, lacp })),
  vids: vidsById(plan),
}));

const shapeOfPort = memo((port: WiredPort) => ({
  ...pick(port, ['id', 'number', 'speed', 'lag']),
  open: isOpen(port),
}));
/** What of a box and its ports makes the common tree and the instances: no VLAN of a port does. */
const shapeOf = deriveBy((plan, device: string) => {
  const { box, ports } = bridgeOf(plan, device);
  return { box, ports: ports.map(shapeOfPort) };
});
const shapes = derive((plan) => fabricOf(plan).bridges.map(({ device }) => shapeOf(plan, device)));

interface Standing {
  readonly records: ReturnType<typeof treeRecords>;
  readonly shapes: ReturnType<typeof shapes>;
  readonly fabric: Fabric;
  readonly trees: Trees;
}
/** The trees with what they were grown of. What is tried out on a plan is mostly that plan with a few ports off. */
const standing = derive((plan, before: Standing | undefined): Standing => {
  const [records, made, fabric] = [treeRecords(plan), shapes(plan), fabricOf(plan)];
  const alike = before?.records === records && before.shapes === made && before.fabric.links === fabric.links;
  // Only the trees of single VLANs depend on which port carries which.
  if (before && alike && !before.trees.settings.some(({ mode }) => mode === 'rstp-per-vlan'))
    return { ...before, fabric };
  const lost = before && before.records === records ? lostBetween(before.fabric, fabric) : null;
  const kept = lost && treesAfterLoss(before!.trees, plan, fabric, lost);
  if (kept) return { records, shapes: made, fabric, trees: kept };
  const grown = growTrees(plan, fabric);
  const trees = before && equal(before.trees, grown) ? before.trees : grown;
  return { records, shapes: made, fabric, trees };
}, Object.is);
/** The trees of a plan, grown again only when something they are read off changes. */
export const treesOf = derive((plan): Trees => standing(plan).trees, Object.is);

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
export const forwardingFabric = derive((plan): Fabric => {
  const wired = fabricOf(plan);
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
});
