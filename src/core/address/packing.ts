import { comparePrefixes, covers, halves, type Prefix, overlaps, prefixFamily, sizeOf } from './prefix';

/** Aligned blocks of `space` that none of `taken` touches, ascending: the largest possible blocks. */
export function freeBlocks(space: readonly Prefix[], taken: readonly Prefix[]): Prefix[] {
  const free: Prefix[] = [];
  const visit = (block: Prefix, inWay: readonly Prefix[]) => {
    const here = inWay.filter((other) => overlaps(block, other));
    if (here.length === 0) free.push(block);
    else if (!here.some((other) => covers(other, block))) for (const half of halves(block)) visit(half, here);
  };
  // A prefix of the space inside another one of it would be counted twice.
  const outer = space.filter(
    (a, i) => !space.some((b, j) => i !== j && covers(b, a) && (!covers(a, b) || j < i)),
  );
  for (const block of outer) visit(block, taken);
  return free.sort(comparePrefixes);
}

export interface PackRequest {
  readonly key: string;
  readonly length: number;
  /** Where it would like to be (numbering schools); taken when free. */
  readonly preferred?: readonly Prefix[];
}

export interface Packing {
  readonly placed: ReadonlyMap<string, Prefix>;
  /** Keys that found no place, largest first. */
  readonly unplaced: readonly string[];
  /** Keys that had a preference which was not free. */
  readonly displaced: readonly string[];
  readonly free: readonly Prefix[];
}

/**
 * Places aligned prefixes into the free blocks: first those with a preference that is free, then largest first into
 * the smallest block that fits, lowest address on a tie. Aligned blocks never fragment worse than that: with powers
 * of two, largest first fills any free block without waste.
 */
export function packPrefixes(
  space: readonly Prefix[],
  taken: readonly Prefix[],
  requests: readonly PackRequest[],
): Packing {
  const pool = new FreePool(freeBlocks(space, taken));
  const placed = new Map<string, Prefix>();
  const unplaced: string[] = [];
  const displaced: string[] = [];
  const ordered = [...requests].sort((a, b) => a.length - b.length);
  for (const request of ordered.filter((candidate) => candidate.preferred?.length)) {
    const place = request.preferred!.find((prefix) => pool.take(prefix));
    if (place) placed.set(request.key, place);
    else displaced.push(request.key);
  }
  for (const request of ordered) {
    if (placed.has(request.key)) continue;
    const place = pool.takeAny(request.length);
    if (place) placed.set(request.key, place);
    else unplaced.push(request.key);
  }
  return { placed, unplaced, displaced, free: pool.blocks() };
}

/** Free blocks by length, each list ascending; taking one splits a larger block into halves on the way down. */
class FreePool {
  private readonly byLength = new Map<number, Prefix[]>();

  constructor(blocks: readonly Prefix[]) {
    for (const block of blocks) this.add(block);
  }

  blocks(): Prefix[] {
    return [...this.byLength.values()].flat().sort(comparePrefixes);
  }

  /** Takes exactly this prefix; false when it is not wholly free. */
  take(prefix: Prefix): boolean {
    for (let length = prefix.length; length >= 0; length--) {
      const list = this.byLength.get(length);
      const at = list?.findIndex((block) => covers(block, prefix)) ?? -1;
      if (at < 0) continue;
      let block = list!.splice(at, 1)[0]!;
      while (block.length < prefix.length) {
        const [low, high] = halves(block);
        this.add(covers(low, prefix) ? high : low);
        block = covers(low, prefix) ? low : high;
      }
      return true;
    }
    return false;
  }

  takeAny(length: number): Prefix | null {
    for (let blockLength = length; blockLength >= 0; blockLength--) {
      const block = this.byLength.get(blockLength)?.[0];
      if (!block) continue;
      let place = block;
      while (place.length < length) place = halves(place)[0];
      this.take(place);
      return place;
    }
    return null;
  }

  private add(block: Prefix): void {
    const list = this.byLength.get(block.length) ?? [];
    const at = list.findIndex((other) => other.address > block.address);
    list.splice(at < 0 ? list.length : at, 0, block);
    this.byLength.set(block.length, list);
  }
}

/** Sum of the sizes of some blocks, in addresses. */
export const totalSize = (blocks: readonly Prefix[]): number =>
  blocks.reduce((sum, block) => sum + sizeOf(block), 0);

/** The largest of some blocks; null when there are none. */
export const largestOf = (blocks: readonly Prefix[]): Prefix | null =>
  blocks.reduce<Prefix | null>((best, block) => (!best || block.length < best.length ? block : best), null);

/** Only the blocks of one family. */
export const ofFamily = (blocks: readonly Prefix[], family: 4 | 6): Prefix[] =>
  blocks.filter((block) => prefixFamily(block) === family);
