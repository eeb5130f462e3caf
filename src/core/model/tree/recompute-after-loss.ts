import { equal, type Plan } from '../../plan';
import type { Fabric } from '../wiring';
import { type End, type Role, type Topology, type Tree, computeTree, treeAfterLoss } from './compute';
import type { LanPort } from './lans';
import { vidsOfInstance } from './settings';
import type { Grown } from './growing';
import { type Trees, forwards, stoppedAt } from './trees';

/**
 * The trees of a network in which ports went off, made from those it had: what a pulled cable or a dead box changes is mostly
 * a small part of each tree.
 */

/** The ports that are off in one fabric and on in another with the same boxes; null when anything else differs. */
export function lostBetween(before: Fabric, after: Fabric): ReadonlySet<string> | null {
  if (before.links !== after.links || before.bridges.length !== after.bridges.length) return null;
  const lost = new Set<string>();
  for (const [at, bridge] of before.bridges.entries()) {
    const now = after.bridges[at]!;
    if (now === bridge) continue;
    if (!equal(now.box, bridge.box) || now.ports.length !== bridge.ports.length) return null;
    for (const [i, port] of bridge.ports.entries()) {
      const is = now.ports[i]!;
      if (is === port || equal(is, port)) continue;
      if (!equal(is, { ...port, enabled: false })) return null;
      lost.add(port.id);
    }
  }
  return lost;
}

/** What trees over the same LANs have in common, once some of the LANs are gone. */
interface Reduced {
  readonly ports: readonly LanPort[];
  readonly topology: Omit<Topology, 'order'>;
  /** By LAN and by end as they were counted: how they are counted now, -1 for those that are gone. */
  readonly lanNow: Int32Array;
  readonly endNow: Int32Array;
}

/** Counts LANs and ends anew without some of the LANs. */
export function reduce(
  { ports, topology }: Pick<Grown, 'ports' | 'topology'>,
  gone: ReadonlySet<number>,
): Reduced {
  const lanNow = new Int32Array(topology.lans.length).fill(-1);
  let lans = 0;
  lanNow.forEach((_, lan) => {
    if (!gone.has(lan)) lanNow[lan] = lans++;
  });
  const endNow = new Int32Array(topology.ends.length).fill(-1);
  const ends: End[] = [];
  const left: LanPort[] = [];
  topology.ends.forEach((end, at) => {
    const lan = lanNow[end.lan]!;
    if (lan < 0) return;
    endNow[at] = ends.length;
    ends.push(lan === end.lan ? end : { ...end, lan });
    left.push(ports[at]!);
  });
  const moved = (list: readonly number[]) => list.flatMap((end) => (endNow[end]! < 0 ? [] : [endNow[end]!]));
  return {
    ports: left,
    lanNow,
    endNow,
    topology: {
      region: topology.region,
      readsMst: topology.readsMst,
      ends,
      endsOf: topology.endsOf.map(moved),
      lans: topology.lans.filter((_, lan) => !gone.has(lan)).map(moved),
    },
  };
}

/** A tree with its ends and LANs counted anew, and the bridges that lost their way to the root. */
export function recounted(
  tree: Tree,
  { endNow, lanNow }: Reduced,
): { readonly tree: Tree; readonly cut: number[] } {
  const cut: number[] = [];
  const rootEnds = tree.rootEnds.map((end, bridge) => {
    if (end === null) return null;
    const now = endNow[end]!;
    if (now >= 0) return now;
    cut.push(bridge);
    return null;
  });
  // Every tree of the network comes by here: plain loops, as they are.
  const speakers: number[] = [];
  for (let lan = 0; lan < lanNow.length; lan++)
    if (lanNow[lan]! >= 0) speakers.push(endNow[tree.designatedPorts[lan]!]!);
  const roles: Role[] = [];
  for (let end = 0; end < endNow.length; end++) if (endNow[end]! >= 0) roles.push(tree.roles[end]!);
  return { cut, tree: { vectors: tree.vectors, rootEnds, designatedPorts: speakers, roles } };
}

/**
 * The trees once ports are off; null where that is more than LANs of two going away: shared LANs, bundles, guards, rings,
 * several regions, trees of single VLANs, boxes that pass messages on. There they have to be grown anew.
 */
export function treesAfterLoss(
  before: Trees,
  plan: Plan,
  fabric: Fabric,
  lost: ReadonlySet<string>,
): Trees | null {
  const { settings, grown, rings, shut, aside } = before;
  if (rings.length > 0 || shut.size > 0 || aside.size > 0 || grown.length === 0) return null;
  const [common] = grown;
  const one = common!.topology.region[0];
  // A box with a tree for each VLAN does in VLAN 1 as the common tree, and in no other.
  if (settings.some(({ mode }) => mode === 'rstp-per-vlan')) return null;
  if (!grown.every(({ edge, other }) => edge.length === 0 && other === null)) return null;
  // Instances follow the common tree where regions meet; in one region, or with none, they do not.
  if (grown.length > 1 && !common!.topology.region.every((region) => region === one)) return null;
  for (const id of lost) {
    const { bridge } = fabric.seats.get(id)!;
    if (settings[bridge]!.mode === 'none' && fabric.bridges[bridge]!.box.passes.includes('bpdu')) return null;
  }
  const reduced = new Map<readonly LanPort[], Reduced | null>();
  const changed = new Set<string>();
  const next: Grown[] = [];
  for (const tree of grown) {
    if (!reduced.has(tree.ports)) reduced.set(tree.ports, withoutPorts(tree, lost));
    const shape = reduced.get(tree.ports)!;
    if (!shape) return null;
    const { tree: kept, cut } = recounted(tree.tree, shape);
    const topology = { ...shape.topology, order: tree.topology.order };
    const made = treeAfterLoss(topology, kept, cut) ?? computeTree(topology);
    if (made !== kept)
      made.roles.forEach((role, end) => {
        if (forwards(role) !== forwards(kept.roles[end]!)) changed.add(shape.ports[end]!.ports[0]!);
      });
    next.push({ ...tree, ports: shape.ports, topology, tree: made });
  }
  return {
    settings,
    grown: next,
    rings,
    shut,
    aside,
    blocked: blockedNow(plan, fabric, before, next, changed, reduced),
  };
}

function withoutPorts(tree: Grown, lost: ReadonlySet<string>): Reduced | null {
  const gone = new Set<number>();
  for (const [end, { ports }] of tree.ports.entries()) {
    if (!ports.some((id) => lost.has(id))) continue;
    const { lan } = tree.topology.ends[end]!;
    if (ports.length > 1 || tree.topology.lans[lan]!.length > 2) return null;
    gone.add(lan);
  }
  return reduce(tree, gone);
}

/** What is blocked: as it was, but at ports of which some tree thinks otherwise now. */
function blockedNow(
  plan: Plan,
  fabric: Fabric,
  before: Trees,
  grown: readonly Grown[],
  changed: ReadonlySet<string>,
  reduced: ReadonlyMap<readonly LanPort[], Reduced | null>,
): Trees['blocked'] {
  const blocked = new Map(before.blocked);
  // Ports of LANs that are gone are in no tree, and block nothing any more.
  for (const [ports, shape] of reduced)
    ports.forEach(({ ports: [id] }, end) => {
      if (shape!.endNow[end]! < 0) blocked.delete(id!);
    });
  const places = new Map<readonly LanPort[], Map<string, number>>();
  const endOf = (tree: Grown, id: string): number | undefined => {
    let known = places.get(tree.ports);
    if (!known)
      places.set(tree.ports, (known = new Map(tree.ports.map(({ ports }, end) => [ports[0]!, end]))));
    return known.get(id);
  };
  const [common, ...instances] = grown;
  for (const id of changed) {
    const own = endOf(common!, id);
    if (own === undefined) continue;
    const { bridge, ports } = common!.ports[own]!;
    const passes = forwards(common!.tree.roles[own]!);
    const others: number[] = [];
    for (const instance of instances) {
      const end = endOf(instance, id);
      if (end !== undefined && forwards(instance.tree.roles[end]!) !== passes)
        others.push(...vidsOfInstance(plan, fabric.bridges[bridge]!.device, instance.number));
    }
    const set = stoppedAt(passes, others);
    for (const port of ports) {
      if (set) blocked.set(port, set);
      else blocked.delete(port);
    }
  }
  return blocked;
}
