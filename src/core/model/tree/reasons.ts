import { type Plan, portTitle } from '../../plan';
import type { Fabric } from '../wiring';
import { heardBy, rootsOf, designatedVector } from './compute';
import type { Grown, Identifier } from './growing';
import { type Vector, compareVectors, decidedBy } from './vector';

/** Why a tree is as it is, each time by the comparison that decided. */

const macText = ({ mac }: Identifier): string => (mac === null ? 'MAC not known' : `…${mac.slice(-5)}`);

/** A bridge identifier as people read it: priority and the end of the MAC address. */
export const identifierText = (identifier: Identifier): string =>
  `${identifier.priority} ${macText(identifier)}`;

/** A port identifier as priority and number. */
export const portIdText = (id: number): string => `${Math.floor(id / 4096) * 16}.${id % 4096}`;

/** What a master port is; only at the edge of a region is there one. */
export const MASTER = 'the way of this region to the root outside';

/** Says things of one tree of one plan. */
export class Reasons {
  /** Bridge of the topology by its place in the order. */
  private readonly atOrder: readonly number[];

  constructor(
    private readonly plan: Plan,
    private readonly fabric: Fabric,
    readonly grown: Grown,
  ) {
    const atOrder: number[] = [];
    grown.topology.order.forEach((order, bridge) => (atOrder[order] = bridge));
    this.atOrder = atOrder;
  }

  name(bridge: number): string {
    return this.plan.device.get(this.fabric.bridges[this.grown.places[bridge]!]!.device)!.name;
  }

  portName(end: number): string {
    return portTitle(this.plan, this.plan.port.get(this.grown.ports[end]!.ports[0]!)!);
  }

  private identifier = (order: number): string =>
    identifierText(this.grown.identifiers[this.atOrder[order]!]!);

  /** `better` against `worse`, said of who has the better one. */
  private compared(better: Vector, worse: Vector, whose: string): string {
    const field = decidedBy(better, worse);
    const cost = (v: Vector) => v.external + v.internal;
    const bridges = (a: number, b: number) => {
      const [x, y] = [this.atOrder[a]!, this.atOrder[b]!];
      const [one, two] = [this.grown.identifiers[x]!, this.grown.identifiers[y]!];
      if (one.priority !== two.priority)
        return `priority ${one.priority} lower than ${two.priority} of ${whose}`;
      return `priorities equal, ${macText(one)} lower than ${macText(two)} of ${whose}`;
    };
    switch (field) {
      case 'root':
        return `it knows the better root ${this.name(this.atOrder[better.root]!)}; ${whose} knows ${this.name(this.atOrder[worse.root]!)}`;
      case 'external':
        // Between regions only the cost outside of them counts (IEEE 802.1Q-2022 clause 13.10).
        return `root path cost ${better.external} lower than ${worse.external} of ${whose}`;
      case 'internal':
        return `cost within the region ${better.internal} lower than ${worse.internal} of ${whose}`;
      case 'regional':
        // Each is a region of its own: its identifier is that of the bridge.
        if (better.regional === better.bridge && worse.regional === worse.bridge)
          return `root path cost equal (${cost(better)}), ${bridges(better.bridge, worse.bridge)}`;
        return `cost equal, regional root ${this.identifier(better.regional)} lower than ${this.identifier(worse.regional)}`;
      case 'bridge':
        return `root path cost equal (${cost(better)}), ${bridges(better.bridge, worse.bridge)}`;
      case 'port':
        return `cost and bridge equal, port id ${portIdText(better.port)} lower than ${portIdText(worse.port)}`;
      case 'received':
        return `all equal but the own port: ${portIdText(better.received)} lower than ${portIdText(worse.received)}`;
      case null:
        return 'both are the same';
    }
  }

  /** The end of a LAN that would speak if `end` did not; null where nobody else could. */
  private rivalOn(end: number): number | null {
    const { topology, tree } = this.grown;
    const others = topology.lans[topology.ends[end]!.lan]!.filter((other) => other !== end);
    if (others.length === 0) return null;
    return others.reduce((a, b) =>
      compareVectors(
        designatedVector(topology, tree.vectors, a),
        designatedVector(topology, tree.vectors, b),
      ) <= 0
        ? a
        : b,
    );
  }

  /** What each port hears that could lead to the root, but not by `but`. */
  private bestBut(bridge: number, but: number): { readonly end: number; readonly vector: Vector } | null {
    const { topology, tree } = this.grown;
    let best: { end: number; vector: Vector } | null = null;
    for (const end of topology.endsOf[bridge]!) {
      if (end === but) continue;
      const vector = heardBy(topology, tree.vectors, tree.designatedPorts, end);
      // A port that speaks itself would be the way only if everything else went.
      if (!vector || tree.roles[end] === 'designated') continue;
      if (!best || compareVectors(vector, best.vector) < 0) best = { end, vector };
    }
    return best;
  }

  /** Why a port has its role, as half a sentence. */
  ofPort(end: number): string {
    const { topology, tree } = this.grown;
    const { bridge, lan, restricted } = topology.ends[end]!;
    const speaker = tree.designatedPorts[lan]!;
    const heardHere = heardBy(topology, tree.vectors, tree.designatedPorts, end);
    switch (tree.roles[end]!) {
      case 'designated': {
        const rival = this.rivalOn(end);
        if (rival === null) return 'nobody else on this link takes part';
        const [mine, theirs] = [
          designatedVector(topology, tree.vectors, end),
          designatedVector(topology, tree.vectors, rival),
        ];
        if (topology.ends[rival]!.bridge === bridge)
          return `the other port of the same box on this LAN is ${this.portName(rival)}; port id ${portIdText(mine.port)} lower than ${portIdText(theirs.port)}`;
        return `${this.compared(mine, theirs, this.name(topology.ends[rival]!.bridge))}, so this side speaks`;
      }
      case 'root': {
        const other = this.bestBut(bridge, end);
        const way = `the way to ${this.name(this.atOrder[tree.vectors[bridge]!.root]!)}`;
        if (!other) return `${way}, and the only one`;
        return `${way}: ${this.compared(heardHere!, other.vector, `the way by ${this.portName(other.end)}`)}`;
      }
      case 'alternate': {
        const [theirs, mine] = [
          designatedVector(topology, tree.vectors, speaker),
          designatedVector(topology, tree.vectors, end),
        ];
        const lost = this.compared(theirs, mine, 'this side').replace(
          /^it knows/,
          `${this.portName(speaker)} knows`,
        );
        const guard = restricted ? '; root guard keeps it from being the way to the root' : '';
        return `${this.portName(speaker)} speaks here: ${lost}${guard}`;
      }
      case 'backup':
        return `the box hears itself: ${this.portName(speaker)} speaks on the same LAN with the lower port id`;
      case 'master':
        return MASTER;
    }
  }

  /** Why a box is the root of its part: against the one that would be next. */
  ofRoot(bridge: number): string {
    const { topology, identifiers } = this.grown;
    const part = this.partOf(bridge);
    if (part.length === 1) return 'it hears no other';
    const next = part
      .filter((other) => other !== bridge)
      .reduce((a, b) => (topology.order[a]! < topology.order[b]! ? a : b));
    const [one, two] = [identifiers[bridge]!, identifiers[next]!];
    const rest = part.length > 2 ? ', and lower than all others' : '';
    if (one.priority !== two.priority)
      return `priority ${one.priority} lower than ${two.priority} of ${this.name(next)}${rest}`;
    if (one.mac === null || two.mac === null)
      return `priority ${one.priority} equal to that of ${this.name(next)}, and a MAC address is not known: it may be either`;
    return `priority ${one.priority} equal, ${macText(one)} lower than ${macText(two)} of ${this.name(next)}${rest}`;
  }

  /** The bridges that follow the same root. */
  partOf(bridge: number): number[] {
    const { vectors } = this.grown.tree;
    return vectors.flatMap(({ root }, other) => (root === vectors[bridge]!.root ? [other] : []));
  }

  roots(): number[] {
    return rootsOf(this.grown.tree, this.grown.topology);
  }

  /** How many links a bridge is from its root. */
  hops(bridge: number): number {
    const { tree, topology } = this.grown;
    let count = 0;
    for (let at = bridge; tree.rootEnds[at] !== null; count++)
      at = topology.ends[tree.designatedPorts[topology.ends[tree.rootEnds[at]!]!.lan]!]!.bridge;
    return count;
  }
}
