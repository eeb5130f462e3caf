const formatter = new Intl.NumberFormat('en', { maximumFractionDigits: 0 });
/** A count with thousands separators; beyond 10^12 as a power of two. */
export const countText = (count: number): string =>
  count < 1e12 ? formatter.format(count) : `2^${Math.round(Math.log2(count))}`;
