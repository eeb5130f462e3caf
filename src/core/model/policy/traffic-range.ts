/** Traffic as boxes: a range of senders, of receivers and of services; what a rule speaks of is a list of them. */

/** Both ends included. */
export type Span = readonly [bigint, bigint];

/** Senders, receivers, services: each one range on its own line. */
export type TrafficRange = readonly [Span, Span, Span];

const meets = (a: Span, b: Span): boolean => a[0] <= b[1] && b[0] <= a[1];
export const rangesMeet = (a: TrafficRange, b: TrafficRange): boolean =>
  meets(a[0], b[0]) && meets(a[1], b[1]) && meets(a[2], b[2]);

/** What two ranges have in common. */
export const cut = (a: Span, b: Span): Span | null => {
  const from = a[0] > b[0] ? a[0] : b[0];
  const to = a[1] < b[1] ? a[1] : b[1];
  return from <= to ? [from, to] : null;
};

/** What is left of a box without another: at most six boxes that do not overlap. */
export function rangeWithout(box: TrafficRange, cut: TrafficRange): TrafficRange[] {
  if (!rangesMeet(box, cut)) return [box];
  const left: TrafficRange[] = [];
  const rest: [Span, Span, Span] = [box[0], box[1], box[2]];
  for (const at of [0, 1, 2] as const) {
    const [from, to] = rest[at];
    const [first, last] = cut[at];
    const keep = (span: Span) =>
      left.push(
        at === 0 ? [span, rest[1], rest[2]] : at === 1 ? [rest[0], span, rest[2]] : [rest[0], rest[1], span],
      );
    if (from < first) keep([from, first - 1n]);
    if (last < to) keep([last + 1n, to]);
    rest[at] = [from > first ? from : first, to < last ? to : last];
  }
  return left;
}

/** What is left of some boxes without others. */
export function subtract(boxes: readonly TrafficRange[], cuts: readonly TrafficRange[]): TrafficRange[] {
  let left: TrafficRange[] = [...boxes];
  for (const cut of cuts) {
    if (left.length === 0) break;
    left = left.flatMap((box) => rangeWithout(box, cut));
  }
  return left;
}

/** Do two lists share any traffic? */
export const anyMeet = (a: readonly TrafficRange[], b: readonly TrafficRange[]): boolean =>
  a.some((one) => b.some((other) => rangesMeet(one, other)));

/** Ranges that nothing of `spans` covers, within `whole`. */
export function gaps(whole: Span, spans: readonly Span[]): Span[] {
  const found: Span[] = [];
  let next = whole[0];
  for (const [from, to] of [...spans].sort((a, b) => (a[0] < b[0] ? -1 : a[0] > b[0] ? 1 : 0))) {
    if (from > whole[1]) break;
    if (from > next) found.push([next, from - 1n]);
    if (to >= next) next = to + 1n;
  }
  if (next <= whole[1]) found.push([next, whole[1]]);
  return found;
}
