import { derive, deriveBy, type Plan, plainVlansOf, memo } from '../../plan';
import { carries, isOpen, type Fabric, type Link, type WiredPort } from '../wiring';
import { fabric } from './reach';
import { membersOfVlan } from './vlan-members';

/** A link between two bridges, by their places in the fabric. */
interface Line {
  readonly a: number;
  readonly b: number;
  readonly link: Link;
}

/** The same with its ports as they are now. */
export interface Trunk extends Line {
  readonly from: WiredPort;
  readonly to: WiredPort;
}

export interface BoxLink {
  readonly link: Link;
  readonly a: WiredPort;
  readonly b: WiredPort;
}

const portAt = ({ bridges, seats }: Fabric, id: string): WiredPort => {
  const { bridge, port } = seats.get(id)!;
  return bridges[bridge]!.ports[port]!;
};

/** Each link between two boxes once, whether frames pass or not. */
export const boxLinks = derive((plan): readonly BoxLink[] => {
  const made = fabric(plan);
  const { links, seats } = made;
  const found: BoxLink[] = [];
  for (const list of links.values())
    for (const link of list)
      if (link.from < link.to && seats.has(link.from) && seats.has(link.to))
        found.push({ link, a: portAt(made, link.from), b: portAt(made, link.to) });
  return found;
});

/** The links over which frames could pass. They stay the same while ports are given other VLANs. */
const linesOf = derive((plan, before: readonly Line[] | undefined): readonly Line[] => {
  const { seats } = fabric(plan);
  const known = new Map(before?.map((line) => [line.link, line]));
  return boxLinks(plan).flatMap(({ link, a, b }) => {
    if (a.device === b.device || !isOpen(a) || !isOpen(b)) return [];
    const line = { a: seats.get(a.id)!.bridge, b: seats.get(b.id)!.bridge, link };
    const was = known.get(link);
    return [was?.a === line.a && was.b === line.b ? was : line];
  });
});
const trunksAt = (plan: Plan, lines: readonly Line[]): Trunk[] => {
  const made = fabric(plan);
  return lines.map((line) => ({
    ...line,
    from: portAt(made, line.link.from),
    to: portAt(made, line.link.to),
  }));
};

/**
 * The trunks on which a VLAN is needed: those on any way from one bridge that uses it to another, ways round a ring
 * included. Blocks of the graph of boxes (no single box cuts them) hang together as a tree; a leaf without a user goes,
 * and what remains is needed. Hopcroft and Tarjan 1973, "Algorithm 447".
 */
const neededLines = deriveBy((plan, vlan: string): readonly Line[] => {
  const { blocks, blocksAt, joints } = blocksIn(plan);
  const users = new Set(membersOfVlan(plan, vlan).map((user) => user.state.bridge));
  // What holds a block: its boxes that use the VLAN, or are in another block that stands.
  const ties = joints.map((boxes) => boxes.length);
  for (const box of users) {
    const [only, other] = blocksAt.get(box) ?? [];
    if (only !== undefined && other === undefined) ties[only]!++;
  }
  const memberships = new Map<number, number>();
  const leaves = [...ties.keys()].filter((at) => ties[at]! <= 1);
  const gone = new Set(leaves);
  for (const leaf of leaves)
    for (const box of joints[leaf]!) {
      const left = (memberships.get(box) ?? blocksAt.get(box)!.length) - 1;
      memberships.set(box, left);
      if (left !== 1 || users.has(box)) continue;
      const last = blocksAt.get(box)!.find((at) => !gone.has(at));
      if (last === undefined || --ties[last]! > 1) continue;
      gone.add(last);
      leaves.push(last);
    }
  return blocks.flatMap((lines, at) => (gone.has(at) ? [] : lines));
});

/** The blocks of the plan's trunks, the boxes of each, the blocks each box is in, and by block the boxes that are in others too. */
const blocksIn = derive((plan) => {
  const blocks = blocksOf(linesOf(plan));
  const boxesOf = blocks.map((block) => new Set(block.flatMap((trunk) => [trunk.a, trunk.b])));
  const blocksAt = new Map<number, number[]>();
  boxesOf.forEach((boxes, at) => {
    for (const box of boxes) {
      const list = blocksAt.get(box);
      if (list) list.push(at);
      else blocksAt.set(box, [at]);
    }
  });
  const joints = boxesOf.map((boxes) => [...boxes].filter((box) => blocksAt.get(box)!.length > 1));
  return { blocks, boxesOf, blocksAt, joints };
});

/** The biconnected components of a graph with parallel edges, as lists of edges; iterative, for long chains of boxes. */
function blocksOf(trunks: readonly Line[]): Line[][] {
  const edges = new Map<number, { readonly to: number; readonly index: number }[]>();
  trunks.forEach((trunk, index) => {
    for (const [from, to] of [
      [trunk.a, trunk.b],
      [trunk.b, trunk.a],
    ] as const)
      edges.set(from, [...(edges.get(from) ?? []), { to, index }]);
  });
  const order = new Map<number, number>();
  const low = new Map<number, number>();
  const open: number[] = [];
  const blocks: Line[][] = [];
  for (const root of edges.keys()) {
    if (order.has(root)) continue;
    const path = [{ box: root, via: -1, next: 0 }];
    order.set(root, order.size);
    low.set(root, order.get(root)!);
    while (path.length > 0) {
      const top = path.at(-1)!;
      const edge = edges.get(top.box)![top.next++];
      if (!edge) {
        path.pop();
        const parent = path.at(-1);
        if (!parent) break;
        low.set(parent.box, Math.min(low.get(parent.box)!, low.get(top.box)!));
        if (low.get(top.box)! >= order.get(parent.box)!) {
          const at = open.lastIndexOf(top.via);
          blocks.push(open.splice(at).map((index) => trunks[index]!));
        }
      } else if (edge.index !== top.via) {
        if (!order.has(edge.to)) {
          open.push(edge.index);
          order.set(edge.to, order.size);
          low.set(edge.to, order.get(edge.to)!);
          path.push({ box: edge.to, via: edge.index, next: 0 });
        } else if (order.get(edge.to)! < order.get(top.box)!) {
          open.push(edge.index);
          low.set(top.box, Math.min(low.get(top.box)!, order.get(edge.to)!));
        }
      }
    }
  }
  return blocks;
}

const tags = (plan: Plan, port: WiredPort) => {
  const { seats, bridges } = fabric(plan);
  const seat = seats.get(port.id);
  return seat !== undefined && bridges[seat.bridge]!.box.vlanAware;
};

/** By list of VLANs and by port: those of them that it does not carry. */
const lackedOf = memo((vlans: readonly string[]) =>
  memo((port: WiredPort): readonly string[] => {
    const listed = new Set(port.tagged);
    return vlans.filter((vlan) =>
      port.role === 'undecided' || port.taggedMode !== 'list'
        ? !carries(port, vlan)
        : port.untagged !== vlan && !listed.has(vlan),
    );
  }),
);
const vlanIds = derive((plan): readonly string[] => plainVlansOf(plan).map(({ id }) => id));
/** By VLAN: the ends of links and the insides of boxes that do not carry it, needed there or not. */
const lacking = derive((plan): ReadonlyMap<string, readonly WiredPort[]> => {
  const made = fabric(plan);
  const found = new Map<string, WiredPort[]>();
  const lacked = lackedOf(vlanIds(plan));
  const ends = new Set(linesOf(plan).flatMap(({ link }) => [link.from, link.to]));
  for (const { ports } of made.bridges) if (ports[0]?.number === 0) ends.add(ports[0].id);
  for (const id of ends) {
    const { bridge, port: place } = made.seats.get(id)!;
    const { box, ports } = made.bridges[bridge]!;
    if (!box.vlanAware) continue;
    const port = ports[place]!;
    for (const vlan of lacked(port)) {
      const list = found.get(vlan);
      if (list) list.push(port);
      else found.set(vlan, [port]);
    }
  }
  return found;
});
const NONE: readonly WiredPort[] = [];
const lackingBy = deriveBy((plan, vlan: string): readonly WiredPort[] => lacking(plan).get(vlan) ?? NONE);

/** The ports that would have to carry a VLAN and do not: ends of needed trunks, and insides of boxes that live in it. */
export const missingPorts = deriveBy((plan, vlan: string): readonly WiredPort[] => {
  const without = new Map(lackingBy(plan, vlan).map((port) => [port.id, port]));
  const found = new Map<string, WiredPort>();
  if (without.size === 0) return NONE;
  for (const { link } of neededLines(plan, vlan))
    for (const id of [link.from, link.to]) {
      const port = without.get(id);
      if (port) found.set(id, port);
    }
  for (const { port } of membersOfVlan(plan, vlan)) if (without.has(port.id)) found.set(port.id, port);
  return [...found.values()];
});

/** The VLANs that are needed on the link of each port: what somebody beyond it and somebody before it use. */
export const neededBeyond = derive((plan): ReadonlyMap<string, readonly string[]> => {
  const needed = new Map<string, string[]>();
  for (const { id } of plainVlansOf(plan))
    for (const { link } of neededLines(plan, id))
      for (const port of [link.from, link.to]) {
        const list = needed.get(port);
        if (list) list.push(id);
        else needed.set(port, [id]);
      }
  return needed;
});

/** Trunk ports that carry a VLAN nobody beyond needs. Ports that lead to nobody are left as they are. */
export function sparePorts(plan: Plan, vlan: string): WiredPort[] {
  const needed = new Set(neededLines(plan, vlan).flatMap(({ link }) => [link.from, link.to]));
  return trunksAt(plan, linesOf(plan))
    .flatMap((trunk) => [trunk.from, trunk.to])
    .filter(
      (port) => port.role === 'trunk' && tags(plan, port) && !needed.has(port.id) && carries(port, vlan),
    );
}

/** Boxes that cables join, directly or over others: the same number for the same part, by place in the fabric. */
export const partsOf = derive((plan): readonly number[] => {
  const parts = fabric(plan).bridges.map((_, at) => at);
  const root = (at: number): number => (parts[at] === at ? at : (parts[at] = root(parts[at]!)));
  for (const { a, b } of linesOf(plan)) parts[root(a)] = root(b);
  return parts.map((_, at) => root(at));
});

const sameBundle = (a: Trunk, b: Trunk): boolean =>
  a.from.lag !== null &&
  a.to.lag !== null &&
  [a.from.lag, a.to.lag].sort().join() === [b.from.lag, b.to.lag].sort().join();

/** The rings: groups of trunks in which a frame could go round, each with its boxes. A bundle is one link, and a cable from a box to itself is a ring. */
export const ringsOf = derive(
  (plan): { readonly trunks: readonly Trunk[]; readonly devices: readonly string[] }[] => {
    const { blocks, boxesOf } = blocksIn(plan);
    const { bridges, seats } = fabric(plan);
    const toItself = boxLinks(plan).flatMap(({ link, a, b }) =>
      a.device === b.device && isOpen(a) && isOpen(b)
        ? [{ a: seats.get(a.id)!.bridge, b: seats.get(b.id)!.bridge, link, from: a, to: b }]
        : [],
    );
    const alone = toItself.map((trunk) => ({ trunks: [trunk], devices: [trunk.from.device] }));
    const around = blocks.flatMap((lines, i) => {
      const trunks = trunksAt(plan, lines);
      return trunks.every((trunk) => trunk === trunks[0] || sameBundle(trunk, trunks[0]!))
        ? []
        : [{ trunks, devices: [...boxesOf[i]!].map((at) => bridges[at]!.device) }];
    });
    return [...around, ...alone];
  },
);
