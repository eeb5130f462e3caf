import { type IpAddress, familyOf, formatAddress } from '../address';
import { ownSettings } from '../model/hosts';
import { fabric } from '../model/switching';
import { type Bridge, leaves, linksOf } from '../model/wiring';
import { type Plan, addressesOn, interfacesOf } from '../plan';
import type { Site } from './site';
import { tagsOf, wiresOf } from './wires';

/** Boxes as bridges of the kernel, the cables between them, and their own interfaces. */

/** An IPv6 address is there at once, without asking whether somebody has it. */
export const nodad = (address: IpAddress): string => (familyOf(address) === 6 ? ' nodad' : '');

/** Where a default route leads, in words of `ip`. */
export const everything = (address: IpAddress): string => (familyOf(address) === 6 ? '::/0' : 'default');

/** The wire of a VLAN inside a box, its own interface there when it is in it. A box without VLANs has one for each tag. */
export const wireOf = (bridge: Bridge, vid: number): string =>
  bridge.ports.some(({ number }, i) => number === 0 && isIn(bridge, i, vid)) ? `vlan${vid}` : `wire${vid}`;
/** Is a port in a VLAN of its box, one that something can be plugged into or is? */
export const hasSocket = (bridge: Bridge, vid: number): boolean =>
  bridge.ports.some(({ number }, i) => number > 0 && isIn(bridge, i, vid));
const isIn = (bridge: Bridge, port: number, vid: number): boolean => leaves(bridge, port, vid) !== null;

/** What can be plugged into a port without a cable, in a VLAN of its box. */
export const openEnd = (number: number, vid: number): string => `x${number}v${vid}`;

/**
 * Each VLAN in a box is a bridge of the kernel, and each tag on a cable a cable of its own, so that no kernel has to know
 * VLANs.
 */
export function layBridge(site: Site, plan: Plan, bridge: Bridge): void {
  const { device, ports } = bridge;
  for (const vid of tagsOf(plan)) {
    const members = ports.flatMap((port, i) => (isIn(bridge, i, vid) ? [port] : []));
    if (members.length === 0) continue;
    const wire = wireOf(bridge, vid);
    if (members.every(({ number }) => number === 0)) {
      deadInterface(site, device, vid);
      continue;
    }
    site.link(device, `link add name ${wire} type bridge`);
    site.link(device, `link set ${wire} up`);
    for (const { id, number } of members) {
      if (number === 0 || linksOf(plan).get(id)?.length) continue;
      // Something could be plugged in, so the port counts as up.
      const [here, there] = [`p${number}v${vid}`, openEnd(number, vid)];
      site.link(device, `link add ${here} type veth peer name ${there}`);
      for (const end of [here, there]) site.link(device, `link set ${end} up`);
      site.link(device, `link set ${here} master ${wire}`);
    }
  }
}

/** Where a tag on a cable ends at a port: the interface there, and the wire it belongs to; an end device has none. */
export function endOf(plan: Plan, id: string, tag: number, vid: number) {
  const { bridges, seats } = fabric(plan);
  const { device, number } = plan.port.get(id)!;
  const seat = seats.get(id);
  return seat
    ? { device, name: `p${number}t${tag}`, wire: wireOf(bridges[seat.bridge]!, vid) }
    : { device, name: tag === 0 ? `eth${number}` : `eth${number}.${tag}`, wire: null };
}

export function layCables(site: Site, plan: Plan): void {
  const done = new Set<string>();
  const lagOf = (id: string) => plan.port.get(id)!.lag;
  for (const links of linksOf(plan).values())
    for (const { from, to } of links) {
      // A bundle is one cable: the first that passes anything.
      const ends = lagOf(from) !== null && lagOf(to) !== null ? [lagOf(from), lagOf(to)] : [from, to];
      for (const tag of tagsOf(plan)) {
        const key = [...ends.sort(), tag].join(' ');
        if (done.has(key)) continue;
        const joined = wiresOf(plan, from, to, tag);
        if (joined === null || joined === 'one-way') continue;
        const [a, b] = [endOf(plan, from, tag, joined[0]), endOf(plan, to, tag, joined[1])];
        if (!site.has(a.device) || !site.has(b.device)) continue;
        done.add(key);
        site.cable(a.device, a.name, b.device, b.name);
        for (const { device, name, wire } of [a, b])
          if (wire !== null) site.link(device, `link set ${name} master ${wire}`);
      }
    }
}

/** An interface in a VLAN that no port carries: it may have an address, and no carrier. */
const deadInterface = (site: Site, device: string, vid: number): void => deadWire(site, device, `vlan${vid}`);
export function deadWire(site: Site, device: string, name: string): void {
  site.link(device, `link add name ${name} type veth peer name no-${name}`);
  site.link(device, `link set ${name} up`);
}

/** The interfaces of a box itself, one for each segment it has an address in. */
export function layInside(site: Site, plan: Plan, bridge: Bridge): void {
  const { device } = bridge;
  const made = new Set<string>();
  for (const item of interfacesOf(plan, device))
    for (const { address, subnet: id } of addressesOn(plan, item.id)) {
      const { vlan, prefix } = plan.subnet.get(id)!;
      const vid = bridge.box.vlanAware ? plan.vlan.get(vlan)!.vid : 0;
      const name = `vlan${vid}`;
      if (wireOf(bridge, vid) !== name && !made.has(name)) deadInterface(site, device, vid);
      made.add(name);
      site.link(
        device,
        `addr add ${formatAddress(address)}/${ownSettings(item, address).length ?? prefix.length} dev ${name}${nodad(address)}`,
      );
    }
}
