import { formatAddress, formatPrefix, maskOf } from '../../address';
import {
  type Address,
  type Plan,
  addressesOf,
  addressesOn,
  boxOf,
  dnsOf,
  domainOf,
  gatewaysOf,
  hostOf,
  interfacesOf,
  subnetsOf,
} from '../../plan';
import { leaseWords } from '../../formats';
import { macOf } from '../../model/guards';
import { uplinksOf } from '../../model/uplink';
import type { Management } from '../state';
import { type SettingLine, differing, line, vlanText } from './page';

/** Where a box is found, what it serves, and where it sends what it does not know. */

const addressText = (plan: Plan, { address, subnet }: Address): string => {
  const { length } = plan.subnet.get(subnet)!.prefix;
  return typeof address === 'bigint'
    ? `${formatAddress(address)}/${length}`
    : `${formatAddress(address)}, mask ${maskOf(length)}`;
};
const held = (plan: Plan, device: string): readonly Address[] =>
  interfacesOf(plan, device).flatMap(({ id }) => addressesOn(plan, id));

/** Its own way out, where it routes nothing itself. */
function gatewayOf(plan: Plan, device: string, own: Address): string {
  const { ownGateway } = plan.interface.get(own.interface)!;
  const gateway = ownGateway ?? gatewaysOf(plan, own.subnet)[0]?.address ?? null;
  const isItself = gateway !== null && held(plan, device).some(({ address }) => address === gateway);
  return gateway === null || isItself ? '' : formatAddress(gateway);
}

export function managementLines(plan: Plan, device: string, then: Management | null): SettingLine[] {
  const own = held(plan, device).find(({ address }) => address === then?.address);
  if (!then || !own) return [];
  const gateway = gatewayOf(plan, device, own);
  const dns = dnsOf(plan, plan.subnet.get(own.subnet)!).map(formatAddress).join(', ');
  return [
    line('Management address', addressText(plan, own)),
    line('Management VLAN', String(then.vid)),
    ...(gateway === '' ? [] : [line('Gateway', gateway)]),
    ...(dns === '' ? [] : [line('DNS servers', dns)]),
  ];
}

const vidOf = (plan: Plan, subnet: string): number => plan.vlan.get(plan.subnet.get(subnet)!.vlan)!.vid;

/** Every other address it has. */
export const addressLines = (plan: Plan, device: string, management: Management | null): SettingLine[] =>
  held(plan, device)
    .filter(({ address }) => address !== management?.address)
    .toSorted((a, b) => vidOf(plan, a.subnet) - vidOf(plan, b.subnet))
    .map((own) =>
      line(
        `In ${vlanText(plan, plan.subnet.get(own.subnet)!.vlan)}`,
        `${addressText(plan, own)}${own.assignment === 'virtual' ? ', shared with its partner' : ''}`,
      ),
    );

const SERVES_AS_IT_COMES: readonly string[] = ['gateway', 'access-point', 'provider-box'];

export function dhcpLines(plan: Plan, device: string): SettingLine[] {
  const cards = new Set(interfacesOf(plan, device).map(({ id }) => id));
  const pools = [...plan.pool.values()].filter(({ servedBy }) => servedBy.some((id) => cards.has(id)));
  const subnets = [...new Set(pools.map(({ subnet }) => subnet))]
    .map((id) => plan.subnet.get(id)!)
    .sort((a, b) => vidOf(plan, a.id) - vidOf(plan, b.id));
  const served = subnets.flatMap((subnet) => {
    const name = `${vlanText(plan, subnet.vlan)}:`;
    const ranges = pools.filter((pool) => pool.subnet === subnet.id);
    const [gateway] = gatewaysOf(plan, subnet.id);
    const dns = dnsOf(plan, subnet).map(formatAddress).join(', ');
    const domain = domainOf(plan, subnet);
    const kept = [...plan.exclusion.values()].filter((one) => one.subnet === subnet.id);
    const fixed = addressesOf(plan, subnet.id).filter(({ assignment }) => assignment === 'reservation');
    return [
      ...ranges.map(({ start, end, lease }) =>
        line(`${name} pool`, `${formatAddress(start)} to ${formatAddress(end)}, lease ${leaseWords(lease)}`),
      ),
      ...kept.map(({ start, end }) =>
        line(
          `${name} kept out`,
          start === end ? formatAddress(start) : `${formatAddress(start)} to ${formatAddress(end)}`,
        ),
      ),
      line(`${name} mask`, maskText(plan, subnet.id)),
      ...(gateway ? [line(`${name} gateway`, formatAddress(gateway.address))] : []),
      ...(dns === '' ? [] : [line(`${name} DNS servers`, dns)]),
      ...(domain === '' ? [] : [line(`${name} domain`, domain)]),
      ...fixed.map((address) => {
        const { device: host, interface: card } = hostOf(plan, address);
        return line(
          `${name} reservation`,
          `${formatAddress(address.address)} for ${host.name}, ${macOf(plan, card) ?? 'MAC address not recorded'}`,
        );
      }),
    ];
  });
  const relays = [...plan.relay.values()]
    .filter((relay) => cards.has(relay.interface))
    .map((relay) => {
      const { vlan } = plan.interface.get(relay.interface)!;
      const to = relay.servers
        .flatMap((id) => addressesOn(plan, id))
        .map(({ address }) => formatAddress(address));
      return line(`Relay in ${vlan === null ? 'its segment' : vlanText(plan, vlan)}`, `to ${to.join(', ')}`);
    });
  const { kind } = plan.device.get(device)!;
  const off = pools.length === 0 && SERVES_AS_IT_COMES.includes(kind) ? [line('DHCP server', 'off')] : [];
  return [...served, ...relays, ...off];
}
const maskText = (plan: Plan, subnet: string): string => {
  const { prefix } = plan.subnet.get(subnet)!;
  return typeof prefix.address === 'bigint' ? `/${prefix.length}` : maskOf(prefix.length);
};

export function routeLines(plan: Plan, device: string): SettingLine[] {
  const routing = boxOf(plan, device)?.layer3 ? [line('Routing', 'on')] : [];
  const known = [...plan.route.values()]
    .filter((route) => route.device === device)
    .map(({ prefix, via }) => line(`To ${formatPrefix(prefix)}`, `next router ${formatAddress(via)}`));
  const segments = [...plan.interface.values()].filter(
    (card) => card.device === device && card.vlan !== null && subnetsOf(plan, card.vlan).length > 0,
  );
  return known.length > 0 || segments.length > 1 ? [...routing, ...known] : known;
}

/** Everything that is said of an uplink, but what only the plan knows. */
const OF_UPLINK = {
  addressing: '',
  providerVlan: null,
  address: null,
  mtu: null,
  delegated: null,
  tier: 1,
  weight: 1,
  monitor: null,
  dynamicName: '',
  noForwards: false,
};
export function internetLines(plan: Plan, device: string): SettingLine[] {
  const uplinks = uplinksOf(plan)
    .filter((uplink) => uplink.device === device)
    .flatMap((uplink) => {
      const port = uplink.port === null ? undefined : plan.port.get(uplink.port);
      const said = differing(plan, 'uplink', uplink, OF_UPLINK).map(({ what, value }) =>
        line(`${uplink.name}: ${what}`, value),
      );
      return [...(port ? [line(`${uplink.name}: port`, String(port.number))] : []), ...said];
    });
  const tunnels = [...plan.tunnel.values()]
    .filter((tunnel) => tunnel.device === device)
    .map(({ name, peer, remote }) =>
      line(
        `Tunnel ${name}`,
        `to ${peer}, for ${remote.map(formatPrefix).join(', ')}; its key is kept elsewhere`,
      ),
    );
  return [...uplinks, ...tunnels];
}
