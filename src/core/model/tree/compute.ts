import TinyQueue from 'tinyqueue';
import type { Vector } from './vector';

/** Port roles (IEEE 802.1Q-2022 clause 13.12). `master` is the way of a region's inner trees to the root outside. */
export type Role = 'root' | 'designated' | 'alternate' | 'backup' | 'master';

/** A port of a bridge on a LAN, for one tree. */
export interface End {
  readonly bridge: number;
  readonly lan: number;
  readonly id: number;
  readonly externalCost: number;
  readonly internalCost: number;
  /** Never the way to the root (restrictedRole, clause 13.27.64). */
  readonly restricted: boolean;
}

/** What a tree is computed from: bridges by their place in the order of identifiers, and the LANs that join them. */
export interface Topology {
  /** By bridge: its place in the order of all identifiers of this tree. */
  readonly order: readonly number[];
  /** By bridge: its region; bridges that speak no MST are each a region of their own. */
  readonly region: readonly number[];
  /** By bridge: does it read the messages of MST? */
  readonly readsMst: readonly boolean[];
  readonly ends: readonly End[];
  /** The ends of each bridge and of each LAN, by place in `ends`. */
  readonly endsOf: readonly (readonly number[])[];
  readonly lans: readonly (readonly number[])[];
}

export interface Tree {
  /** The root priority vector of each bridge. */
  readonly vectors: readonly Vector[];
  /** The end by which each bridge reaches its root; null for a root. */
  readonly rootEnds: readonly (number | null)[];
  /** The end that speaks on each LAN. */
  readonly designatedPorts: readonly number[];
  /** By end. */
  readonly roles: readonly Role[];
}

/** What a bridge says by one of its ports (the designated priority vector, clause 13.10). */
export const designatedVector = (topology: Topology, vectors: readonly Vector[], end: number): Vector => {
  const { bridge, id } = topology.ends[end]!;
  return { ...vectors[bridge]!, bridge: topology.order[bridge]!, port: id, received: 0 };
};

/** A message as it counts for who hears it by a port: with the cost of that port (the root path priority vector). */
export function rootPathVector(topology: Topology, message: Vector, sender: number, end: number): Vector {
  const { bridge, externalCost, internalCost, id } = topology.ends[end]!;
  if (topology.region[sender] === topology.region[bridge])
    return { ...message, internal: message.internal + internalCost, received: id };
  return {
    ...message,
    external: message.external + externalCost,
    regional: topology.order[bridge]!,
    internal: 0,
    // A bridge without MST reads the regional root where the sender's own identifier stood before there were regions.
    bridge: topology.readsMst[bridge] ? message.bridge : message.regional,
    received: id,
  };
}

/** A bridge’s way to a root as far as it is known, by the four fields that a search decides. */
interface Candidate {
  readonly bridge: number;
  readonly order: number;
  readonly root: number;
  readonly external: number;
  readonly regional: number;
  readonly internal: number;
}

const byFour = (a: Omit<Candidate, 'bridge'>, b: Omit<Candidate, 'bridge'>): number =>
  a.root - b.root ||
  a.external - b.external ||
  a.regional - b.regional ||
  a.internal - b.internal ||
  a.order - b.order;

/** Each bridge's way when it knows nobody: it is the root. */
const alone = (own: number, bridge: number): Candidate => ({
  bridge,
  order: own,
  root: own,
  external: 0,
  regional: own,
  internal: 0,
});

/** The bridge that speaks on a LAN: the one nearest to the root, by its better port. */
function speakerOn(ends: readonly End[], best: readonly Candidate[], on: readonly number[]): number {
  let speaker = on[0]!;
  for (const end of on) {
    const [mine, other] = [ends[end]!, ends[speaker]!];
    const decided = mine.bridge === other.bridge ? 0 : byFour(best[mine.bridge]!, best[other.bridge]!);
    if (decided < 0 || (decided === 0 && mine.bridge === other.bridge && mine.id < other.id)) speaker = end;
  }
  return speaker;
}

/** Among ways of equal cost the speaker's identifiers and the own port decide. */
function rootEndOf(
  { order, region, readsMst, ends, endsOf }: Topology,
  best: readonly Candidate[],
  speakers: readonly number[],
  bridge: number,
): { readonly end: number | null; readonly vector: Vector } {
  const own = order[bridge]!;
  const { root, external, regional, internal } = best[bridge]!;
  let found: number | null = null;
  let [by, port, received] = [own, 0, 0];
  if (root !== own)
    for (const at of endsOf[bridge]!) {
      const end = ends[at]!;
      const speaker = ends[speakers[end.lan]!]!;
      if (speaker.bridge === bridge || end.restricted) continue;
      const inside = region[speaker.bridge] === region[bridge];
      const way = arriving(best[speaker.bridge]!, inside, end, own);
      if (
        way.root !== root ||
        way.external !== external ||
        way.regional !== regional ||
        way.internal !== internal
      )
        continue;
      const sender = inside || readsMst[bridge] ? order[speaker.bridge]! : best[speaker.bridge]!.regional;
      const closer =
        found === null ||
        sender < by ||
        (sender === by && (speaker.id < port || (speaker.id === port && end.id < received)));
      if (!closer) continue;
      [found, by, port, received] = [at, sender, speaker.id, end.id];
    }
  return { end: found, vector: { root, external, regional, internal, bridge: by, port, received } };
}

const roleOf = (
  ends: readonly End[],
  speakers: readonly number[],
  rootEnds: readonly (number | null)[],
  end: number,
): Role => {
  const { bridge, lan } = ends[end]!;
  const speaker = speakers[lan]!;
  if (speaker === end) return 'designated';
  if (rootEnds[bridge] === end) return 'root';
  return ends[speaker]!.bridge === bridge ? 'backup' : 'alternate';
};

/**
 * Roles from priority vectors (clauses 13.10 to 13.13, 13.29.34). The first four fields of every bridge's vector come from
 * a shortest-path search in the order of vectors, in which each LAN is spoken on by the first bridge that gets to it; the
 * remaining fields decide among equals afterwards. Costs O(ends × log ends).
 */
export function computeTree(topology: Topology): Tree {
  const { order, region, ends, endsOf, lans } = topology;
  const best: Candidate[] = order.map(alone);
  const settled = new Uint8Array(order.length);
  const spoken = new Uint8Array(lans.length);
  const queue = new TinyQueue<Candidate>([...best], byFour);
  for (let next = queue.pop(); next; next = queue.pop()) {
    const { bridge } = next;
    if (settled[bridge]) continue;
    settled[bridge] = 1;
    best[bridge] = next;
    for (const from of endsOf[bridge]!) {
      const { lan } = ends[from]!;
      if (spoken[lan]) continue;
      spoken[lan] = 1;
      for (const to of lans[lan]!) {
        const end = ends[to]!;
        if (settled[end.bridge] || end.restricted) continue;
        const candidate = arriving(next, region[bridge] === region[end.bridge], end, order[end.bridge]!);
        if (byFour(candidate, best[end.bridge]!) >= 0) continue;
        best[end.bridge] = candidate;
        queue.push(candidate);
      }
    }
  }
  const speakers = lans.map((on) => speakerOn(ends, best, on));
  const ways = order.map((_, bridge) => rootEndOf(topology, best, speakers, bridge));
  const rootEnds = ways.map(({ end }) => end);
  const roles = ends.map((_, end) => roleOf(ends, speakers, rootEnds, end));
  return { vectors: ways.map(({ vector }) => vector), rootEnds, designatedPorts: speakers, roles };
}

/**
 * The tree once LANs are gone, where the one before is known. `topology` is without them; `before` is the tree with its ends
 * and LANs counted as they are now; `cut` are the bridges whose root end was on one of them. Who has a way to the root that
 * passes none of these keeps it, for a LAN that is gone makes no other way better; only what hangs on them is searched anew.
 * Null where a shared LAN of three or more is among it: there the tree has to be computed whole.
 */
export function treeAfterLoss(topology: Topology, before: Tree, cut: readonly number[]): Tree | null {
  if (cut.length === 0) return before;
  const { order, region, ends, endsOf, lans } = topology;
  const hangs = new Uint8Array(order.length);
  for (const bridge of cut) hangs[bridge] = 1;
  const children: (number[] | undefined)[] = [];
  before.rootEnds.forEach((end, bridge) => {
    if (end === null || hangs[bridge]) return;
    const parent = ends[before.designatedPorts[ends[end]!.lan]!]!.bridge;
    (children[parent] ??= []).push(bridge);
  });
  const lost = [...cut];
  for (const bridge of lost)
    for (const child of children[bridge] ?? [])
      if (!hangs[child]) {
        hangs[child] = 1;
        lost.push(child);
      }
  const best = before.vectors.map(({ root, external, regional, internal }, bridge): Candidate => {
    const own = order[bridge]!;
    return hangs[bridge] ? alone(own, bridge) : { bridge, order: own, root, external, regional, internal };
  });
  const queue = new TinyQueue<Candidate>([], byFour);
  const offer = (from: Candidate, to: number) => {
    const end = ends[to]!;
    if (end.restricted || !hangs[end.bridge]) return;
    const inside = region[from.bridge] === region[end.bridge];
    const candidate = arriving(from, inside, end, order[end.bridge]!);
    if (byFour(candidate, best[end.bridge]!) >= 0) return;
    best[end.bridge] = candidate;
    queue.push(candidate);
  };
  const touched = new Set<number>();
  for (const bridge of lost)
    for (const own of endsOf[bridge]!) {
      const { lan } = ends[own]!;
      const on = lans[lan]!;
      if (on.length > 2) return null;
      touched.add(lan);
      for (const other of on) if (!hangs[ends[other]!.bridge]) offer(best[ends[other]!.bridge]!, own);
    }
  for (const bridge of lost) queue.push(best[bridge]!);
  const settled = new Uint8Array(order.length);
  for (let next = queue.pop(); next; next = queue.pop()) {
    const { bridge } = next;
    if (settled[bridge]) continue;
    settled[bridge] = 1;
    for (const from of endsOf[bridge]!)
      for (const to of lans[ends[from]!.lan]!) if (!settled[ends[to]!.bridge]) offer(next, to);
  }
  const speakers = [...before.designatedPorts];
  for (const lan of touched) speakers[lan] = speakerOn(ends, best, lans[lan]!);
  const [rootEnds, vectors, roles] = [[...before.rootEnds], [...before.vectors], [...before.roles]];
  for (const bridge of lost) {
    const way = rootEndOf(topology, best, speakers, bridge);
    rootEnds[bridge] = way.end;
    vectors[bridge] = way.vector;
  }
  for (const lan of touched) for (const end of lans[lan]!) roles[end] = roleOf(ends, speakers, rootEnds, end);
  return { vectors, rootEnds, designatedPorts: speakers, roles };
}

/** What a bridge learns by an end of the way another has. */
function arriving(from: Candidate, inside: boolean, end: End, own: number): Candidate {
  const { root } = from;
  return inside
    ? {
        bridge: end.bridge,
        order: own,
        root,
        external: from.external,
        regional: from.regional,
        internal: from.internal + end.internalCost,
      }
    : {
        bridge: end.bridge,
        order: own,
        root,
        external: from.external + end.externalCost,
        regional: own,
        internal: 0,
      };
}

/** The bridges that are roots and have a port on some LAN; one alone is no tree. */
export function rootsOf({ rootEnds }: Tree, { endsOf }: Pick<Topology, 'endsOf'>): number[] {
  const roots: number[] = [];
  rootEnds.forEach((end, bridge) => {
    if (end === null && endsOf[bridge]!.length > 0) roots.push(bridge);
  });
  return roots;
}

/** What an end hears of the speaker of its LAN, with its own cost; null when the speaker is its own bridge. */
export function heardBy(
  topology: Topology,
  vectors: readonly Vector[],
  speakers: readonly number[],
  end: number,
): Vector | null {
  const { bridge, lan } = topology.ends[end]!;
  const speaker = speakers[lan]!;
  const sender = topology.ends[speaker]!.bridge;
  return sender === bridge
    ? null
    : rootPathVector(topology, designatedVector(topology, vectors, speaker), sender, end);
}
