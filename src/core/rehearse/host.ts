import {
  type Family,
  type IpAddress,
  addOffset,
  compareAddresses,
  familyOf,
  type Prefix,
  contains,
  overlaps,
  parsePrefix,
  prefixFamily,
  usableRange,
  type AddressRange,
  inRange,
} from '../address';
import {
  type Plan,
  type Address,
  type Device,
  type Port,
  type Subnet,
  type Uplink,
  addressesOf,
  derive,
  gatewaysOf,
  hostOf,
  subnetOf,
  subnetsOf,
  type RecordRef,
} from '../plan';
import { ownSettings } from '../model/hosts';
import { uplinksOf } from '../model/uplink';
import { linksOf } from '../model/wiring';
import { fabric } from '../model/switching';
import { type Place, placeOf } from './frames';

/** Who sends and receives packets, with the settings each really has. */
export interface Host {
  readonly title: string;
  readonly device: Device | null;
  readonly place: Place;
  /** The segment its address is of. */
  readonly vlan: string;
  readonly address: IpAddress;
  /** The network it believes to be in. */
  readonly length: number;
  /** Null: it has none, and answers only its own network. */
  readonly gateway: IpAddress | null;
  /** The record of these settings; null for a laptop that takes what it is given. */
  readonly on: RecordRef | null;
  /** The settings were set on the device, against those of its subnet. */
  readonly own: boolean;
}

const gatewayOf = (plan: Plan, subnet: string): IpAddress | null =>
  gatewaysOf(plan, subnet)[0]?.address ?? null;

export function hostAt(plan: Plan, address: Address): Host {
  const { interface: item, device } = hostOf(plan, address);
  const subnet = plan.subnet.get(address.subnet)!;
  const { gateway, length } = ownSettings(item, address.address);
  return {
    title: device.name,
    device,
    place: placeOf(plan, device.id),
    vlan: subnet.vlan,
    address: address.address,
    length: length ?? subnet.prefix.length,
    gateway: gateway === undefined ? gatewayOf(plan, subnet.id) : gateway,
    on: { table: 'interface', id: item.id },
    own: gateway !== undefined || length !== undefined,
  };
}

/** How many addresses are tried at most: enough for any pool that is not absurd. */
const TRIED = 70_000;

/** The first address of a range that nobody has, nothing keeps out and is none of `but`. */
function freeBut(
  plan: Plan,
  subnet: Subnet,
  range: AddressRange,
  but: ReadonlySet<IpAddress | null>,
): IpAddress | null {
  const taken = new Set(addressesOf(plan, subnet.id).map(({ address }) => address));
  const excluded = [...plan.exclusion.group(subnet.id).values()];
  for (let at: IpAddress = range.start, n = 0; at <= range.end && n < TRIED; at = addOffset(at, 1), n++)
    if (!but.has(at) && !taken.has(at) && !excluded.some((part) => inRange(part, at))) return at;
  return null;
}

/** Where a lease in a subnet comes from: its pools, else whatever is free in it. */
function leasable(plan: Plan, subnet: Subnet): AddressRange[] {
  const pools = [...plan.pool.group(subnet.id).values()].sort((a, b) => compareAddresses(a.start, b.start));
  const { first, last } = usableRange(subnet.prefix);
  return [...pools, { start: first, end: last }];
}

function leasedBut(plan: Plan, subnet: Subnet, but: ReadonlySet<IpAddress | null>): IpAddress | null {
  for (const range of leasable(plan, subnet)) {
    const free = freeBut(plan, subnet, range, but);
    if (free !== null) return free;
  }
  return null;
}

/** The address that each router behind a router is leased there, by uplink; no two have one. */
const leasedOutside = derive((plan): ReadonlyMap<string, IpAddress> => {
  const found = new Map<string, IpAddress>();
  for (const uplink of uplinksOf(plan)) {
    const subnet = uplink.address === null ? outerSubnet(plan, uplink) : undefined;
    const address = subnet && leasedBut(plan, subnet, new Set(found.values()));
    if (address !== undefined && address !== null) found.set(uplink.id, address);
  }
  return found;
});

const leasedAnd = (plan: Plan, but: IpAddress | null): ReadonlySet<IpAddress | null> =>
  new Set([...leasedOutside(plan).values(), but]);

/**
 * The first address of a range that nobody has, nothing keeps out and no router behind a router is leased; `but` is somebody’s who
 * is not in the plan.
 */
export const firstFree = (
  plan: Plan,
  subnet: Subnet,
  range: AddressRange,
  but: IpAddress | null = null,
): IpAddress | null => freeBut(plan, subnet, range, leasedAnd(plan, but));

/** The address a newcomer is likely to get: the first of the pools that nobody has, else the first free in the subnet. */
export const newcomerAddress = (plan: Plan, subnet: Subnet, but: IpAddress | null = null): IpAddress | null =>
  leasedBut(plan, subnet, leasedAnd(plan, but));

/** Does somebody new get an address there? Of IPv6 it makes one in an announced /64 (RFC 4862), or is leased one. */
const isGivenAway = (plan: Plan, { id, prefix, advertised }: Subnet): boolean =>
  prefixFamily(prefix) === 4 || (advertised && prefix.length === 64) || plan.pool.group(id).size > 0;

/** The subnet of a segment in which somebody new gets an address. */
const subnetFor = (plan: Plan, vlan: string, family?: Family): Subnet | undefined =>
  family ? subnetOf(plan, vlan, family) : (subnetOf(plan, vlan, 4) ?? subnetsOf(plan, vlan)[0]);

/**
 * Somebody new in a segment, with what its DHCP hands out, other than the address `but`; null where the segment has no
 * addresses.
 */
export function newcomer(
  plan: Plan,
  vlan: string,
  place: Place,
  title: string,
  family?: Family,
  but: IpAddress | null = null,
): Host | null {
  const subnet = subnetFor(plan, vlan, family);
  const address = subnet && newcomerAddress(plan, subnet, but);
  if (!subnet || address === null || address === undefined) return null;
  if (!isGivenAway(plan, subnet)) return null;
  // Only a router says over IPv6 who is the router.
  const gateway = subnet.advertised || prefixFamily(subnet.prefix) === 4 ? gatewayOf(plan, subnet.id) : null;
  return {
    title,
    device: null,
    place,
    vlan,
    address,
    length: subnet.prefix.length,
    gateway,
    on: null,
    own: false,
  };
}

/** The address of somebody who is in a subnet already, and is no gateway. */
export const residentIn = (plan: Plan, { id }: Subnet, but: IpAddress | null = null): Address | undefined =>
  [...plan.address.group(id).values()].find(({ gateway, address }) => !gateway && address !== but);

/** Somebody who is in a segment where no address is left for a newcomer; null where one is, or nobody is there. */
export function residentWhereFull(
  plan: Plan,
  vlan: string,
  family?: Family,
  but: IpAddress | null = null,
): Host | null {
  const subnet = subnetFor(plan, vlan, family);
  if (!subnet || newcomerAddress(plan, subnet, but) !== null) return null;
  const resident = residentIn(plan, subnet, but);
  return resident ? hostAt(plan, resident) : null;
}

const TEST_NETS = ['198.51.100.0/24', '203.0.113.0/24', '192.0.2.0/24'].map(
  (text) => parsePrefix(text)!.prefix,
);

/** An address that stands for "somewhere in the Internet" (RFC 5737): in no network the plan speaks of. */
export function farAddress(plan: Plan, family: Family = 4): IpAddress {
  if (family === 6) return parsePrefix('2001:db8:ffff:ffff::77/128')!.prefix.address;
  const used: Prefix[] = [
    ...[...plan.subnet.values()].map(({ prefix }) => prefix),
    ...[...plan.tunnel.values()].flatMap(({ remote }) => remote),
  ];
  const free = TEST_NETS.find((net) => !used.some((prefix) => overlaps(prefix, net))) ?? TEST_NETS[0]!;
  return addOffset(free.address, 77);
}

/** The network of this site that the outside of a router behind a router stands in. */
const outerSubnet = (plan: Plan, uplink: Uplink): Subnet | undefined =>
  uplink.segment === null
    ? undefined
    : subnetsOf(plan, uplink.segment).find(({ prefix }) =>
        uplink.address === null ? familyOf(prefix.address) === 4 : contains(prefix, uplink.address),
      );

/**
 * The outside address of an uplink. Where it is not recorded: one it would be leased behind another router of the site,
 * else one that stands for it.
 */
export const outsideAddress = (plan: Plan, uplink: Uplink): IpAddress =>
  (typeof uplink.address === 'number' ? uplink.address : null) ??
  leasedOutside(plan).get(uplink.id) ??
  addOffset(farAddress(plan), 1 + uplinksOf(plan).findIndex(({ id }) => id === uplink.id));

/** The outside of a router that stands behind another: a host of the segment it stands in. */
export function outsideHost(plan: Plan, uplink: Uplink): Host | null {
  if (uplink.segment === null) return null;
  const device = plan.device.get(uplink.device)!;
  const far = uplink.port === null ? undefined : (linksOf(plan).get(uplink.port) ?? [])[0]?.to;
  const seat: Port | undefined = far && fabric(plan).seats.has(far) ? plan.port.get(far) : undefined;
  const place: Place = seat ? { kind: 'plug', port: seat } : { kind: 'assumed', device: device.id };
  const subnet = outerSubnet(plan, uplink);
  if (!subnet) return null;
  const address = outsideAddress(plan, uplink);
  if (!contains(subnet.prefix, address)) return null;
  return {
    title: `${device.name} outside`,
    device,
    place,
    vlan: uplink.segment,
    address,
    length: subnet.prefix.length,
    gateway: gatewayOf(plan, subnet.id),
    on: { table: 'uplink', id: uplink.id },
    own: false,
  };
}
