import { type Family, type IpAddress, compareAddresses, familyOf, prefixFamily } from '../address';
import type { Collection, Group } from './collection';
import { derive } from './derive';
import { memo } from './memo';
import { pick } from './pick';
import type { Plan } from './plan';
import type { Address, Device, Interface, Subnet, Vlan } from './records';

/** Reading the plan across records: who has which, by id, MAC, name or address. All memoised by bucket. */

const byRank = (a: Vlan, b: Vlan) => (a.rank < b.rank ? -1 : a.rank > b.rank ? 1 : a.id < b.id ? -1 : 1);
const vlansInOrder = memo((vlans: Collection<Vlan>) => [...vlans.values()].sort(byRank));
/** The VLANs in the order the user gave them. */
export const vlansOf = (plan: Plan): readonly Vlan[] => vlansInOrder(plan.vlan);

const OF_VLAN = ['id', 'lan', 'vid', 'purpose', 'internet'] as const satisfies readonly (keyof Vlan)[];
/** What of a VLAN decides something: neither what people call it nor how many are in it. */
export type PlainVlan = Pick<Vlan, (typeof OF_VLAN)[number]>;
const plainVlan = memo((vlan: Vlan): PlainVlan => pick(vlan, OF_VLAN));
/** The VLANs in order, for whoever does not say their names. */
export const plainVlansOf = derive((plan): readonly PlainVlan[] => vlansOf(plan).map(plainVlan));

export const subnetsOf = (plan: Plan, vlan: string): readonly Subnet[] => plan.subnet.by('vlan', vlan);
/** The first subnet of a VLAN in one address family; the one a segment shows. */
export const subnetOf = (plan: Plan, vlan: string, family: Family): Subnet | undefined =>
  subnetsOf(plan, vlan).find((subnet) => prefixFamily(subnet.prefix) === family);

const sortedAddresses = memo((group: Group<Address>) =>
  [...group.values()].sort((a, b) => compareAddresses(a.address, b.address) || (a.id < b.id ? -1 : 1)),
);
/** The addresses recorded in a subnet, ascending. */
export const addressesOf = (plan: Plan, subnet: string): readonly Address[] =>
  sortedAddresses(plan.address.group(subnet));

const gatewayAddresses = memo((group: Group<Address>) =>
  sortedAddresses(group).filter((address) => address.gateway),
);
export const gatewaysOf = (plan: Plan, subnet: string): readonly Address[] =>
  gatewayAddresses(plan.address.group(subnet));

/** Every address on an interface, in any subnet. */
export const addressesOn = (plan: Plan, interfaceId: string): readonly Address[] =>
  plan.address.by('interface', interfaceId);

export const interfacesOf = (plan: Plan, device: string): readonly Interface[] =>
  plan.interface.by('device', device);

export const interfacesWithMac = (plan: Plan, mac: string): readonly Interface[] =>
  plan.interface.by('mac', mac);

/** Devices of a name; names compare without regard to case (RFC 4343). */
export const devicesNamed = (plan: Plan, name: string): readonly Device[] =>
  plan.device.by('name', name.toLowerCase());

const ROUTING = new Set(['gateway', 'layer3-switch']);
const routersIn = memo((group: Group<Device>) =>
  [...group.values()].filter((device) => ROUTING.has(device.kind)),
);
/** Devices that route between segments, gateways first. */
export const routersOf = derive((plan): readonly Device[] => {
  const found: Device[] = [];
  for (const group of plan.device.allGroups()) found.push(...routersIn(group));
  const order = (device: Device) => `${device.kind === 'gateway' ? 0 : 1}${device.name}`;
  return found.sort((a, b) => (order(a) < order(b) ? -1 : 1));
});

/** The address of a recorded DNS server or other interface, in one family; null when it has none. */
export const interfaceAddress = (plan: Plan, interfaceId: string, family: Family): Address | null =>
  addressesOn(plan, interfaceId).find(
    (address) => (typeof address.address === 'number' ? 4 : 6) === family && address.assignment !== 'virtual',
  ) ?? null;

/** The DNS servers of a subnet by address, in its family; those that have none there are left out. */
export const dnsOf = (plan: Plan, subnet: Subnet): IpAddress[] =>
  subnet.dns.flatMap((server) => {
    const family = prefixFamily(subnet.prefix);
    if ('literal' in server) return familyOf(server.literal) === family ? [server.literal] : [];
    const address = interfaceAddress(plan, server.interface, family);
    return address ? [address.address] : [];
  });

/** The device an address belongs to. References are kept by the database, so it is there. */
export function hostOf(
  plan: Plan,
  address: Pick<Address, 'interface'>,
): { readonly interface: Interface; readonly device: Device } {
  const item = plan.interface.get(address.interface)!;
  return { interface: item, device: plan.device.get(item.device)! };
}

/** The domain names in a subnet belong to: its own, else the site's. */
export const domainOf = (plan: Plan, subnet: Subnet): string =>
  subnet.domain || plan.site.get('site')!.domain;
