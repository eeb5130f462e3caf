import type { Plan } from '../../plan';
import { DEFAULT_VID, type Fabric } from '../wiring';
import { type End, type Role, type Topology, type Tree, computeTree } from './compute';
import { type LanPort, type Part, type SharedLan, lansOf } from './lans';
import { portsAside } from './aside';
import { type BridgeSettings, instanceOf, settingsOf, stpPortOf } from './settings';
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

/** A tree as people call it. */
export const treeTitle = ({ kind, number }: Pick<Grown, 'kind' | 'number'>): string =>
  kind === 'common' ? 'the common tree' : kind === 'instance' ? `instance ${number}` : `VLAN ${number}`;

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

/** Everything needed to compute the trees of one plan. */
export class Growing {
  readonly settings: readonly BridgeSettings[];
  readonly shut = new Set<string>();
  /** Ports that stand aside in their bundle. */
  readonly aside: ReadonlySet<string>;

  constructor(
    readonly plan: Plan,
    readonly fabric: Fabric,
  ) {
    this.aside = portsAside(plan, fabric);
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
    if (!facts[index] || this.shut.has(id) || this.aside.has(id)) return 'none';
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
