import { type Family, type IpAddress, familyOf, formatAddress } from '../../address';
import { address, addresses, mac, note, oneOf, ref, whole } from './fields';
import { kind, nameOf } from './kind';

/** What is set on a card and none of its addresses would use; null where each is used, or there is no address yet. */
export function settingOfOtherFamily(
  families: readonly Family[],
  { ownLength, ownGateway }: { readonly ownLength: number | null; readonly ownGateway: IpAddress | null },
) {
  const unused = (family: Family) => families.length > 0 && !families.includes(family);
  const said = (what: string, family: Family) =>
    `${what} of IPv${family}, and the card has no IPv${family} address that would use it.`;
  const ofLength = ownLength !== null && ownLength > 32 ? 6 : 4;
  if (ownLength !== null && unused(ofLength))
    return { field: 'ownLength', message: said(`/${ownLength} is a mask`, ofLength) } as const;
  return ownGateway !== null && unused(familyOf(ownGateway))
    ? ({
        field: 'ownGateway',
        message: said(`${formatAddress(ownGateway)} is an address`, familyOf(ownGateway)),
      } as const)
    : null;
}

/** A network card of a device, or a routing device’s place in a VLAN. */
export const networkInterface = kind({
  word: 'network card',
  about: 'a network card, or a routing device’s interface in a VLAN; MAC; settings really set on it',
  since: 1,
  table: 'interface',
  bucket: 'spread',
  indexes: { device: ({ device }) => device, mac: ({ mac }) => mac },
  fields: {
    device: ref('device', 'removed', 'device'),
    kind: oneOf('kind', ['nic', 'vlan']),
    /** The VLAN a routing device serves with this interface; null for the network card of an end device. */
    vlan: ref('vlan', 'removed', 'segment').nullable(),
    mac: mac('MAC address').nullable(),
    /** Name of the interface in the configuration; empty when nobody recorded it. */
    name: note('name', 60, { said: 'The interface name' }),
    /** Settings really on the device where they differ from the subnet’s; null means the subnet’s. */
    ownLength: whole('own mask', 0, 128, { said: 'The mask length' }).nullable(),
    ownGateway: address('own gateway').nullable(),
    ownDns: addresses('own DNS').nullable(),
    /** The wireless network it is on; null for a card with a cable. */
    joins: ref('ssid', 'cleared', 'wireless network', { since: 8, edited: true }).nullable().default(null),
  },
  refused: ({ id, ...own }, plan) =>
    settingOfOtherFamily(
      (plan.address!.by('interface', id) as readonly { readonly address: IpAddress }[]).map(
        ({ address: one }) => familyOf(one),
      ),
      own,
    ),
  title: ({ device, vlan }, plan) =>
    `${nameOf(plan, 'device', device, 'interface')}${vlan ? ` in ${nameOf(plan, 'vlan', vlan, 'a segment')}` : ''}`,
});
