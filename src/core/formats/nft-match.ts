import { formatAddress } from '../address';
import { lastNumber } from '../plan';
import { type Span, PORTS, PROTOCOLS, V6_FIRST, cut } from '../model/policy';

/** The parts of an nftables rule: addresses, ports and names as that language wants them. */

/** What traffic a rule is about; null means any. */
export interface Match {
  readonly from: readonly Span[] | null;
  readonly to: readonly Span[] | null;
  readonly services: readonly Span[] | null;
  /** Interfaces, and what has to stand before everything else. */
  readonly before?: string;
}

const isV4 = ([from]: Span): boolean => from < V6_FIRST;
const address = (at: bigint): string => formatAddress(at < V6_FIRST ? Number(at) : at - V6_FIRST);
const range = ([from, to]: Span): string => (from === to ? address(from) : `${address(from)}-${address(to)}`);

/** Ranges in order, those that touch made one: the language refuses sets in which two overlap. */
export function merged(spans: readonly Span[]): Span[] {
  const found: [bigint, bigint][] = [];
  for (const [from, to] of [...spans].sort((a, b) => (a[0] < b[0] ? -1 : a[0] > b[0] ? 1 : 0))) {
    const last = found.at(-1);
    // IPv4 and IPv6 lie side by side on the line, and are never one range.
    if (last && from <= last[1] + 1n && from !== V6_FIRST) last[1] = to > last[1] ? to : last[1];
    else found.push([from, to]);
  }
  return found;
}

const set = (items: readonly string[]): string =>
  items.length === 1 ? items[0]! : `{ ${items.join(', ')} }`;
const WHOLE_4 = V6_FIRST - 1n;

/** `ip saddr …`; for a whole family only that it is this one. */
function addresses(word: 'saddr' | 'daddr', spans: readonly Span[], v4: boolean): string {
  const [only] = spans;
  if (spans.length === 1 && v4 && only![0] === 0n && only![1] === WHOLE_4) return 'meta nfproto ipv4';
  return `${v4 ? 'ip' : 'ip6'} ${word} ${set(spans.map(range))}`;
}

/** The type of a ping (RFC 792). */
export const ECHO = 8n;

type Numbers = readonly (readonly [bigint, bigint])[];
/** The ports, types or protocol numbers that services are, by protocol. */
export function byProtocol(
  spans: readonly Span[],
): { readonly protocol: (typeof PROTOCOLS)[number]; readonly numbers: Numbers }[] {
  return PROTOCOLS.flatMap((protocol, i) => {
    const first = BigInt(i * PORTS);
    const line: Span = [first, first + BigInt(lastNumber(protocol))];
    const numbers = merged(spans).flatMap((span): Span[] => {
      const part = cut(span, line);
      return part ? [[part[0] - first, part[1] - first]] : [];
    });
    return numbers.length > 0 ? [{ protocol, numbers }] : [];
  });
}

/** One text for each protocol; `family` null when no address was named. */
function services(spans: readonly Span[] | null, family: 4 | 6 | null): string[] {
  if (spans === null) return [''];
  return byProtocol(spans).flatMap(({ protocol, numbers }) => {
    const list = set(numbers.map(([a, b]) => (a === b ? String(a) : `${a}-${b}`)));
    if (protocol === 'tcp' || protocol === 'udp') return [`${protocol} dport ${list}`];
    if (protocol === 'ip') return [`meta l4proto ${list}`];
    // Types differ between the families; of those here only the echo has the same meaning in both.
    const echo = numbers.some(([a, b]) => a <= ECHO && ECHO <= b);
    return [
      ...(family === 6 ? [] : [`icmp type ${list}`]),
      ...(family === 4 || !echo ? [] : ['icmpv6 type echo-request']),
    ];
  });
}

/** The conditions of a rule as lines without a verdict: one for each family and protocol; none when nobody is meant. */
export function conditions({ from, to, services: wanted, before = '' }: Match): string[] {
  const join = (...parts: string[]) => parts.filter(Boolean).join(' ');
  if (wanted !== null && wanted.length === 0) return [];
  if (from === null && to === null) return services(wanted, null).map((service) => join(before, service));
  return [true, false].flatMap((v4) => {
    const [senders, receivers] = [from, to].map(
      (spans) => spans && merged(spans).filter((span) => isV4(span) === v4),
    );
    if (senders?.length === 0 || receivers?.length === 0) return [];
    const source = senders ? addresses('saddr', senders, v4) : '';
    const target = receivers ? addresses('daddr', receivers, v4) : '';
    return services(wanted, v4 ? 4 : 6).map((service) => join(before, source, target, service));
  });
}

/** A text on one line: nothing a person wrote begins a line of its own. */
export const plain = (text: string): string => text.replace(/[\p{C}\p{Zl}\p{Zp}]/gu, ' ');
/** A text that can stand between quotation marks. */
export const quoted = (text: string): string => `"${fitting(plain(text).replace(/["\\]/g, ' '))}"`;

/** So many bytes of UTF-8 the kernel takes of a comment, its end included. */
const COMMENT_BYTES = 127;
/** The beginning of a text that fits, cut between characters. */
function fitting(text: string): string {
  const encoder = new TextEncoder();
  let bytes = 0;
  let fits = '';
  for (const character of text) {
    bytes += encoder.encode(character).length;
    if (bytes > COMMENT_BYTES) break;
    fits += character;
  }
  return fits;
}

/** Names of interfaces as a set. The kernel takes at most 15 characters; others fall back to `other`. */
export const interfaceName = (name: string, other: string): string =>
  /^[A-Za-z0-9_.-]{1,15}$/.test(name) ? name : other;
export const interfaces = (
  word: 'iifname' | 'iifname !=' | 'oifname' | 'oifname !=',
  names: readonly string[],
): string => `${word} ${set(names.map((name) => `"${name}"`))}`;
