import { type IpAddress, type Prefix, contains, covers, networkOf, prefixFamily } from '../../address';
import {
  type Draft,
  type Interface,
  type Plan,
  type Subnet,
  type Uplink,
  Refusal,
  addressesOn,
  siteOf,
  subnetsOf,
} from '../../plan';
import { habitualGateway, isUntaken, vlanIdPlace64 } from '../../model/segments';
import { insertAddress } from '../hosts/add-address';
import { insertSubnet } from '../segments/operations';

/** What a device needs to be reached over IPv6: a subnet of the prefix that its provider delegates, and an address in it. */

/** The addresses of a card that the provider brings packets to. */
export const routedSixOf = (plan: Plan, item: Interface, { delegated }: Uplink): IpAddress[] =>
  addressesOn(plan, item.id)
    .map(({ address }) => address)
    .filter((address) => delegated !== null && contains(delegated, address));

/** A /64 of the delegated prefix that nothing touches: the one of the VLAN id where it is free, else the first. */
export function freePlace64(plan: Plan, delegated: Prefix, vid: number): Prefix | null {
  // A plan file may say anything.
  if (prefixFamily(delegated) === 4) return null;
  const byId = vlanIdPlace64({ space: [delegated] }, vid);
  if (byId && isUntaken(plan, byId)) return byId;
  // No site has more segments than VLAN ids.
  for (let n = 0n; n < 4096n; n++) {
    const place = networkOf((delegated.address as bigint) + (n << 64n), 64);
    if (!covers(delegated, place)) return null;
    if (isUntaken(plan, place)) return place;
  }
  return null;
}

/** The subnet of the delegated prefix in a segment, made where there is none. */
function subnetFor(draft: Draft, vlan: string, uplink: Uplink): Subnet {
  const { delegated, name } = uplink;
  if (delegated === null)
    throw new Refusal(
      'bad-input',
      `${name} delegates no IPv6 prefix; record it at the uplink, or choose another way.`,
      [{ table: 'uplink', id: uplink.id }],
    );
  const known = subnetsOf(draft.plan, vlan).find(({ prefix }) => covers(delegated, prefix));
  if (known) return known;
  const place = freePlace64(draft.plan, delegated, draft.need('vlan', vlan).vid);
  if (!place)
    throw new Refusal(
      'no-room',
      `The prefix that ${name} delegates has no free /64 left; ask for a shorter prefix.`,
    );
  return insertSubnet(draft, vlan, place, habitualGateway(siteOf(draft.plan), place), null);
}

/** The addresses by which a card is reached over IPv6; where it has none yet, what it needs is made. */
export function reachableSix(draft: Draft, item: Interface, uplink: Uplink): IpAddress[] {
  const known = routedSixOf(draft.plan, item, uplink);
  if (known.length > 0) return known;
  const device = draft.need('device', item.device);
  const [home] = addressesOn(draft.plan, item.id);
  if (!home)
    throw new Refusal(
      'bad-input',
      `${device.name} has no address; give it one under Addresses first.`,
      [],
      ['target'],
    );
  const { vlan } = draft.need('subnet', home.subnet);
  return [insertAddress(draft, device, subnetFor(draft, vlan, uplink), null).address];
}
