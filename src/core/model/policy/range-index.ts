import type { TrafficRange } from './traffic-range';

/**
 * Boxes in a static tree by one of their ranges, so that those that may meet another are found without asking all. Ends are
 * kept as numbers, which keep the order but not every last bit of an IPv6 address: it may name more, and never less.
 */
export class RangeIndex {
  private readonly order: readonly number[];
  private readonly starts: Float64Array;
  private readonly lasts: Float64Array;
  /** The largest end in each part of the sorted list; node 1 is the whole, its halves are 2i and 2i + 1. */
  private readonly ends: Float64Array;

  /** `owners[i]` is who box i belongs to; `side` 0 sorts by senders, 1 by receivers. */
  constructor(
    boxes: readonly TrafficRange[],
    private readonly owners: readonly number[],
    private readonly side: 0 | 1,
  ) {
    const starts = boxes.map((box) => Number(box[side][0]));
    this.order = boxes.map((_, i) => i).sort((a, b) => starts[a]! - starts[b]! || a - b);
    this.starts = Float64Array.from(this.order, (i) => starts[i]!);
    this.lasts = Float64Array.from(this.order, (i) => Number(boxes[i]![side][1]));
    this.ends = new Float64Array(4 * boxes.length);
    if (boxes.length > 0) this.fill(1, 0, boxes.length - 1);
  }

  private fill(node: number, from: number, to: number): number {
    if (from === to) return (this.ends[node] = this.lasts[from]!);
    const middle = (from + to) >> 1;
    const [left, right] = [this.fill(2 * node, from, middle), this.fill(2 * node + 1, middle + 1, to)];
    return (this.ends[node] = Math.max(left, right));
  }

  /** The owners of boxes that share a sender (or receiver) with one of these; at most `limit`, else null. */
  meeting(boxes: readonly TrafficRange[], limit: number): Set<number> | null {
    const found = new Set<number>();
    const visit = (node: number, from: number, to: number, first: number, last: number): boolean => {
      if (this.ends[node]! < first || this.starts[from]! > last) return true;
      if (from === to) {
        found.add(this.owners[this.order[from]!]!);
        return found.size <= limit;
      }
      const middle = (from + to) >> 1;
      return visit(2 * node, from, middle, first, last) && visit(2 * node + 1, middle + 1, to, first, last);
    };
    if (this.order.length === 0) return found;
    const top = this.order.length - 1;
    return boxes.every((box) => visit(1, 0, top, Number(box[this.side][0]), Number(box[this.side][1])))
      ? found
      : null;
  }
}
