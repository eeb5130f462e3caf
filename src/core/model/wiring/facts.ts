import { isOpen } from './roles';
import type { Box, Port } from '../../plan';
import type { WiredPort } from './wiring';

/** VLAN ids as a set that may be "all but these": what a trunk that carries everything has. */
export class VidSet {
  /** A bit for each VLAN id; made when first asked, as floods ask very often. */
  #bits: Int32Array | null = null;

  constructor(
    readonly except: boolean,
    readonly vids: ReadonlySet<number>,
  ) {}

  has(vid: number): boolean {
    const bits = (this.#bits ??= this.inBits());
    return (bits[vid >> 5]! & (1 << (vid & 31))) !== 0;
  }

  private inBits(): Int32Array {
    const bits = new Int32Array(128).fill(this.except ? -1 : 0);
    for (const vid of this.vids) bits[vid >> 5]! ^= 1 << (vid & 31);
    return bits;
  }
}

/** What a port does to frames (IEEE 802.1Q-2022 clauses 6.9, 8.6.2, 8.8). */
export interface PortFacts {
  readonly pvid: number | null;
  readonly untagged: number | null;
  readonly tagged: VidSet;
  readonly accepts: Port['accepts'];
  readonly ingressFilter: boolean;
  /** The VLANs that a spanning tree or a ring keeps from passing; null for none. */
  readonly blocked: VidSet | null;
}

/** Asked for a port whose state nobody decided: what works for sure, or what may leak at worst. */
export type Assumption = 'works' | 'leaks';

const NONE = new VidSet(false, new Set());
/** All VLANs. */
export const EVERY = new VidSet(true, new Set());
export const DEFAULT_VID = 1;

export const isEvery = (set: VidSet): boolean => set.except && set.vids.size === 0;
export function sameSet(a: VidSet | null, b: VidSet | null): boolean {
  if (a === null || b === null || a === b) return a === b;
  return a.except === b.except && a.vids.size === b.vids.size && [...a.vids].every((vid) => b.vids.has(vid));
}
export const isMember = (facts: PortFacts, vid: number): boolean =>
  facts.untagged === vid || facts.tagged.has(vid);

/** A port as it leaves the factory. */
function factoryFacts(factory: Box['factory'], assume: Assumption): PortFacts {
  const every = factory === 'every-vlan' || (factory === 'by-neighbour' && assume === 'leaks');
  return {
    pvid: DEFAULT_VID,
    untagged: DEFAULT_VID,
    tagged: every ? EVERY : NONE,
    accepts: 'all',
    ingressFilter: false,
    blocked: null,
  };
}

/** The facts of a port of a box that understands VLANs; null when no frame passes: parked, off or facing a provider. */
export function portFacts(
  port: WiredPort,
  box: Pick<Box, 'factory'>,
  vidOf: (vlan: string) => number,
  assume: Assumption = 'works',
): PortFacts | null {
  if (!isOpen(port)) return null;
  if (port.role === 'undecided') return factoryFacts(box.factory, assume);
  const listed = new Set(port.tagged.map(vidOf));
  return {
    pvid: port.pvid === null ? null : vidOf(port.pvid),
    untagged: port.untagged === null ? null : vidOf(port.untagged),
    tagged:
      port.taggedMode === 'list' && listed.size === 0 ? NONE : new VidSet(port.taggedMode !== 'list', listed),
    accepts: port.accepts,
    ingressFilter: port.ingressFilter,
    blocked: null,
  };
}

/** The tag on the wire: 0 for none (or a priority tag), else the VLAN id. */
export type Tag = number;

export type Ingress =
  | { readonly vid: number }
  | { readonly refused: 'tagged-refused' | 'untagged-refused' | 'no-pvid' | 'not-a-member' | 'blocked' };

/** What becomes of a frame that arrives (IEEE 802.1Q-2022 clauses 6.9.1, 8.6.2): its VLAN, or why it is dropped. */
export function ingress(facts: PortFacts, tag: Tag): Ingress {
  if (tag === 0) {
    if (facts.accepts === 'tagged') return { refused: 'untagged-refused' };
    if (facts.pvid === null) return { refused: 'no-pvid' };
  } else if (facts.accepts === 'untagged') return { refused: 'tagged-refused' };
  const vid = tag === 0 ? facts.pvid! : tag;
  if (facts.ingressFilter && !isMember(facts, vid)) return { refused: 'not-a-member' };
  return blocks(facts, vid) ? { refused: 'blocked' } : { vid };
}

export const blocks = ({ blocked }: PortFacts, vid: number): boolean => blocked !== null && blocked.has(vid);

/** The tag a frame of this VLAN leaves with, whether or not the port forwards it; null for no member (clause 8.8). */
export const tagOf = (facts: PortFacts, vid: number): Tag | null =>
  facts.untagged === vid ? 0 : facts.tagged.has(vid) ? vid : null;

/** The tag a frame of this VLAN really leaves with; null when the port is no member, or blocked. */
export const egress = (facts: PortFacts, vid: number): Tag | null =>
  blocks(facts, vid) ? null : tagOf(facts, vid);
