import { type IpAddress, familyOf, formatAddress, formatPrefix, networkOf } from '../address';
import { ownSettings } from '../model/hosts';
import { linksOf, portsOf } from '../model/wiring';
import { type Device, type Plan, addressesOn, interfacesOf } from '../plan';
import { deadWire, everything, nodad } from './boxes';
import type { Site } from './site';
import { wiresOf } from './wires';

/** End devices with what is really set on them, and whom they let in. */

/** An end device with what is really set on it. */
export function layHost(site: Site, plan: Plan, device: string): IpAddress[] {
  const own: IpAddress[] = [];
  const socket = portsOf(plan, device).find(({ id }) => linksOf(plan).get(id)?.length);
  if (!socket) return own;
  const { to } = linksOf(plan).get(socket.id)![0]!;
  const { voice } = plan.port.get(to)!;
  const dead = new Set<string>();
  for (const item of interfacesOf(plan, device))
    for (const { address, subnet: id } of addressesOn(plan, item.id)) {
      const { vlan, prefix } = plan.subnet.get(id)!;
      const tag = plan.device.get(device)!.kind === 'phone' && voice === vlan ? plan.vlan.get(vlan)!.vid : 0;
      const dev = tag === 0 ? `eth${socket.number}` : `eth${socket.number}.${tag}`;
      const heard = site.has(plan.port.get(to)!.device) && wiresOf(plan, socket.id, to, tag) !== null;
      if (!heard && !dead.has(dev)) {
        // Nothing it says is taken at the other end, or nobody is there.
        dead.add(dev);
        deadWire(site, device, dev);
      }
      site.link(
        device,
        `addr add ${formatAddress(address)}/${ownSettings(item, address).length ?? prefix.length} dev ${dev}${nodad(address)}`,
      );
      own.push(address);
    }
  return own;
}

/** What an end device itself lets in: of services that are listed no other, and by its own firewall. */
export function ownRules(plan: Plan, device: Device): string {
  const listed = [...plan.listener.group(device.id).values()].flatMap(({ protocol, port }) =>
    (protocol === 'both' ? ['tcp', 'udp'] : [protocol]).map((one) => `${one} dport ${port} accept`),
  );
  const near = interfacesOf(plan, device.id).flatMap((item) =>
    addressesOn(plan, item.id).map(({ address, subnet }) => {
      const length = ownSettings(item, address).length ?? plan.subnet.get(subnet)!.prefix.length;
      const word = familyOf(address) === 6 ? 'ip6' : 'ip';
      return `${word} daddr ${formatAddress(address)} ${word} saddr != ${formatPrefix(networkOf(address, length))} drop`;
    }),
  );
  const serves = interfacesOf(plan, device.id).some(({ id }) =>
    [...plan.pool.values()].some(({ servedBy }) => servedBy.includes(id)),
  );
  const dhcp = 'udp dport 67 accept';
  const all = listed.length === 0 && device.firewall !== 'as-listed';
  return [
    'table inet own {\nchain input {\ntype filter hook input priority filter; policy drop;',
    'iifname "lo" accept\nct state established,related accept',
    // What IPv6 needs to find a neighbour is no ping.
    'icmpv6 type != echo-request accept',
    // Who has no address yet is near.
    ...(serves ? [`ip saddr 0.0.0.0 ${dhcp}`] : []),
    ...(device.firewall === 'own-subnet' ? near : []),
    ...(device.firewall === 'as-listed' ? [] : ['meta l4proto { icmp, icmpv6 } accept']),
    ...(all ? ['accept'] : [...listed, ...(serves ? [dhcp] : [])]),
    '}\n}\n',
  ].join('\n');
}

/** The way out of who does not route: the gateway that is set, else the one of the subnet. */
export function layDefault(site: Site, plan: Plan, device: string): void {
  for (const item of interfacesOf(plan, device))
    for (const { address, subnet } of addressesOn(plan, item.id)) {
      const usual = [...plan.address.values()].find((other) => other.gateway && other.subnet === subnet);
      const set = ownSettings(item, address).gateway;
      const gateway = set === undefined ? (usual?.address ?? null) : set;
      if (gateway !== null)
        site.route(device, `route add ${everything(address)} via ${formatAddress(gateway)}`);
    }
}
