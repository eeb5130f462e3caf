import { type IpAddress, contains, formatAddress, type Prefix } from '@/core/address';

/** An address inside its subnet as people say it: .24, .152.20 in a larger one, :: forms in full. One outside is never shortened. */
export function shortAddress(address: IpAddress, prefix: Prefix): string {
  const text = formatAddress(address);
  if (typeof address !== 'number' || prefix.length < 16 || !contains(prefix, address)) return text;
  const octets = text.split('.');
  return `.${octets.slice(prefix.length >= 24 ? 3 : 2).join('.')}`;
}

export const shortRange = (range: { start: IpAddress; end: IpAddress }, prefix: Prefix): string =>
  `${shortAddress(range.start, prefix)}–${shortAddress(range.end, prefix)}`;

const formatter = new Intl.NumberFormat('en', { maximumFractionDigits: 0 });
/** A count with thousands separators; beyond 10^12 as a power of two. */
export const countText = (count: number): string =>
  count < 1e12 ? formatter.format(count) : `2^${Math.round(Math.log2(count))}`;
