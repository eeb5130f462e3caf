import { type IpAddress, parseAddress } from '../../address';
import {
  type Device,
  type Plan,
  type Port,
  type Telephony,
  type VoiceHop,
  deriveBy,
  vlansOf,
} from '../../plan';
import { devicesMeant } from '../hosts';
import { linksAt, portsOf } from '../wiring';

/** What telephones are told, and what boxes do for them, as recorded. */

export const telephonyOf = (plan: Plan, vlan: string): Telephony | null =>
  plan.telephony.by('vlan', vlan)[0] ?? null;

/** What telephones are told, in the order of their segments. */
export const telephoniesOf = (plan: Plan): Telephony[] =>
  vlansOf(plan).flatMap(({ id }) => telephonyOf(plan, id) ?? []);

type Hop = Omit<VoiceHop, 'id' | 'device'>;
export const noHop: Hop = { announces: 'unknown', marks: 'unknown', queue: 'unknown' };
export const hopOf = (plan: Plan, device: string): Hop => plan.voiceHop.by('device', device)[0] ?? noHop;

/** A telephone, with the port of the box it is plugged into. */
export interface PluggedPhone {
  readonly phone: Device;
  readonly port: Port;
}
/** The telephones whose cables are recorded, by box. */
export const pluggedPhones = deriveBy((plan, box: string): readonly PluggedPhone[] =>
  portsOf(plan, box).flatMap((port) =>
    linksAt(plan, port)
      .map(({ to }) => plan.device.get(plan.port.get(to)!.device)!)
      .filter(({ kind }) => kind === 'phone')
      .map((phone) => ({ phone, port: plan.port.get(port.id)! })),
  ),
);

/** Where telephones are sent: an address, a device of the site, or a name that only the Internet knows. */
export interface Target {
  readonly to: { readonly address: IpAddress } | { readonly device: string } | { readonly internet: true };
  readonly wanted: { readonly protocol: 'tcp' | 'udp'; readonly port: number };
  /** Written as addresses, as option 150 needs them? */
  readonly literal: boolean;
}

/** What is asked for, by the scheme in front: TFTP (RFC 1350), HTTP, SIP (RFC 3261). */
const SCHEMES: Readonly<Record<string, Target['wanted']>> = {
  tftp: { protocol: 'udp', port: 69 },
  http: { protocol: 'tcp', port: 80 },
  https: { protocol: 'tcp', port: 443 },
  sip: { protocol: 'udp', port: 5060 },
  sips: { protocol: 'tcp', port: 5061 },
};

/** Reads a host, a host with a port, or a URL; null where it is none of these. `usual` is the scheme of what has none. */
export function targetOf(plan: Plan, text: string, usual: 'tftp' | 'sip'): Target | null {
  const parts = /^(?:([a-z]+):(?:\/\/)?)?(\[[^\]]+\]|[^/:\s[\]]+)(?::(\d{1,5}))?(?:\/\S*)?$/i.exec(
    text.trim(),
  );
  if (!parts) return null;
  const service = SCHEMES[(parts[1] ?? usual).toLowerCase()];
  const port = parts[3] === undefined ? service?.port : Number(parts[3]);
  if (!service || port! < 1 || port! > 65_535) return null;
  const host = parts[2]!.replace(/^\[|\]$/g, '');
  const wanted = { protocol: service.protocol, port: port! };
  const address = parseAddress(host);
  if (address !== null) return { to: { address }, wanted, literal: parts[1] === undefined };
  const [device] = devicesMeant(plan, host);
  return { to: device ? { device: device.id } : { internet: true }, wanted, literal: false };
}
