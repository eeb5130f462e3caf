import * as z from 'zod';
import { type IpAddress, contains, formatAddress, formatPrefix } from '../../address';
import {
  type Address,
  type Device,
  type Draft,
  type Subnet,
  Refusal,
  addressCodec,
  addressesOn,
  interfacesOf,
  operation,
} from '../../plan';
import { nextFreeAddress } from '../../model/hosts';
import { insertCard } from './network-interface';

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
  if (wanted !== null && !contains(subnet.prefix, wanted))
    throw new Refusal(
      'bad-input',
      `${formatAddress(wanted)} lies outside ${formatPrefix(subnet.prefix)}; write an address inside it or leave the field empty for the next free one.`,
      [],
      ['address'],
    );
  const address = wanted ?? nextFreeAddress(draft.plan, subnet, device.kind, 'static');
  if (address === null)
    throw new Refusal(
      'no-room',
      `${formatPrefix(subnet.prefix)} has no free address left; grow it or shorten its pool.`,
      [],
      ['address'],
    );
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
