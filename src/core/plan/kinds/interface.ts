import { address, addresses, mac, note, oneOf, ref, whole } from './fields';
import { kind, nameOf } from './kind';

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
  title: ({ device, vlan }, plan) =>
    `${nameOf(plan, 'device', device, 'interface')}${vlan ? ` in ${nameOf(plan, 'vlan', vlan, 'a segment')}` : ''}`,
});
