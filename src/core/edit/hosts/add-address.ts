import * as z from 'zod';
import { type IpAddress, formatAddress } from '../../address';
import {
  type Address,
  type Device,
  type Draft,
  type Subnet,
  addressCodec,
  addressesOn,
  interfacesOf,
  operation,
} from '../../plan';
import { insertCard } from './network-interface';
import { freeIn, requireInside } from './operations';

/** One more address for a device that has one: IPv6 beside IPv4, or a second network card in another segment. */

/** The card of a device in the segment of a subnet, a new one where it has none there. */
function cardFor(draft: Draft, device: Device, subnet: Subnet): string {
  const { plan } = draft;
  const here = interfacesOf(plan, device.id).find((item) =>
    addressesOn(plan, item.id).some(({ subnet: id }) => plan.subnet.get(id)!.vlan === subnet.vlan),
  );
  return (here ?? insertCard(draft, device.id)).id;
}

export function insertAddress(
  draft: Draft,
  device: Device,
  subnet: Subnet,
  wanted: IpAddress | null,
): Address {
  if (wanted !== null) requireInside(subnet, wanted);
  const address = wanted ?? freeIn(draft.plan, subnet, device.kind, 'static');
  return draft.insert('address', {
    subnet: subnet.id,
    address,
    interface: cardFor(draft, device, subnet),
    assignment: 'static',
    gateway: false,
    note: '',
  });
}

export const addAddress = operation(
  'addAddress',
  z.strictObject({
    device: z.string(),
    subnet: z.string(),
    /** Null for the next free one. */
    address: addressCodec.nullable().default(null),
  }),
  (draft, { device: id, subnet: wanted, address }) => {
    const device = draft.need('device', id);
    const subnet = draft.need('subnet', wanted);
    const { name } = draft.need('vlan', subnet.vlan);
    const made = insertAddress(draft, device, subnet, address);
    return `${device.name}: ${formatAddress(made.address)} in ${name} as well`;
  },
);
