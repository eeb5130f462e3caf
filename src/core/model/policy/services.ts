import { type Plan, type Service, badInput, lastNumber, standardService, standardServices } from '../../plan';

/** Services by name: the standard ones every site has (IANA registry, RFC 6335; ICMP types of RFC 792), and its own. */

type Match = Service['matches'][number];

/** A service by its id, of the site or of the standard list; undefined when there is none (any more). */
export const serviceOf = (plan: Plan, id: string): Service | undefined =>
  plan.service.get(id) ?? standardService(id);

/** All there are: the site's own first. */
export const allServices = (plan: Plan): readonly Service[] => [
  ...[...plan.service.values()].sort((a, b) => a.name.localeCompare(b.name)),
  ...standardServices,
];

export const serviceNames = (plan: Plan, ids: readonly string[]): string =>
  ids.map((id) => serviceOf(plan, id)?.name ?? 'a service that is gone').join(', ');

/** `tcp 8443`, `udp 5000-5010`, `icmp 8`, `ip 50`. */
export const matchText = ({ protocol, from, to }: Match): string =>
  `${protocol} ${from === to ? from : `${from}-${to}`}`;

const one = (text: string): Match => {
  const found = /^(tcp|udp|icmp|ip)\s+(\d{1,5})(?:\s*[-–]\s*(\d{1,5}))?$/i.exec(text.trim());
  const from = Number(found?.[2]);
  const to = found?.[3] === undefined ? from : Number(found[3]);
  const protocol = found?.[1]?.toLowerCase() as Match['protocol'] | undefined;
  const last = protocol && lastNumber(protocol);
  if (!protocol || !last || from > last || to > last || to < from)
    throw badInput(
      `“${text.trim()}” is no port; write tcp 443, udp 5000-5010, icmp 8 or ip 50, several with commas.`,
      'matches',
    );
  return { protocol, from, to };
};

/** Ports as typed: `tcp 443, udp 5000-5010`. */
export const typedMatches = (text: string): Match[] => text.split(',').map(one);
