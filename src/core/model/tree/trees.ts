import type { Plan } from '../../plan';
import { DEFAULT_VID, EVERY, type Fabric, VidSet } from '../wiring';
import type { Role } from './compute';
import { type Grown, Growing } from './growing';
import type { SharedLan } from './lans';
import { type Ring, ringsIn } from './ring';
import { type BridgeSettings, instancesOf, regionOf, vidsOfInstance } from './settings';
import { growVlans } from './vlan-trees';

export interface Trees {
  /** By place in the fabric. */
  readonly settings: readonly BridgeSettings[];
  readonly grown: readonly Grown[];
  readonly rings: readonly Ring[];
  /** By port: the VLANs that do not pass. */
  readonly blocked: ReadonlyMap<string, VidSet>;
  /** Ports that a BPDU guard switched off. */
  readonly shut: ReadonlySet<string>;
  /** Ports that stand aside in their bundle. */
  readonly aside: ReadonlySet<string>;
}

export const forwards = (role: Role): boolean =>
  role === 'root' || role === 'designated' || role === 'master';

/**
 * All trees and rings of a plan, and what they block. The common tree first (RSTP, and MST between its regions), then the
 * instances within each region, then the trees of single VLANs, whose messages other boxes pass on like data.
 */
export function growTrees(plan: Plan, fabric: Fabric): Trees {
  const growing = new Growing(plan, fabric);
  const { settings, aside } = growing;
  const { bridges } = fabric;
  const blocked = new Map<string, VidSet>();
  const grown: Grown[] = [];
  const rings = ringsIn(plan, fabric);
  for (const ring of rings) if (ring.blocked !== null) blocked.set(ring.blocked, EVERY);
  for (const id of aside) blocked.set(id, EVERY);

  const speaking = bridges.flatMap((_, at) => (settings[at]!.mode === 'none' ? [] : [at]));
  if (speaking.length === 0) return { settings, grown, rings, blocked, shut: growing.shut, aside };

  const regionNumbers = new Map<string, number>();
  const regions = bridges.map(({ box }, at) => {
    if (settings[at]!.mode !== 'mst') return -1 - at;
    const { name, revision, digest } = regionOf(plan, box);
    const key = JSON.stringify([name, revision, digest]);
    if (!regionNumbers.has(key)) regionNumbers.set(key, regionNumbers.size);
    return regionNumbers.get(key)!;
  });
  const lans = growing.commonLans();
  const common = growing.grow(
    'common',
    0,
    growing.shape(0, lans, speaking, (place) => regions[place]!),
  );
  grown.push(common);
  for (const id of growing.shut) blocked.set(id, EVERY);

  const instances = growInstances(growing, common, lans, regions);
  grown.push(...instances);
  blockCommon(growing, common, instances, blocked);

  if (settings.some(({ mode }) => mode === 'rstp-per-vlan')) {
    const single = growVlans(growing, blocked);
    grown.push(...single);
    const stopped = new Map<string, number[]>();
    for (const { number, ports, tree } of single)
      ports.forEach(({ ports: ids }, end) => {
        if (forwards(tree.roles[end]!)) return;
        for (const id of ids) {
          const vids = stopped.get(id);
          if (vids) vids.push(number);
          else stopped.set(id, [number]);
        }
      });
    for (const [id, vids] of stopped) block(blocked, [id], vids);
  }
  return { settings, grown, rings, blocked, shut: growing.shut, aside };
}

function block(blocked: Map<string, VidSet>, ports: readonly string[], vids: readonly number[]): void {
  for (const id of ports) {
    const known = blocked.get(id);
    if (known?.except) continue;
    blocked.set(id, new VidSet(false, new Set([...(known?.vids ?? []), ...vids])));
  }
}

/** The instances of each region, over the LANs on which one of its own boxes speaks in the common tree. */
function growInstances(
  growing: Growing,
  common: Grown,
  lans: readonly SharedLan[],
  regions: readonly number[],
): Grown[] {
  const { plan, fabric, settings } = growing;
  const spoken = common.tree.designatedPorts.map(
    (end) => regions[common.places[common.topology.ends[end]!.bridge]!]!,
  );
  const members = new Map<number, number[]>();
  for (const place of common.places)
    if (settings[place]!.mode === 'mst')
      members.set(regions[place]!, [...(members.get(regions[place]!) ?? []), place]);
  return [...members].flatMap(([region, places]) => {
    const inside = lans
      .filter((_, at) => spoken[at] === region)
      .map(({ ports }) => ({ ports: ports.filter(({ bridge }) => regions[bridge] === region) }))
      .filter(({ ports }) => ports.length > 0);
    const within = new Set(inside.flatMap(({ ports }) => ports.map(({ ports: [id] }) => id)));
    const edge = common.ports.flatMap((port, end) => {
      if (regions[port.bridge] !== region || within.has(port.ports[0]!)) return [];
      const role = common.tree.roles[end]!;
      return [{ port, role: role === 'root' ? ('master' as const) : role }];
    });
    const numbers = new Set(
      places.flatMap((place) => instancesOf(plan, fabric.bridges[place]!.device).map(({ number }) => number)),
    );
    // Where nothing is set for ports in an instance, its tree differs in the order of identifiers only.
    const set = new Set([...plan.stpPort.values()].map(({ instance }) => instance));
    const usual = growing.shape(-1, inside, places, () => 0);
    return [...numbers]
      .sort((a, b) => a - b)
      .map((number) => ({
        ...growing.grow(
          'instance',
          number,
          set.has(number) ? growing.shape(number, inside, places, () => 0) : usual,
        ),
        edge,
      }));
  });
}

/** What a port stops: as the common tree has it, but for the VLANs whose instance has it otherwise; null for nothing. */
export const stoppedAt = (passes: boolean, others: readonly number[]): VidSet | null =>
  others.length > 0 ? new VidSet(!passes, new Set(others)) : passes ? null : EVERY;

/** What the common tree and the instances block. At the edge of a region all instances do as the common tree (clause 13.13). */
function blockCommon(
  { plan, fabric, settings }: Growing,
  common: Grown,
  instances: readonly Grown[],
  blocked: Map<string, VidSet>,
): void {
  const passing = new Map(
    common.ports.map(({ ports: [id] }, end) => [id!, forwards(common.tree.roles[end]!)]),
  );
  // By port the VLANs whose instance does other than the common tree.
  const others = new Map<string, number[]>();
  for (const { number, ports, tree } of instances)
    for (const [end, { ports: ids, bridge }] of ports.entries()) {
      const id = ids[0]!;
      if (forwards(tree.roles[end]!) === passing.get(id)) continue;
      const vids = vidsOfInstance(plan, fabric.bridges[bridge]!.device, number);
      const known = others.get(id);
      if (known) known.push(...vids);
      else others.set(id, [...vids]);
    }
  common.ports.forEach((port, end) => {
    const passes = forwards(common.tree.roles[end]!);
    const { mode } = settings[port.bridge]!;
    if (mode === 'rstp-per-vlan') {
      if (!passes) block(blocked, port.ports, [DEFAULT_VID]);
      return;
    }
    const listed = mode === 'mst' ? others.get(port.ports[0]!) : undefined;
    const set = stoppedAt(passes, listed ?? []);
    if (set) for (const id of port.ports) blocked.set(id, set);
  });
}
