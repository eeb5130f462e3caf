import { type Plan, plainVlansOf } from '../../plan';
import {
  DEFAULT_VID,
  EVERY,
  VidSet,
  isMember,
  type Fabric,
  type Seat,
  enters,
  inwardPorts,
  leaves,
} from '../wiring';
import { type End, type Role, type Topology, type Tree, computeTree } from './compute';
import { type SharedLan, type LanPort, type Part, lansOf } from './lans';
import { type Ring, ringsIn } from './ring';
import {
  type BridgeSettings,
  instanceOf,
  instancesOf,
  regionOf,
  settingsOf,
  stpPortOf,
  vidsOfInstance,
} from './settings';
import { pathCost, portId } from './vector';

/** A tree over the boxes of a plan. */
export interface Grown {
  /** The common tree of RSTP and MST, an instance within a region, or the tree of one VLAN. */
  readonly kind: 'common' | 'instance' | 'vlan';
  /** 0 for the common tree, else the instance or the VLAN id. */
  readonly number: number;
  /** By bridge of the topology: its place in the fabric. */
  readonly places: readonly number[];
  /** By bridge: the identifier as compared, priority with the system id extension, and the MAC address where known. */
  readonly identifiers: readonly Identifier[];
  /** By end of the topology. */
  readonly ports: readonly LanPort[];
  readonly topology: Topology;
  readonly tree: Tree;
  /** Of an instance: the ports at the edge of its region, which do as in the common tree; its root port is the master. */
  readonly edge: readonly { readonly port: LanPort; readonly role: Role }[];
  /** The tree should every MAC address that is not known be lower than the others; null where none is missing. */
  readonly other: Tree | null;
}

export interface Identifier {
  /** Bridge priority and system id extension together (clause 13.26.2). */
  readonly priority: number;
  readonly mac: string | null;
}

export interface Trees {
  /** By place in the fabric. */
  readonly settings: readonly BridgeSettings[];
  readonly grown: readonly Grown[];
  readonly rings: readonly Ring[];
  /** By port: the VLANs that do not pass. */
  readonly blocked: ReadonlyMap<string, VidSet>;
  /** Ports that a BPDU guard switched off. */
  readonly shut: ReadonlySet<string>;
}

export const forwards = (role: Role): boolean =>
  role === 'root' || role === 'designated' || role === 'master';

/** Bridge priorities count in steps of 4096 (clause 13.26.3), port priorities in steps of 16. */
const step = (value: number, size: number): number => value - (value % size);

/** Places of identifiers from the best; those without a MAC address last, or first. */
function orderOf(identifiers: readonly Identifier[], unknown: 'last' | 'first'): number[] {
  const places = identifiers.map((_, at) => at);
  const sign = unknown === 'last' ? 1 : -1;
  places.sort((a, b) => {
    const [x, y] = [identifiers[a]!, identifiers[b]!];
    if (x.priority !== y.priority) return x.priority - y.priority;
    if (x.mac === null || y.mac === null)
      return x.mac === y.mac ? sign * (a - b) : sign * (x.mac === null ? 1 : -1);
    return x.mac < y.mac ? -1 : x.mac > y.mac ? 1 : a - b;
  });
  const order: number[] = new Array(places.length);
  places.forEach((at, rank) => (order[at] = rank));
  return order;
}

/** Is the order of two identifiers a guess, because a MAC address is missing? */
const isGuess = (a: Identifier, b: Identifier): boolean =>
  a.priority === b.priority && (a.mac === null || b.mac === null);

/** What the trees over the same LANs have in common: all but the order of the identifiers. */
interface Shape {
  readonly places: readonly number[];
  readonly ports: readonly LanPort[];
  readonly topology: Omit<Topology, 'order'>;
}

const PART_LETTERS: Readonly<Record<Part, string>> = { own: 'o', through: 't', none: 'n' };

/** Everything needed to compute the trees of one plan. */
class Growing {
  readonly settings: readonly BridgeSettings[];
  readonly shut = new Set<string>();

  constructor(
    readonly plan: Plan,
    readonly fabric: Fabric,
  ) {
    this.settings = fabric.bridges.map(({ box }) => settingsOf(plan, box));
  }

  /** `places` are all boxes that take part, also those that hear nobody. */
  shape(
    number: number,
    lans: readonly SharedLan[],
    places: readonly number[],
    region: (place: number) => number,
  ): Shape {
    const { plan, settings } = this;
    const nodes = new Map(places.map((place, at) => [place, at]));
    const ports: LanPort[] = [];
    const ends: End[] = [];
    const endsOf: number[][] = places.map(() => []);
    const members = lans.map((lan, at) =>
      lan.ports.map((port) => {
        const bridge = nodes.get(port.bridge)!;
        const { costScale } = settings[port.bridge]!;
        const set = stpPortOf(plan, port.ports[0]!, number);
        const cost = set.cost ?? pathCost(port.speed, costScale);
        const end = ends.length;
        ports.push(port);
        ends.push({
          bridge,
          lan: at,
          id: portId(step(set.priority, 16), port.number),
          externalCost: cost,
          internalCost: cost,
          restricted: set.guard === 'root',
        });
        endsOf[bridge]!.push(end);
        return end;
      }),
    );
    const readsMst = places.map((place) => settings[place]!.mode === 'mst');
    return {
      places,
      ports,
      topology: { region: places.map((place) => region(place)), readsMst, ends, endsOf, lans: members },
    };
  }

  grow(kind: Grown['kind'], number: number, { places, ports, topology: shape }: Shape): Grown {
    const { plan, fabric, settings } = this;
    const identifiers = places.map((place): Identifier => {
      const { mode, priority } = settings[place]!;
      const { device, box } = fabric.bridges[place]!;
      // In the common tree a box with a tree for each VLAN speaks as in VLAN 1.
      const own = kind !== 'common' ? number : mode === 'rstp-per-vlan' ? DEFAULT_VID : 0;
      const set = own === 0 ? undefined : instanceOf(plan, device, own);
      return { priority: step((set ?? { priority }).priority, 4096) + own, mac: box.baseMac };
    });
    const topology: Topology = { ...shape, order: orderOf(identifiers, 'last') };
    const guesses = identifiers.some(
      (item, at) => item.mac === null && identifiers.some((other, i) => i !== at && isGuess(item, other)),
    );
    return {
      kind,
      number,
      places,
      identifiers,
      ports,
      topology,
      edge: [],
      tree: computeTree(topology),
      other: guesses ? computeTree({ ...shape, order: orderOf(identifiers, 'first') }) : null,
    };
  }

  /** What a port does with the messages of the common tree. */
  readonly commonPart = (bridge: number, index: number): Part => {
    const { box, facts, ports } = this.fabric.bridges[bridge]!;
    const { id } = ports[index]!;
    if (!facts[index] || this.shut.has(id)) return 'none';
    const { mode, ringPorts } = this.settings[bridge]!;
    if (mode === 'none') return box.passes.includes('bpdu') ? 'through' : 'none';
    if (mode === 'ring' && ringPorts.includes(id)) return 'none';
    return stpPortOf(this.plan, id, 0).guard === 'filter' ? 'none' : 'own';
  };

  /** The LANs of the common tree, after the guards have switched off what hears somebody. */
  commonLans(): SharedLan[] {
    const lans = lansOf(this.fabric, this.commonPart, () => true);
    for (const { ports } of lans)
      if (ports.length > 1)
        for (const { ports: ids } of ports)
          if (stpPortOf(this.plan, ids[0]!, 0).guard === 'bpdu') for (const id of ids) this.shut.add(id);
    return this.shut.size > 0 ? lansOf(this.fabric, this.commonPart, () => true) : lans;
  }
}

/**
 * All trees and rings of a plan, and what they block. The common tree first (RSTP, and MST between its regions), then the
 * instances within each region, then the trees of single VLANs, whose messages other boxes pass on like data.
 */
export function growTrees(plan: Plan, fabric: Fabric): Trees {
  const growing = new Growing(plan, fabric);
  const { settings } = growing;
  const { bridges } = fabric;
  const blocked = new Map<string, VidSet>();
  const grown: Grown[] = [];
  const rings = ringsIn(plan, fabric);
  for (const ring of rings) if (ring.blocked !== null) blocked.set(ring.blocked, EVERY);

  const speaking = bridges.flatMap((_, at) => (settings[at]!.mode === 'none' ? [] : [at]));
  if (speaking.length === 0) return { settings, grown, rings, blocked, shut: growing.shut };

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
  return { settings, grown, rings, blocked, shut: growing.shut };
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

/**
 * A tree for each VLAN over the boxes that run one for each. VLAN 1 is in the common tree. VLANs that pass the same ports, and
 * for which nothing is set apart, have the same tree under another number; it is grown once.
 */
function growVlans(growing: Growing, blocked: ReadonlyMap<string, VidSet>): Grown[] {
  const { plan, fabric, settings } = growing;
  const { bridges, links, seats } = fabric;
  const inward = inwardPorts(fabric);
  const apart = new Set([
    ...[...plan.stpPort.values()].map(({ instance }) => instance),
    ...[...plan.instance.values()].map(({ number }) => number),
  ]);
  const vids = [...new Set(plainVlansOf(plan).map(({ vid }) => vid))].filter((vid) => vid !== DEFAULT_VID);
  const first = new Map<string, Grown>();
  return vids.map((vid) => {
    const part = (bridge: number, index: number): Part => {
      const { box, facts, ports } = bridges[bridge]!;
      const own = facts[index];
      const { id } = ports[index]!;
      if (!own || growing.shut.has(id) || (box.vlanAware && !isMember(own, vid))) return 'none';
      if (settings[bridge]!.mode === 'rstp-per-vlan')
        return stpPortOf(plan, id, 0).guard === 'filter' ? 'none' : 'own';
      const stopped = blocked.get(id);
      return stopped && stopped.has(vid) ? 'none' : 'through';
    };
    const joined = (from: Seat, to: Seat): boolean => {
      const [a, b] = [bridges[from.bridge]!, bridges[to.bridge]!];
      if (!a.box.vlanAware || !b.box.vlanAware) return true;
      const tag = leaves(a, from.port, vid);
      const entered = tag === null ? null : enters(b, to.port, tag);
      return entered !== null && 'vid' in entered && entered.vid === vid;
    };
    const places = bridges.flatMap(({ ports }, at) =>
      settings[at]!.mode === 'rstp-per-vlan' && ports.some((_, i) => part(at, i) === 'own') ? [at] : [],
    );
    let passes = `${places.join()} `;
    for (const [bridge, indexes] of inward.entries())
      for (const port of indexes) {
        passes += PART_LETTERS[part(bridge, port)];
        for (const { to } of links.get(bridges[bridge]!.ports[port]!.id) ?? []) {
          const seat = seats.get(to);
          if (seat) passes += joined({ bridge, port }, seat) ? '=' : '-';
        }
      }
    const known = apart.has(vid) ? undefined : first.get(passes);
    if (known) {
      const identifiers = known.identifiers.map(({ priority, mac }) => ({
        priority: priority - known.number + vid,
        mac,
      }));
      return { ...known, number: vid, identifiers };
    }
    const lans = lansOf(fabric, part, joined);
    const grown = growing.grow(
      'vlan',
      vid,
      growing.shape(vid, lans, places, (place) => place),
    );
    if (!apart.has(vid)) first.set(passes, grown);
    return grown;
  });
}
