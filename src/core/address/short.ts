import { type IpAddress, formatAddress, formatIpv4, parseAddress, parseIpv4 } from './ip';
import { type Prefix, contains } from './prefix';

/** Addresses inside a subnet as people say them. */

/** `.24`, or `.152.20` in a larger subnet; IPv6, and what lies outside, in full. */
export function shortAddress(address: IpAddress, prefix: Prefix): string {
  const text = formatAddress(address);
  if (typeof address !== 'number' || prefix.length < 16 || !contains(prefix, address)) return text;
  const octets = text.split('.');
  return `.${octets.slice(prefix.length >= 24 ? 3 : 2).join('.')}`;
}

export const shortRange = (range: { start: IpAddress; end: IpAddress }, prefix: Prefix): string =>
  `${shortAddress(range.start, prefix)}–${shortAddress(range.end, prefix)}`;

/** How a short form is written: one to three octets after a dot; for a single one the dot may be missing. */
const SHORT = /^(?:\d{1,3}|(?:\.\d{1,3}){1,3})$/;
export const isShortAddress = (text: string): boolean => SHORT.test(text.trim());

/**
 * An address as typed beside its subnet, in full or short: the octets that are not said are those of the subnet. Null where
 * it is neither, or an octet is above 255.
 */
export function parseAddressIn(text: string, { address: base }: Prefix): IpAddress | null {
  const typed = text.trim();
  if (!isShortAddress(typed) || typeof base !== 'number') return parseAddress(typed);
  const said = typed.replace(/^\./, '').split('.');
  return parseIpv4(
    [
      ...formatIpv4(base)
        .split('.')
        .slice(0, 4 - said.length),
      ...said,
    ].join('.'),
  );
}
