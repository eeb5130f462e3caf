import type { Service } from './records';

/** Services that every site has (IANA registry, RFC 6335; ICMP types of RFC 792). They are no records and are never changed. */

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

export const standardService = (id: string): Service | undefined => byId.get(id);
