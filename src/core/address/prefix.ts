import {
  type Family,
  type IpAddress,
  compareAddresses,
  familyOf,
  formatAddress,
  parseAddress,
  widthOf,
} from './ip';

/** A network: its lowest address and its length in bits (RFC 4632, RFC 4291 section 2.3). Host bits are zero. */
export interface Prefix {
  readonly address: IpAddress;
  readonly length: number;
}

export const prefixFamily = (prefix: Prefix): Family => familyOf(prefix.address);

/** How many addresses a prefix holds. A number, exact up to 2^53; an IPv6 /64 is only ever compared. */
export const sizeOf = (prefix: Prefix): number => 2 ** (widthOf(prefixFamily(prefix)) - prefix.length);

/** The network that holds `address` at `length` bits: clears the host bits. */
export function networkOf(address: IpAddress, length: number): Prefix {
  if (typeof address === 'number') {
    const size = 2 ** (32 - length);
    return { address: address - (address % size), length };
  }
  const bits = BigInt(128 - length);
  return { address: (address >> bits) << bits, length };
}

/** The highest address of the prefix (for IPv4 up to /30 its directed broadcast address). */
export const lastOf = (prefix: Prefix): IpAddress =>
  typeof prefix.address === 'number'
    ? prefix.address + sizeOf(prefix) - 1
    : prefix.address + (1n << BigInt(128 - prefix.length)) - 1n;

/** True when the first `length` bits agree. Asked for every address of a site, so IPv4 is done without a power. */
export function contains(prefix: Prefix, address: IpAddress): boolean {
  if (typeof address === 'number')
    return (
      typeof prefix.address === 'number' &&
      (prefix.length === 0 || (address ^ prefix.address) >>> (32 - prefix.length) === 0)
    );
  return typeof prefix.address === 'bigint' && address >= prefix.address && address <= lastOf(prefix);
}

/** True when every address of `inner` lies in `outer`. */
export const covers = (outer: Prefix, inner: Prefix): boolean =>
  outer.length <= inner.length && contains(outer, inner.address);

/** Two aligned prefixes overlap exactly when one covers the other. */
export const overlaps = (a: Prefix, b: Prefix): boolean => covers(a, b) || covers(b, a);

export const samePrefix = (a: Prefix, b: Prefix): boolean => a.address === b.address && a.length === b.length;

export const comparePrefixes = (a: Prefix, b: Prefix): number =>
  compareAddresses(a.address, b.address) || a.length - b.length;

export const formatPrefix = (prefix: Prefix): string => `${formatAddress(prefix.address)}/${prefix.length}`;

export interface ParsedPrefix {
  readonly prefix: Prefix;
  /** False when the text had host bits set, as in 192.0.2.7/24: a host in that network, not the network. */
  readonly aligned: boolean;
}

/**
 * Reads `address/length` (RFC 4632 section 3.1), or an address and its mask as devices show them: `192.0.2.0 255.255.255.0`.
 * Null when the text is of neither form.
 */
export function parsePrefix(text: string): ParsedPrefix | null {
  const match = /^\s*([^/\s]+)(?:\s*\/\s*([0-9]{1,3}|[0-9.]+)|\s+([0-9]+(?:\.[0-9]+){3}))\s*$/.exec(text);
  if (!match) return null;
  const address = parseAddress(match[1]!);
  const length = parseMask(match[2] ?? match[3]!);
  if (address === null || length === null || length > widthOf(familyOf(address))) return null;
  const prefix = networkOf(address, length);
  return { prefix, aligned: prefix.address === address };
}

/** Reads a network as parsePrefix does, or an address by itself as the network of it alone; null for neither. */
export function parseNetwork(text: string): Prefix | null {
  const address = parseAddress(text);
  return address === null
    ? (parsePrefix(text)?.prefix ?? null)
    : networkOf(address, widthOf(familyOf(address)));
}

/** The dotted mask of an IPv4 prefix length, as set on a device. */
export function maskOf(length: number): string {
  return formatAddress(length === 0 ? 0 : 2 ** 32 - 2 ** (32 - length));
}

/** Reads a mask as people write it: `/26`, `26` or `255.255.255.192`; null when it is none of these. */
export function parseMask(text: string): number | null {
  const short = /^\s*\/?([0-9]{1,3})\s*$/.exec(text);
  if (short) return Number(short[1]) <= 128 ? Number(short[1]) : null;
  const value = parseAddress(text);
  if (typeof value !== 'number') return null;
  const length = Math.clz32(~value >>> 0);
  return value === 0 ? 0 : maskOf(length) === formatAddress(value) ? length : null;
}

/**
 * Addresses that hosts can use: 2^(32−p) − 2 for p ≤ 30, 2 for a /31 (RFC 3021), 1 for a /32.
 * IPv6 has no broadcast and loses only the subnet-router anycast address (RFC 4291 section 2.6.1).
 */
export function usableHosts(prefix: Prefix): number {
  const size = sizeOf(prefix);
  if (prefixFamily(prefix) === 6) return size <= 2 ? size : size - 1;
  return prefix.length <= 30 ? size - 2 : size;
}

/** Lowest and highest usable host address. */
export function usableRange(prefix: Prefix): { readonly first: IpAddress; readonly last: IpAddress } {
  const last = lastOf(prefix);
  if (typeof prefix.address === 'number' && typeof last === 'number')
    return prefix.length >= 31
      ? { first: prefix.address, last }
      : { first: prefix.address + 1, last: last - 1 };
  return prefix.length >= 127
    ? { first: prefix.address, last }
    : { first: (prefix.address as bigint) + 1n, last };
}

/** Is it the address of everybody in an IPv4 network (RFC 919)? A /31 (RFC 3021), a /32 and IPv6 have none. */
export const isBroadcast = (prefix: Prefix, address: IpAddress): boolean =>
  typeof prefix.address === 'number' && prefix.length < 31 && address === lastOf(prefix);

/**
 * The address that stands in `to` where another stands in `from`, counted from the network address. May lie beyond its end.
 * One of another family than both stands in neither, and stays as it is.
 */
export function samePlace(from: Prefix, to: Prefix, address: IpAddress): IpAddress {
  const [first, other] = [from.address, to.address];
  if (typeof address === 'number')
    return typeof first === 'number' && typeof other === 'number' ? other + (address - first) : address;
  return typeof first === 'bigint' && typeof other === 'bigint' ? other + (address - first) : address;
}

/** The two halves of a prefix. Throws for a single address. */
export function halves(prefix: Prefix): readonly [Prefix, Prefix] {
  if (prefix.length >= widthOf(prefixFamily(prefix))) throw new RangeError('a single address has no halves');
  const length = prefix.length + 1;
  const half = sizeOf({ ...prefix, length });
  const upper =
    typeof prefix.address === 'number'
      ? prefix.address + half
      : prefix.address + (1n << BigInt(128 - length));
  return [
    { address: prefix.address, length },
    { address: upper, length },
  ];
}
