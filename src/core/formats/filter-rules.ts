import { type Family, type Prefix, formatPrefix, halves } from '../address';
import type { Plan } from '../plan';
import { type ListLine, type Span, EVERYTHING, V6_FIRST, portListOf, spanOf } from '../model/policy';
import { ECHO, byProtocol } from './nft-match';

/**
 * The list of a segment as a server hands it out: NAS-Filter-Rule (RFC 4849), each in the form of an IPFilterRule (RFC 6733
 * section 4.3.1). What no line names is dropped.
 */

/** The fewest prefixes that make up a range within one address family. */
export function prefixesIn(span: Span): Prefix[] {
  const found: Prefix[] = [];
  const visit = (prefix: Prefix): void => {
    const [first, last] = spanOf(prefix);
    if (last < span[0] || span[1] < first) return;
    if (span[0] <= first && last <= span[1]) found.push(prefix);
    else for (const half of halves(prefix)) visit(half);
  };
  visit(span[0] < V6_FIRST ? { address: 0, length: 0 } : { address: 0n, length: 0 });
  return found;
}

/** Addresses as such a line wants them, and the family they are of; null for either. */
const parties = (span: Span | null): { readonly text: string; readonly family: Family | null }[] =>
  span === null
    ? [{ text: 'any', family: null }]
    : prefixesIn(span).map((prefix) => ({
        text: formatPrefix(prefix),
        family: span[0] < V6_FIRST ? (4 as const) : (6 as const),
      }));

/** What a line matches beside addresses: the protocol, the ports behind the server’s address, and what follows. */
interface Kind {
  readonly protocol: string;
  readonly ports?: string;
  readonly after?: string;
}

const list = (numbers: readonly (readonly [bigint, bigint])[]): string =>
  numbers.map(([a, b]) => (a === b ? `${a}` : `${a}-${b}`)).join(',');

/** A ping, or its answer, as each family numbers them (RFC 792, RFC 4443). */
function pings(family: Family | null, answers: boolean): Kind[] {
  const four = { protocol: 'icmp', after: `icmptypes ${answers ? 0 : ECHO}` };
  const six = { protocol: '58', after: `icmptypes ${answers ? 129 : 128}` };
  return [...(family === 6 ? [] : [four]), ...(family === 4 ? [] : [six])];
}

function kindsOf({ services, answers }: ListLine, family: Family | null): Kind[] {
  const everything =
    services === null || services.some((span) => span[0] === EVERYTHING[0] && span[1] === EVERYTHING[1]);
  if (everything)
    return answers
      ? [{ protocol: 'tcp', after: 'established' }, { protocol: 'udp' }, ...pings(family, true)]
      : [{ protocol: 'ip' }];
  return byProtocol(services).flatMap(({ protocol, numbers }): Kind[] => {
    if (protocol === 'tcp')
      return [{ protocol, ports: list(numbers), ...(answers ? { after: 'established' } : {}) }];
    if (protocol === 'udp') return [{ protocol, ports: list(numbers) }];
    if (protocol === 'ip')
      return numbers.flatMap(([a, b]) =>
        Array.from({ length: Number(b - a) + 1 }, (_, i) => ({ protocol: `${Number(a) + i}` })),
      );
    // Of the types only the echo means the same in both families.
    const echo = numbers.some(([a, b]) => a <= ECHO && ECHO <= b);
    if (answers) return echo ? pings(family, true) : [];
    return [
      ...(family === 6 ? [] : [{ protocol: 'icmp', after: `icmptypes ${list(numbers)}` }]),
      ...(family === 4 || !echo ? [] : pings(6, false)),
    ];
  });
}

function lineTexts(line: ListLine): string[] {
  const action = line.passes ? 'permit' : 'deny';
  return parties(line.from).flatMap((from) =>
    parties(line.to).flatMap((to) =>
      kindsOf(line, to.family ?? from.family).map(({ protocol, ports, after }) => {
        const [near, far] = line.answers ? [ports, undefined] : [undefined, ports];
        return [action, 'in', protocol, 'from', from.text, near, 'to', to.text, far, after]
          .filter((word) => word !== undefined)
          .join(' ');
      }),
    ),
  );
}

/** The lines of a segment, each once. */
export const filterRules = (plan: Plan, vlan: string, today: string | null): string[] => [
  ...new Set(portListOf(plan, vlan, today).flatMap(lineTexts)),
];

/** Of what a server can say in one packet (RFC 2865 section 3), in octets. */
export const MOST_OCTETS = 4096;
/** An attribute holds so many octets beside the two before them (RFC 2865 section 5). */
const IN_ATTRIBUTE = 253;
/** The octets of a list on the wire: its lines with a zero between two, cut into attributes (RFC 4849 section 2). */
export function octetsOf(lines: readonly string[]): number {
  if (lines.length === 0) return 0;
  const joined = lines.reduce((sum, line) => sum + line.length + 1, -1);
  return joined + 2 * Math.ceil(joined / IN_ATTRIBUTE);
}
