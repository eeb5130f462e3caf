import { contains, networkOf } from '../address';
import { listenersOf, protocolsMeet } from '../model/uplink';
import { type Device, type Listener, type Plan, derive, portsText } from '../plan';
import type { Packet } from './conversation';
import type { Host } from './host';

/** What a device itself makes of a question that has arrived: whether anything listens, and what its own firewall says. */

/** UDP port of a DHCP server (RFC 2131). */
const DHCP = 67;

/** The devices that pools say are their servers; nobody lists that as a service. */
const servers = derive(
  (plan): ReadonlySet<string> =>
    new Set(
      [...plan.pool.values()].flatMap(({ servedBy }) => servedBy.map((id) => plan.interface.get(id)!.device)),
    ),
);

const hears = (plan: Plan, device: Device, listed: readonly Listener[], { wanted }: Packet): boolean => {
  const { protocol, port } = wanted;
  if (protocol === 'icmp') return false;
  if (protocol === 'udp' && port === DHCP && servers(plan).has(device.id)) return true;
  return listed.some((item) => item.port === port && protocolsMeet(item.protocol, protocol));
};

/** Why a device does not answer a question that has arrived at it; null when nothing that is recorded keeps it from it. */
export function refusedByHost(plan: Plan, { device, address, length }: Host, packet: Packet): string | null {
  if (device === null) return null;
  const { wanted, from } = packet;
  const listed = listenersOf(plan, device.id);
  const known = hears(plan, device, listed, packet);
  if (wanted.protocol !== 'icmp' && listed.length > 0 && !known) {
    const texts = listed.map(({ protocol, port }) => portsText(protocol, port));
    return `nothing there listens on ${portsText(wanted.protocol, wanted.port)}; listed is ${texts.join(', ')}`;
  }
  if (device.firewall === 'own-subnet' && !contains(networkOf(address, length), from))
    return 'its own firewall lets in nobody from outside its own network';
  if (device.firewall === 'as-listed' && !known)
    return wanted.protocol === 'icmp'
      ? 'its own firewall lets in what is listed, and no ping'
      : 'its own firewall lets in what is listed, and nothing is';
  return null;
}

/** What to look at where a ping fails that should not; null where that is recorded. */
export const pingCaution = (host: Host, { wanted }: Packet): string | null =>
  host.device?.firewall === 'unknown' && wanted.protocol === 'icmp'
    ? `Many devices let no ping in. Where this one fails all the same, look at ${host.device.name}’s own firewall first, which nobody recorded`
    : null;
