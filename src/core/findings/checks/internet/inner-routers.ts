import { type IpAddress, familyOf, formatAddress, formatPrefix, prefixFamily } from '../../../address';
import { zonesOf } from '../../../model/policy';
import { type Router, isSame, meetingPoint, routersIn, wayTo } from '../../../model/routing';
import { landsIn } from '../../../model/switching';
import { linksOf, portsOf } from '../../../model/wiring';
import {
  type Plan,
  type Subnet,
  boxOf,
  interfacesOf,
  plainVlansOf,
  portTitle,
  subnetsOf,
} from '../../../plan';
import { homeOf } from '../../../rehearse';
import { onPort } from '../refs';
import { internetCheck } from './shared';

/** Routers behind routers, and beside them. */

/** An address of a subnet to ask the way for. */
const within = ({ prefix }: Subnet): IpAddress =>
  typeof prefix.address === 'number' ? prefix.address + 1 : prefix.address + 1n;

/** The subnets a router serves as a gateway. */
const servedBy = (plan: Plan, router: Router): Subnet[] =>
  plainVlansOf(plan)
    .filter(({ id, purpose }) => purpose !== 'transit' && isSame(homeOf(plan, id).router, router))
    .flatMap(({ id }) => subnetsOf(plan, id));

/** Does a router send packets for a subnet further inside, rather than nowhere or out of the site? */
const knows = (plan: Plan, router: Router, subnet: Subnet): boolean => {
  const way = wayTo(plan, router, within(subnet));
  return way !== null && (way.by === 'leg' || way.by === 'route');
};

/** Another router that asks this one, and the subnets from which it does and to which this one knows no way back. */
interface Asking {
  readonly other: Router;
  readonly lost: readonly Subnet[];
  /** Where this one would send the answers. */
  readonly via: IpAddress | null;
}
function askingOf(plan: Plan, router: Router, routers: readonly Router[]): Asking[] {
  const own = servedBy(plan, router);
  return routers.flatMap((other) => {
    if (other === router) return [];
    const asked = own.filter((subnet) => knows(plan, other, subnet));
    const families = new Set(asked.map(({ prefix }) => prefixFamily(prefix)));
    const lost = servedBy(plan, other).filter(
      (subnet) => families.has(prefixFamily(subnet.prefix)) && !knows(plan, router, subnet),
    );
    return lost.length > 0 ? [{ other, lost, via: meetingPoint(router, other, 4) }] : [];
  });
}

/** A question needs a way back. With zones it is told as what they allow and does not work. */
const noWayBack = internetCheck('way-back-missing', function* (plan) {
  if (zonesOf(plan).length > 0) return;
  const routers = [...routersIn(plan).values()].filter(({ routes, legs }) => routes && legs.length > 0);
  for (const router of routers) {
    // One that stands behind another translates, so its answers need no way.
    if (router.uplinks.some(({ segment }) => segment !== null)) continue;
    const asking = askingOf(plan, router, routers);
    if (asking.length === 0) continue;
    const { name, id } = router.device;
    const names = asking.map(({ other }) => other.device.name).join(' and ');
    const lost = asking.flatMap((one) => one.lost);
    const routes = asking.flatMap(({ lost: subnets, via }) =>
      subnets.flatMap(({ prefix }) =>
        via !== null && familyOf(via) === familyOf(prefix.address)
          ? [
              {
                operation: 'addRoute',
                input: { device: id, prefix: formatPrefix(prefix), via: formatAddress(via) },
              },
            ]
          : [],
      ),
    );
    yield {
      severity: 'stop',
      on: { table: 'device', id },
      also: asking.map(({ other }) => ({ table: 'device' as const, id: other.device.id })),
      what: `${name} knows no way back to ${plan.vlan.get(lost[0]!.vlan)!.name}`,
      because: `${names} ${asking.length === 1 ? 'sends' : 'send'} it packets from ${lost.map(({ prefix }) => formatPrefix(prefix)).join(', ')}, and its answers have no way there.`,
      remedies:
        routes.length < lost.length
          ? []
          : [
              {
                label: `Let it answer by way of ${asking.map(({ other, via }) => `${other.device.name}, ${formatAddress(via!)}`).join(', and ')}`,
                operation: 'several',
                input: { label: `${name}: ways back by ${names}`.slice(0, 200), calls: routes },
              },
            ],
    };
  }
});

/** A router plugged in by an inside port of its own, of which nobody recorded more: it leases, and has the address of all its kind. */
const asItCame = internetCheck('second-router-factory', function* (plan) {
  const gateways = [...plan.box.values()]
    .map(({ device }) => plan.device.get(device)!)
    .filter(({ kind }) => kind === 'gateway');
  if (gateways.length < 2) return;
  for (const device of gateways) {
    if (interfacesOf(plan, device.id).length > 0) continue;
    const joined = portsOf(plan, device.id).flatMap((port) =>
      port.number === 0 || port.role === 'uplink'
        ? []
        : (linksOf(plan).get(port.id) ?? []).map(({ to }) => ({ port, far: plan.port.get(to)! })),
    );
    const at = joined.find(({ far }) => boxOf(plan, far.device));
    if (!at) continue;
    const { vlan } = landsIn(plan, at.far);
    yield {
      severity: 'fix',
      on: { table: 'device', id: device.id },
      also: [at.port, at.far].map(onPort),
      what: `${device.name} is plugged in as it left the factory`,
      because: `At ${portTitle(plan, at.far)} it stands with an inside port${vlan ? ` in ${vlan.name}` : ''}: such a router leases addresses of its own and may have the address of the gateway. Nothing else is recorded of it.`,
      remedies: vlan
        ? [
            {
              label: `Re-use it as an access point in ${vlan.name}, leasing and routing nothing`,
              operation: 'reuseAsAccessPoint',
              input: { device: device.id, vlan: vlan.id },
            },
          ]
        : [],
    };
  }
});

export const innerRouterChecks = [noWayBack, asItCame];
