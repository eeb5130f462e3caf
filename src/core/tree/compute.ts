import TinyQueue from 'tinyqueue';
import { type Vector, compareVectors } from './vector';

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
  readonly speakers: readonly number[];
  /** By end. */
  readonly roles: readonly Role[];
}

/** What a bridge says by one of its ports (the designated priority vector, clause 13.10). */
export const said = (topology: Topology, vectors: readonly Vector[], end: number): Vector => {
  const { bridge, id } = topology.ends[end]!;
  return { ...vectors[bridge]!, bridge: topology.order[bridge]!, port: id, received: 0 };
};

/** A message as it counts for who hears it by a port: with the cost of that port (the root path priority vector). */
export function heard(topology: Topology, message: Vector, sender: number, end: number): Vector {
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

interface Candidate {
  readonly bridge: number;
  readonly vector: Vector;
}

/**
 * Roles from priority vectors (clauses 13.10 to 13.13, 13.29.34). The first four fields of every bridge's vector come from
 * a shortest-path search in the order of vectors, in which each LAN is spoken on by the first bridge that gets to it; the
 * remaining fields decide among equals afterwards. Costs O(ends × log ends).
 */
export function computeTree(topology: Topology): Tree {
  const { order, ends, endsOf, lans } = topology;
  const own = (bridge: number): Vector => ({
    root: order[bridge]!,
    external: 0,
    regional: order[bridge]!,
    internal: 0,
    bridge: order[bridge]!,
    port: 0,
    received: 0,
  });
  const vectors = order.map((_, bridge) => own(bridge));
  const settled = new Uint8Array(order.length);
  const spoken = new Uint8Array(lans.length);
  const queue = new TinyQueue<Candidate>(
    vectors.map((vector, bridge) => ({ bridge, vector })),
    (a, b) =>
      a.vector.root - b.vector.root ||
      a.vector.external - b.vector.external ||
      a.vector.regional - b.vector.regional ||
      a.vector.internal - b.vector.internal ||
      order[a.bridge]! - order[b.bridge]!,
  );
  for (let next = queue.pop(); next; next = queue.pop()) {
    const { bridge, vector } = next;
    if (settled[bridge]) continue;
    settled[bridge] = 1;
    vectors[bridge] = vector;
    for (const from of endsOf[bridge]!) {
      const { lan } = ends[from]!;
      if (spoken[lan]) continue;
      spoken[lan] = 1;
      const message = said(topology, vectors, from);
      for (const to of lans[lan]!) {
        const end = ends[to]!;
        if (settled[end.bridge] || end.restricted) continue;
        const candidate = heard(topology, message, bridge, to);
        if (compareVectors(candidate, vectors[end.bridge]!) >= 0) continue;
        vectors[end.bridge] = candidate;
        queue.push({ bridge: end.bridge, vector: candidate });
      }
    }
  }
  const speakers = lans.map((on) =>
    on.reduce((best, end) =>
      compareVectors(said(topology, vectors, end), said(topology, vectors, best)) < 0 ? end : best,
    ),
  );
  // Among ways of equal cost the speaker's identifiers and the own port decide.
  const rootEnds = order.map((_, bridge): number | null => {
    let best: number | null = null;
    let vector = own(bridge);
    for (const end of endsOf[bridge]!) {
      const candidate = heardBy(topology, vectors, speakers, end);
      if (!candidate || ends[end]!.restricted || compareVectors(candidate, vector) >= 0) continue;
      vector = candidate;
      best = end;
    }
    vectors[bridge] = vector;
    return best;
  });
  const roles = ends.map(({ bridge, lan }, end): Role => {
    const speaker = speakers[lan]!;
    if (speaker === end) return 'designated';
    if (rootEnds[bridge] === end) return 'root';
    return ends[speaker]!.bridge === bridge ? 'backup' : 'alternate';
  });
  return { vectors, rootEnds, speakers, roles };
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
  return sender === bridge ? null : heard(topology, said(topology, vectors, speaker), sender, end);
}
