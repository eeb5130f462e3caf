import { type Listener, badInput } from '../../plan';

/** A service by its registered port (RFC 6335, the IANA registry), with what to know before it is opened outwards. */
export interface KnownService {
  readonly name: string;
  readonly protocol: Listener['protocol'];
  readonly port: number;
  /** Whoever listens in on the way reads along, password included. */
  readonly plain: boolean;
  /** It configures or controls something; never for the Internet. */
  readonly control: boolean;
}

const known = (
  name: string,
  protocol: Listener['protocol'],
  port: number,
  kind: 'safe' | 'plain' | 'control' | 'plain-control' = 'safe',
): KnownService => ({
  name,
  protocol,
  port,
  plain: kind.startsWith('plain'),
  control: kind.endsWith('control'),
});

export const knownServices: readonly KnownService[] = [
  known('FTP', 'tcp', 21, 'plain'),
  known('SSH', 'tcp', 22, 'control'),
  known('Telnet', 'tcp', 23, 'plain-control'),
  known('SMTP', 'tcp', 25),
  known('DNS', 'both', 53),
  known('TFTP', 'udp', 69, 'plain-control'),
  known('HTTP', 'tcp', 80, 'plain'),
  known('ISO transport of controllers', 'tcp', 102, 'plain-control'),
  known('NTP', 'udp', 123),
  known('SNMP', 'udp', 161, 'plain-control'),
  known('HTTPS', 'tcp', 443),
  known('file sharing', 'tcp', 445, 'control'),
  known('IKE', 'udp', 500),
  known('printing, LPD', 'tcp', 515, 'plain'),
  known('Modbus', 'tcp', 502, 'plain-control'),
  known('RTSP, camera pictures', 'tcp', 554, 'plain'),
  known('IPP, printing', 'tcp', 631),
  known('MQTT over TLS', 'tcp', 8883),
  known('MQTT', 'tcp', 1883, 'plain'),
  known('remote desktop', 'tcp', 3389, 'control'),
  known('IPsec NAT traversal', 'udp', 4500),
  known('OPC UA', 'tcp', 4840, 'control'),
  known('SIP', 'both', 5060, 'plain'),
  known('SIP over TLS', 'tcp', 5061),
  known('remote screen', 'tcp', 5900, 'plain-control'),
  known('HTTP, other port', 'tcp', 8080, 'plain'),
  known('printing, raw', 'tcp', 9100, 'plain'),
  known('EtherNet/IP', 'both', 44818, 'plain-control'),
  known('BACnet', 'udp', 47808, 'plain-control'),
];

/** Do two protocols have one in common? */
export const protocolsMeet = (a: Listener['protocol'], b: Listener['protocol']): boolean =>
  a === 'both' || b === 'both' || a === b;

/** The registered service at a port; undefined for none. */
export const knownServiceAt = (protocol: Listener['protocol'], port: number): KnownService | undefined =>
  knownServices.find((service) => service.port === port && protocolsMeet(service.protocol, protocol));

/** `443`, `tcp 443`, `tcp+udp 53`: the protocol may be left out. Throws a Refusal. */
export function typedListener(text: string): Pick<Listener, 'protocol' | 'port'> {
  const match = /^\s*(?:(tcp|udp|tcp\+udp)\s+)?(\d{1,5})\s*$/i.exec(text);
  const port = Number(match?.[2]);
  if (!match || port < 1 || port > 65_535)
    throw badInput(`“${text.trim()}” is no service; write a port from 1 to 65535, like tcp 443.`, 'port');
  const word = match[1]?.toLowerCase();
  return { protocol: word === 'tcp+udp' ? 'both' : word === 'udp' ? 'udp' : 'tcp', port };
}
