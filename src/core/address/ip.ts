import ipaddr from 'ipaddr.js';

/**
 * An IP address as a value: IPv4 is an unsigned 32-bit `number`, IPv6 a 128-bit `bigint`.
 * The JavaScript type is the family tag, so a comparison across families is a type error at run time
 * only where somebody forgot to ask `familyOf` first. Text exists at the edges only.
 */
export type IpAddress = number | bigint;
export type Family = 4 | 6;

export const familyOf = (address: IpAddress): Family => (typeof address === 'number' ? 4 : 6);
export const widthOf = (family: Family): number => (family === 4 ? 32 : 128);

/**
 * Reads dotted decimal: four whole numbers 0–255 without leading zeros, since some resolvers read those as
 * octal (RFC 6943 section 3.1.1). Returns null when the text is anything else.
 */
export function parseIpv4(text: string): number | null {
  const parts = text.split('.');
  if (parts.length !== 4) return null;
  let value = 0;
  for (const part of parts) {
    if (!/^(0|[1-9][0-9]{0,2})$/.test(part)) return null;
    const octet = Number(part);
    if (octet > 255) return null;
    value = value * 256 + octet;
  }
  return value;
}

/** Writes an IPv4 value as dotted decimal. */
export const formatIpv4 = (value: number): string =>
  `${value >>> 24}.${(value >>> 16) & 255}.${(value >>> 8) & 255}.${value & 255}`;

/** Reads IPv6 text (RFC 4291 section 2.2) without a zone; null when it is not one. */
export function parseIpv6(text: string): bigint | null {
  if (!text.includes(':') || text.includes('%') || !ipaddr.IPv6.isValid(text)) return null;
  return ipaddr.IPv6.parse(text).parts.reduce((value, part) => (value << 16n) | BigInt(part), 0n);
}

/** Writes an IPv6 value in the canonical form of RFC 5952. */
export function formatIpv6(value: bigint): string {
  const parts = Array.from({ length: 8 }, (_, i) => Number((value >> BigInt(112 - 16 * i)) & 0xffffn));
  return new ipaddr.IPv6(parts).toRFC5952String();
}

/** Reads an address of either family; null when the text is neither. */
export function parseAddress(text: string): IpAddress | null {
  const trimmed = text.trim();
  return parseIpv4(trimmed) ?? parseIpv6(trimmed);
}

/** Writes an address of either family in its canonical text form. */
export const formatAddress = (address: IpAddress): string =>
  typeof address === 'number' ? formatIpv4(address) : formatIpv6(address);

/** `address + offset`, staying in the family. The caller keeps it inside the family's range. */
export const addOffset = <A extends IpAddress>(address: A, offset: number): A =>
  (typeof address === 'number' ? address + offset : (address as bigint) + BigInt(offset)) as A;

/** Orders addresses: IPv4 before IPv6, then by value. */
export function compareAddresses(a: IpAddress, b: IpAddress): number {
  if (typeof a !== typeof b) return typeof a === 'number' ? -1 : 1;
  return a < b ? -1 : a > b ? 1 : 0;
}
