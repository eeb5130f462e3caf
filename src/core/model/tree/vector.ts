/**
 * Priority vectors of spanning trees (IEEE 802.1Q-2022 clauses 13.9 to 13.11). Identifiers stand here as places in the order
 * of all bridge identifiers of a tree: equal places are one bridge, a lower place is a better identifier.
 */
export interface Vector {
  readonly root: number;
  /** External root path cost: between regions. */
  readonly external: number;
  readonly regional: number;
  /** Internal root path cost: within the region. */
  readonly internal: number;
  /** The designated bridge. */
  readonly bridge: number;
  /** Its port identifier. */
  readonly port: number;
  /** The port identifier of the port that heard it; 0 in what is sent. */
  readonly received: number;
}

/** The fields of a vector in the order in which they decide. */
export const deciding = [
  'root',
  'external',
  'regional',
  'internal',
  'bridge',
  'port',
  'received',
] as const satisfies readonly (keyof Vector)[];
export type Deciding = (typeof deciding)[number];

/** The first field in which two vectors differ; null when they are the same. */
export function decidedBy(a: Vector, b: Vector): Deciding | null {
  for (const field of deciding) if (a[field] !== b[field]) return field;
  return null;
}

/** Negative when `a` is the better vector. */
export function compareVectors(a: Vector, b: Vector): number {
  return (
    a.root - b.root ||
    a.external - b.external ||
    a.regional - b.regional ||
    a.internal - b.internal ||
    a.bridge - b.bridge ||
    a.port - b.port ||
    a.received - b.received
  );
}

/** A port identifier (clause 13.26.47): four bits of priority above twelve of number. */
export const portId = (priority: number, number: number): number => priority * 256 + number;

export const costScales = ['long', 'short'] as const;
export type CostScale = (typeof costScales)[number];

/** Short values (IEEE 802.1D-1998 table 8-5, with the later ones for 10 Gbit/s), by Mbit/s. */
const shortCosts: readonly (readonly [number, number])[] = [
  [10_000, 2],
  [1000, 4],
  [100, 19],
  [10, 100],
];

/**
 * The recommended path cost of a link of `speed` Mbit/s (IEEE 802.1Q-2022 table 13-4): long values are 20,000,000 divided
 * by the speed; short ones are those of the step at or below the speed.
 */
export function pathCost(speed: number, scale: CostScale): number {
  if (scale === 'long') return Math.min(200_000_000, Math.max(1, Math.round(20_000_000 / speed)));
  return shortCosts.find(([from]) => speed >= from)?.[1] ?? 250;
}
