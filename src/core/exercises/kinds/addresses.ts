import { familyOf, formatAddress, contains, formatPrefix, networkOf } from '../../address';
import { type Plan, type Interface, addressesOf, gatewaysOf, subnetOf } from '../../plan';
import type { FaultKind, Spot } from '../kind';
import { type Placed, devicesIn, endDevices, freeIn, otherSegments } from '../places';

/** Faults in the addresses and settings of devices. */

const since = 'since a device was exchanged';
const kind = (
  id: string,
  level: FaultKind['level'],
  of: (plan: Plan, placed: Placed) => Spot | null,
): FaultKind => ({
  id,
  level,
  station: 'addresses',
  since,
  spots: (plan) =>
    endDevices(plan).flatMap((placed) => {
      // IPv6 hosts mostly set themselves; what people type wrong is IPv4.
      const spot = familyOf(placed.address.address) === 4 ? of(plan, placed) : null;
      return spot ? [spot] : [];
    }),
});

const cardSpot = (
  plan: Plan,
  { device, address }: Placed,
  told: string,
  set: Partial<Interface>,
): Spot | null =>
  Object.keys(set).some((field) => plan.interface.get(address.interface)![field as keyof Interface] !== null)
    ? null
    : { told, near: [device.id], edit: (draft) => draft.update('interface', address.interface, set) };

const addressTwice = kind('address-twice', 2, (plan, { device, address, subnet }) => {
  const others = addressesOf(plan, subnet.id).filter(
    (other) => !other.gateway && other.interface !== address.interface && other.assignment !== 'virtual',
  );
  const other = others.find(({ id }) => id > address.id) ?? others[0];
  if (!other || address.assignment === 'virtual') return null;
  const rival = plan.interface.get(other.interface)!.device;
  return {
    told: `${device.name} was given ${formatAddress(other.address)}, which ${plan.device.get(rival)!.name} has.`,
    near: [device.id, rival],
    edit: (draft) => draft.update('address', address.id, { address: other.address }),
  };
});

const addressElsewhere = kind('address-elsewhere', 1, (plan, { device, address, subnet }) => {
  const other = otherSegments(plan, subnet.vlan)
    .map(({ id }) => subnetOf(plan, id, 4))
    .find((found) => found && !contains(found.prefix, address.address));
  const free = other && freeIn(plan, other);
  if (!other || free === null || free === undefined) return null;
  return {
    told: `${device.name} was given ${formatAddress(free)}, an address of ${formatPrefix(other.prefix)}; it lives in ${formatPrefix(subnet.prefix)}.`,
    near: [device.id],
    edit: (draft) => draft.update('address', address.id, { address: free }),
  };
});

/** A mask by which the gateway is in another network than the device. */
const maskWrong = kind('mask-wrong', 2, (plan, placed) => {
  const { device, address, subnet } = placed;
  const gateway = gatewaysOf(plan, subnet.id)[0];
  if (!gateway) return null;
  for (let length = subnet.prefix.length + 1; length <= 30; length++)
    if (!contains(networkOf(address.address, length), gateway.address))
      return cardSpot(
        plan,
        placed,
        `${device.name} has the mask /${length} instead of /${subnet.prefix.length}: its gateway is outside of what it believes to be its network.`,
        { ownLength: length },
      );
  return null;
});

const gatewayWrong = kind('gateway-wrong', 1, (plan, placed) => {
  const { device, subnet } = placed;
  const gateway = gatewaysOf(plan, subnet.id)[0];
  const free = gateway && freeIn(plan, subnet);
  if (free === null || free === undefined) return null;
  return cardSpot(
    plan,
    placed,
    `${device.name} has ${formatAddress(free)} as its gateway instead of ${formatAddress(gateway!.address)}; nobody has that address.`,
    { ownGateway: free },
  );
});

const gatewayMissing = kind('gateway-missing', 2, (plan, placed) =>
  gatewaysOf(plan, placed.subnet.id).length === 0
    ? null
    : cardSpot(plan, placed, `${placed.device.name} has no gateway set: it answers only its own network.`, {
        ownGateway: 0,
      }),
);

const dnsWrong = kind('dns-wrong', 2, (plan, placed) => {
  const free = freeIn(plan, placed.subnet);
  return free === null || placed.subnet.dns.length === 0
    ? null
    : cardSpot(
        plan,
        placed,
        `${placed.device.name} asks ${formatAddress(free)} for names; nobody is there.`,
        { ownDns: [free] },
      );
});

const segmentDnsWrong: FaultKind = {
  id: 'segment-dns-wrong',
  level: 2,
  station: 'segments',
  since: 'since the names were moved to another server',
  spots: (plan) =>
    [...plan.subnet.values()].flatMap((subnet): Spot[] => {
      const free = familyOf(subnet.prefix.address) === 4 ? freeIn(plan, subnet) : null;
      if (free === null || subnet.dns.length === 0) return [];
      return [
        {
          told: `${formatPrefix(subnet.prefix)} tells its devices to ask ${formatAddress(free)} for names; nobody is there.`,
          near: devicesIn(plan, subnet.id).slice(0, 6),
          edit: (draft) => draft.update('subnet', subnet.id, { dns: [{ literal: free }] }),
        },
      ];
    }),
};

export const addressKinds: readonly FaultKind[] = [
  addressTwice,
  addressElsewhere,
  maskWrong,
  gatewayWrong,
  gatewayMissing,
  dnsWrong,
  segmentDnsWrong,
];
