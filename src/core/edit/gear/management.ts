import * as z from 'zod';
import { formatAddress } from '../../address';
import { insertCard, subnetsSettings } from '../hosts/network-interface';
import { nextFreeAddress } from '../../model/hosts';
import {
  boxOf,
  operation,
  type Plan,
  type Device,
  type Subnet,
  Refusal,
  interfacesOf,
  subnetOf,
  plainVlansOf,
  type DeviceKind,
  deriveBy,
} from '../../plan';

/** Where boxes are managed: the subnet of the first management segment. */
export function managementSubnet(plan: Plan): Subnet | undefined {
  const vlan = plainVlansOf(plan).find((item) => item.purpose === 'management');
  return vlan && subnetOf(plan, vlan.id, 4);
}

/** Is there an address in it for another device of a kind? */
export const hasOwnFreeAddress = (plan: Plan, { kind }: Device): boolean => isFreeFor(plan, kind);
const isFreeFor = deriveBy((plan, kind: DeviceKind): boolean => {
  const subnet = managementSubnet(plan);
  return subnet !== undefined && nextFreeAddress(plan, subnet, kind, 'static') !== null;
});

/** Gives a box that has no address the next free one of the management segment. */
export const addressBox = operation('addressBox', z.strictObject({ device: z.string() }), (draft, input) => {
  const device = draft.need('device', input.device);
  const subnet = managementSubnet(draft.plan);
  if (!subnet)
    throw new Refusal(
      'no-room',
      'There is no management segment with a subnet; add one under Segments first.',
    );
  const address = nextFreeAddress(draft.plan, subnet, device.kind, 'static');
  if (address === null)
    throw new Refusal('no-room', `The management segment has no free address left for ${device.name}.`);
  const known = interfacesOf(draft.plan, device.id)[0];
  // Settings that differ belonged to the subnet it was in.
  const card = known
    ? draft.update('interface', known.id, subnetsSettings)
    : insertCard(draft, device.id, { mac: boxOf(draft.plan, device.id)?.baseMac ?? null });
  draft.insert('address', {
    subnet: subnet.id,
    address,
    interface: card.id,
    assignment: 'static',
    gateway: false,
    note: '',
  });
  return `${device.name}: managed at ${formatAddress(address)}`;
});
