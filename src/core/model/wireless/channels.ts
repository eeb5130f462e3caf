import type { Band, Width } from '../../plan';

/** Channels and the frequencies they take, in MHz (IEEE 802.11-2020 Annex E; IEEE 802.11be clause 36.3.24 for 320 MHz). */

export interface Span {
  readonly from: number;
  readonly to: number;
}

export const megahertz = (width: Width): number => Number(width);

const FIVE = [
  [36, 64],
  [100, 144],
  [149, 177],
] as const;
const every = (from: number, to: number, step: number): number[] =>
  Array.from({ length: Math.floor((to - from) / step) + 1 }, (_, i) => from + i * step);

/** The channels of 20 MHz of a band, rising. */
export const channelsOf: Readonly<Record<Band, readonly number[]>> = {
  '2.4': every(1, 13, 1),
  '5': FIVE.flatMap(([from, to]) => every(from, to, 4)),
  '6': every(1, 233, 4),
};

/** Those that are proposed: at 2.4 GHz the three that overlap nowhere. */
export const plannedOf: Readonly<Record<Band, readonly number[]>> = { ...channelsOf, '2.4': [1, 6, 11] };

export const widthsOf: Readonly<Record<Band, readonly Width[]>> = {
  '2.4': ['20', '40'],
  '5': ['20', '40', '80', '160'],
  '6': ['20', '40', '80', '160', '320'],
};

/** The middle of a channel of 20 MHz. */
export const middleOf = (band: Band, channel: number): number =>
  ({ '2.4': 2407, '5': 5000, '6': 5950 })[band] + 5 * channel;

/** From the first channel of a group that channels of a width begin in. */
function startsIn(band: Band, channel: number): readonly [number, number] | null {
  if (band === '6') return [1, 233];
  return FIVE.find(([from, to]) => channel >= from && channel <= to) ?? null;
}

/**
 * What a channel takes of its band; null where there is no channel of this width there. The channel is the primary one of 20 MHz. At
 * 2.4 GHz the second half of 40 MHz lies above up to channel 7, below from 8 on.
 */
export function spanOf(band: Band, channel: number, width: Width): Span | null {
  if (!channelsOf[band].includes(channel) || !widthsOf[band].includes(width)) return null;
  const middle = middleOf(band, channel);
  if (band === '2.4') {
    // The first two generations take 22 MHz (IEEE 802.11-2020 clause 16.3.9); their neighbours are taken by 20.
    const [below, above] = width === '20' ? [10, 10] : channel <= 7 ? [10, 30] : [30, 10];
    return { from: middle - below, to: middle + above };
  }
  const [first, last] = startsIn(band, channel)!;
  const size = megahertz(width) / 5;
  const start = first + Math.floor((channel - first) / size) * size;
  if (start + size - 4 > last) return null;
  const from = middleOf(band, start) - 10;
  return { from, to: from + megahertz(width) };
}

/** How much two channels share, in MHz; 0 for nothing. */
export const shared = (a: Span, b: Span): number =>
  Math.max(0, Math.min(a.to, b.to) - Math.max(a.from, b.from));
/** Does one begin where the other ends? */
export const touch = (a: Span, b: Span): boolean => a.to === b.from || b.to === a.from;

/** The channels of 20 MHz that a channel takes. */
export const takenBy = (band: Band, span: Span): number[] =>
  channelsOf[band].filter((channel) => {
    const middle = middleOf(band, channel);
    return middle > span.from && middle < span.to;
  });
