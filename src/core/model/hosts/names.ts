import { type Plan, siteOf, type DeviceKind, type Subnet, devicesNamed } from '../../plan';

/** One label of a host name: letters, digits and hyphens, not at the ends, at most 63 (RFC 1123 section 2.1). */
const LABEL = /^[A-Za-z0-9]([A-Za-z0-9-]{0,61}[A-Za-z0-9])?$/;

/** A label that is not digits alone, which resolvers would read as a number. */
const ALLOWED = /^(?=[0-9-]*[A-Za-z])[A-Za-z0-9](?:[A-Za-z0-9-]{0,61}[A-Za-z0-9])?$/;

export interface NameProblem {
  readonly why: string;
  /** The nearest allowed name; null when nothing of it can be kept. */
  readonly repair: string | null;
}

/** What is wrong with a host name, with a repair; null when it is allowed. Domain names belong to the subnet. */
export function nameProblem(name: string): NameProblem | null {
  if (ALLOWED.test(name)) return null;
  const repair = repairName(name);
  const why =
    name === ''
      ? 'The host name is empty'
      : /^[0-9]+$/.test(name)
        ? `“${name}” is only digits and would be read as a number`
        : /^[0-9-]+$/.test(name)
          ? `“${name}” holds no letter and would be read as a number`
          : name.length > 63
            ? `“${name.slice(0, 20)}…” has ${name.length} characters, a host name at most 63`
            : name.includes('.')
              ? `“${name}” holds a dot; the domain belongs to the segment`
              : `“${name}” may hold only letters, digits and inner hyphens`;
  return { why, repair };
}

/** The nearest allowed host name: "Pump 1" gives pump-1; null when no letter or digit is left. */
export function repairName(name: string): string | null {
  const repaired = name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/ß/g, 'ss')
    .toLowerCase()
    .split('.')[0]!
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, 63)
    .replace(/^-+|-+$/g, '');
  if (repaired === '') return null;
  if (/[a-z]/.test(repaired)) return repaired;
  return `host-${repaired}`.slice(0, 63).replace(/-+$/, '');
}

/** The plain sentence for a name problem, with the repair offered. */
export const nameMessage = (problem: NameProblem): string =>
  problem.repair ? `${problem.why}; write ${problem.repair}` : `${problem.why}; write a name like pump-1`;

/** A domain name: labels joined by dots, at most 253 characters (RFC 1035 section 2.3.4). Empty is none. */
export const isDomain = (domain: string): boolean =>
  domain === '' || (domain.length <= 253 && domain.split('.').every((label) => LABEL.test(label)));

/**
 * Names by the site's pattern, one after the other: {code} of the segment, {kind}, {n} or {nn} counting up. A pattern without a
 * number gets one at the end. Never ends.
 */
export function* hostNames(plan: Plan, code: string, kind: DeviceKind): Generator<string, never> {
  const pattern = siteOf(plan).namingPattern;
  const counted = (/\{n+\}/.test(pattern) ? pattern : `${pattern}-{n}`)
    .replaceAll('{code}', code.toLowerCase())
    .replaceAll('{kind}', kind);
  for (let n = 1; ; n++) {
    const name = counted.replace(/\{(n+)\}/g, (_, width: string) => String(n).padStart(width.length, '0'));
    yield nameProblem(name) ? (repairName(name) ?? `host-${n}`) : name;
  }
}

/** The next of these names that no device has. */
export function proposeHostName(
  plan: Plan,
  subnet: Subnet,
  kind: DeviceKind,
  taken: ReadonlySet<string> = new Set(),
): string {
  const names = hostNames(plan, plan.vlan.get(subnet.vlan)!.code, kind);
  for (;;) {
    const name = names.next().value;
    if (!taken.has(name) && devicesNamed(plan, name).length === 0) return name;
  }
}
