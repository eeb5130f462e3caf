import {
  type Prefix,
  comparePrefixes,
  formatPrefix,
  lastOf,
  sizeOf,
  largestOf,
  totalSize,
} from '@/core/address';
import { type Plan, siteOf, type Subnet, type Vlan } from '@/core/plan';
import { freeSpace } from '@/core/model/segments';

/** What the strip draws, in addresses; the component turns it into pixels. */
export interface StripSpan {
  readonly from: number;
  readonly to: number;
}

const spanOf = (prefix: Prefix): StripSpan => ({
  from: prefix.address as number,
  to: lastOf(prefix) as number,
});

/** The IPv4 space as runs of neighbouring addresses. */
export function spaceSpans(plan: Plan): StripSpan[] {
  const blocks = siteOf(plan)
    .space.filter((block) => typeof block.address === 'number')
    .sort(comparePrefixes)
    .map(spanOf);
  const spans: StripSpan[] = [];
  for (const block of blocks) {
    const last = spans.at(-1);
    if (last && block.from <= last.to + 1)
      spans[spans.length - 1] = { from: last.from, to: Math.max(last.to, block.to) };
    else spans.push(block);
  }
  return spans;
}

export interface StripSegment extends StripSpan {
  readonly subnet: Subnet;
  readonly vlan: Vlan;
}

export function stripSegments(plan: Plan, view: StripSpan): StripSegment[] {
  const segments: StripSegment[] = [];
  for (const subnet of plan.subnet.values()) {
    if (typeof subnet.prefix.address !== 'number') continue;
    const span = spanOf(subnet.prefix);
    if (span.to >= view.from && span.from <= view.to)
      segments.push({ ...span, subnet, vlan: plan.vlan.get(subnet.vlan)! });
  }
  return segments.sort((a, b) => a.from - b.from);
}

export interface FreeRun extends StripSpan {
  readonly text: string;
}

/** Free runs between segments, each with what it holds in words: whole /24s where there are, else its largest block. */
export function freeRuns(plan: Plan, view: StripSpan): FreeRun[] {
  const runs: { from: number; to: number; blocks: Prefix[] }[] = [];
  for (const block of freeSpace(plan)) {
    if (typeof block.address !== 'number') continue;
    const span = spanOf(block);
    if (span.to < view.from || span.from > view.to) continue;
    const last = runs.at(-1);
    if (last && span.from === last.to + 1) {
      last.to = span.to;
      last.blocks.push(block);
    } else runs.push({ ...span, blocks: [block] });
  }
  return runs.map((run) => {
    const whole = run.blocks.filter((block) => block.length <= 24);
    const count = totalSize(whole) / 256;
    const largest = largestOf(run.blocks)!;
    const text =
      count > 1
        ? `${count} × /24 free, largest ${formatPrefix(largest)}`
        : `${sizeOf(largest)} free at ${formatPrefix(largest)}`;
    return { from: run.from, to: run.to, text };
  });
}

/** Label positions along the strip, at least `gap` apart, as near as can be to what they label. */
export function spreadLabels(wanted: readonly number[], gap: number, width: number): number[] {
  const places = [...wanted];
  for (let i = 1; i < places.length; i++) places[i] = Math.max(places[i]!, places[i - 1]! + gap);
  const limit = width - gap / 2;
  for (let i = places.length - 1; i >= 0; i--) {
    const most = i === places.length - 1 ? limit : places[i + 1]! - gap;
    places[i] = Math.min(places[i]!, most);
  }
  return places;
}
