import { contains, familyOf, formatAddress, formatPrefix } from '../../address';
import {
  type Device,
  type Interface,
  type Plan,
  type Route,
  type Uplink,
  addressesOn,
  groupBy,
  interfacesOf,
} from '../../plan';
import { routersIn } from '../../model/routing';
import { legName, uplinkName } from '../interface-names';

/** The interfaces of a router as ifupdown reads them (interfaces(5)): legs as VLANs on one port, uplinks, routes. */

/** What carries the tagged legs; whoever puts the file there knows what the port is called. */
const CARRIER = 'lan0';

const stanza = (name: string, family: 4 | 6, method: string, lines: readonly string[]): string[] => [
  `iface ${name} ${family === 4 ? 'inet' : 'inet6'} ${method}`,
  ...lines.map((line) => `    ${line}`),
];

/** On which leg the next router of a route stands; none where this router reaches it nowhere. */
const legTo = (plan: Plan, legs: readonly Interface[], { via }: Route): string | undefined =>
  legs.find(({ id }) =>
    addressesOn(plan, id).some(({ subnet }) => {
      const { prefix } = plan.subnet.get(subnet)!;
      return familyOf(prefix.address) === familyOf(via) && contains(prefix, via);
    }),
  )?.id;

const routeLine = ({ prefix, via }: Route): string =>
  `ip route add ${formatPrefix(prefix)} via ${formatAddress(via)}`;

function leg(plan: Plan, item: Interface, routes: readonly Route[]): string[] {
  const { vid, name: segment } = plan.vlan.get(item.vlan!)!;
  const own = addressesOn(plan, item.id);
  const fixed = own.filter(({ assignment }) => assignment !== 'virtual');
  if (fixed.length === 0) return [];
  const name = legName(plan, item.device, item.vlan!);
  const moving = own.filter(({ assignment }) => assignment === 'virtual');
  return [
    `# ${segment}, VLAN ${vid}`,
    ...moving.map(({ address }) => `# ${formatAddress(address)} is with the active router: VRRP sees to it`),
    `auto ${name}`,
    ...fixed.flatMap(({ address, subnet }, at) => {
      const length = item.ownLength ?? plan.subnet.get(subnet)!.prefix.length;
      const family = familyOf(address);
      const made = [
        `pre-up ip link add link ${CARRIER} name ${name} type vlan id ${vid}`,
        `post-down ip link del ${name}`,
      ];
      const ways = at === 0 ? routes.map((route) => `up ${routeLine(route)}`) : [];
      return stanza(name, family, 'static', [
        `address ${formatAddress(address)}/${length}`,
        ...(at === 0 ? made : []),
        ...ways,
      ]);
    }),
    '',
  ];
}

function outside(plan: Plan, uplink: Uplink, at: number): string[] {
  const bare = uplinkName(plan, uplink, at);
  const name = uplink.providerVlan === null ? bare : `${bare}.${uplink.providerVlan}`;
  const mtu = uplink.mtu === null ? [] : [`up ip link set ${name} mtu ${uplink.mtu}`];
  const { address, network } = uplink;
  const head = [`# ${uplink.name}`, `auto ${name}`];
  if (uplink.addressing === 'pppoe')
    return [
      ...head,
      '# It dials in by PPPoE; its login is kept elsewhere',
      ...stanza(name, 4, 'manual', mtu),
      '',
    ];
  if (uplink.addressing === 'dhcp') return [...head, ...stanza(name, 4, 'dhcp', mtu), ''];
  if (address === null || network === null)
    return [...head, '# Its address is not recorded', ...stanza(name, 4, 'manual', mtu), ''];
  return [
    ...head,
    '# The next router is the one the provider names',
    ...stanza(name, familyOf(address), 'static', [
      `address ${formatAddress(address)}/${network.length}`,
      ...mtu,
    ]),
    '',
  ];
}

/** An interfaces file; null for a device that is no router of the site. */
export function interfacesFile(plan: Plan, device: Device): string | null {
  const router = routersIn(plan).get(device.id);
  const legs = interfacesOf(plan, device.id).filter(({ vlan }) => vlan !== null);
  if (!router) return null;
  const routes = groupBy(router.statics, (route) => legTo(plan, legs, route));
  const lost = routes.get(undefined) ?? [];
  return [
    `# Interfaces of ${device.name}; its legs are VLANs on ${CARRIER}`,
    'auto lo',
    'iface lo inet loopback',
    '',
    `auto ${CARRIER}`,
    ...stanza(CARRIER, 4, 'manual', []),
    '',
    ...legs.flatMap((item) => leg(plan, item, routes.get(item.id) ?? [])),
    ...router.uplinks.flatMap((uplink, at) => outside(plan, uplink, at)),
    ...lost.map((route) => `# Nothing of this router reaches the next one: ${routeLine(route)}`),
    '',
  ].join('\n');
}
