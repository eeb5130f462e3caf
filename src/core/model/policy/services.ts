import { type Plan, type Service, badInput } from '../../plan';

/** Services by name: the standard ones every site has (IANA registry, RFC 6335; ICMP types of RFC 792), and its own. */

type Match = Service['matches'][number];

const tcp = (from: number, to = from): Match => ({ protocol: 'tcp', from, to });
const udp = (from: number, to = from): Match => ({ protocol: 'udp', from, to });
const icmp = (type: number): Match => ({ protocol: 'icmp', from: type, to: type });

const standard = (id: string, name: string, ...matches: Match[]): Service => ({
  id: `std${id}`,
  name,
  matches,
});

/** Ids of standard services begin with `std`, which a record's id made by a change never does by chance alone. */
export const standardServices: readonly Service[] = [
  standard('http', 'web pages', tcp(80), tcp(443)),
  standard('https', 'HTTPS', tcp(443)),
  standard('dns', 'DNS', udp(53), tcp(53)),
  standard('dhcp', 'DHCP', udp(67, 68)),
  standard('ntp', 'NTP', udp(123)),
  standard('ping', 'ping', icmp(8)),
  standard('print', 'printing', tcp(515), tcp(631), tcp(9100)),
  standard('files', 'file sharing', tcp(445)),
  standard('ssh', 'SSH', tcp(22)),
  standard('screen', 'remote desktop', tcp(3389)),
  standard('snmp', 'SNMP', udp(161)),
  standard('syslog', 'syslog', udp(514)),
  standard('mail', 'mail', tcp(25), tcp(465), tcp(587), tcp(993)),
  standard('sip', 'SIP and voice', udp(5060), tcp(5060, 5061), udp(10_000, 20_000)),
  standard('rtsp', 'camera pictures', tcp(554)),
  standard('mqtts', 'MQTT over TLS', tcp(8883)),
  standard('opcua', 'OPC UA', tcp(4840)),
  standard('modbus', 'Modbus', tcp(502)),
  standard('radius', 'RADIUS', udp(1812, 1813)),
  standard('vpn', 'IPsec', udp(500), udp(4500), { protocol: 'ip', from: 50, to: 50 }),
];
const byId: ReadonlyMap<string, Service> = new Map(standardServices.map((service) => [service.id, service]));

/** A service by its id, of the site or of the standard list; undefined when there is none (any more). */
export const serviceOf = (plan: Plan, id: string): Service | undefined =>
  plan.service.get(id) ?? byId.get(id);

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
  const last = protocol === 'icmp' || protocol === 'ip' ? 255 : 65_535;
  if (!protocol || from > last || to > last || to < from)
    throw badInput(
      `“${text.trim()}” is no port; write tcp 443, udp 5000-5010, icmp 8 or ip 50, several with commas.`,
      'matches',
    );
  return { protocol, from, to };
};

/** Ports as typed: `tcp 443, udp 5000-5010`. */
export const typedMatches = (text: string): Match[] => text.split(',').map(one);
