import { formatAddress, contains, formatPrefix, inRange } from '../../address';
import { type Subnet, type Remedy, boxOf, deriveBy, gatewaysOf, hostOf } from '../../plan';
import { routersIn } from '../../model/routing';
import type { SiteCheck, SubnetCheck } from '../finding';

const habit = (subnet: Subnet): Remedy => ({
  label: 'Put it where the site’s habit says',
  operation: 'habitGateway',
  input: { subnet: subnet.id },
});

const gatewayMissing: SubnetCheck = {
  id: 'gateway-missing',
  station: 'segments',
  scope: 'subnet',
  *find(_plan, { subnet, vlan, gateways }) {
    if (gateways.length > 0 || vlan.purpose === 'transit' || vlan.purpose === 'parking') return;
    yield {
      severity: vlan.internet ? 'stop' : 'fix',
      on: { table: 'subnet', id: subnet.id },
      what: `${vlan.name} has no gateway`,
      because: `Nothing routes for ${formatPrefix(subnet.prefix)}${vlan.internet ? ', which may reach the Internet' : '; its hosts reach only each other'}.`,
      remedies: [{ ...habit(subnet), label: 'Add one by the site’s habit' }],
    };
  },
};

const gatewayOutside: SubnetCheck = {
  id: 'gateway-outside',
  station: 'segments',
  scope: 'subnet',
  *find(_plan, { subnet, vlan, gateways }) {
    for (const { address } of gateways)
      if (!contains(subnet.prefix, address.address))
        yield {
          severity: 'stop',
          on: { table: 'address', id: address.id },
          also: [{ table: 'subnet', id: subnet.id }],
          what: `The gateway of ${vlan.name} is outside its subnet`,
          because: `${formatAddress(address.address)} does not lie in ${formatPrefix(subnet.prefix)}: no host there can reach it.`,
          remedies: [habit(subnet)],
        };
  },
};

const gatewayOnEdge: SubnetCheck = {
  id: 'gateway-on-edge',
  station: 'segments',
  scope: 'subnet',
  *find(_plan, { subnet, vlan, gateways, first, last }) {
    for (const { address } of gateways) {
      if (!contains(subnet.prefix, address.address) || inRange({ start: first, end: last }, address.address))
        continue;
      const edge = address.address === subnet.prefix.address ? 'network' : 'broadcast';
      yield {
        severity: 'stop',
        on: { table: 'address', id: address.id },
        also: [{ table: 'subnet', id: subnet.id }],
        what: `The gateway of ${vlan.name} is on the ${edge} address`,
        because: `${formatAddress(address.address)} is the ${edge} address of ${formatPrefix(subnet.prefix)}; hosts are ${formatAddress(first)}–${formatAddress(last)}.`,
        remedies: [habit(subnet)],
      };
    }
  },
};

const gatewayInPool: SubnetCheck = {
  id: 'gateway-in-pool',
  station: 'addresses',
  scope: 'subnet',
  *find(_plan, { gateways, pools, exclusions, vlan }) {
    for (const pool of pools) {
      const hit = gateways.find(({ address }) => inRange(pool, address.address));
      if (!hit || exclusions.some((range) => inRange(range, hit.address.address))) continue;
      yield {
        severity: 'fix',
        on: { table: 'pool', id: pool.id },
        also: [{ table: 'address', id: hit.address.id }],
        what: `The pool of ${vlan.name} holds the gateway`,
        because: `${formatAddress(hit.address.address)} (${hit.device.name}) lies in ${formatAddress(pool.start)}–${formatAddress(pool.end)}: a server may lease it to a guest.`,
        remedies: [{ label: 'Cut the pool around it', operation: 'trimPool', input: { pool: pool.id } }],
      };
    }
  },
};

const gatewayEqualsHost: SubnetCheck = {
  id: 'gateway-equals-host',
  station: 'addresses',
  scope: 'subnet',
  *find(_plan, { gateways, hosts }) {
    if (gateways.length === 0) return;
    const taken = new Map(gateways.map((gateway) => [gateway.address.address, gateway]));
    for (const host of hosts) {
      const gateway = taken.get(host.address.address);
      if (!gateway) continue;
      yield {
        severity: 'stop',
        on: { table: 'address', id: host.address.id },
        also: [{ table: 'address', id: gateway.address.id }],
        what: `${host.device.name} has the gateway’s address`,
        because: `${formatAddress(host.address.address)} is the gateway ${gateway.device.name}; every host of the segment would lose it in turn.`,
        remedies: [
          {
            label: 'Move it to the next free address',
            operation: 'moveToFree',
            input: { address: host.address.id },
          },
        ],
      };
    }
  },
};

const gatewayDevices = deriveBy((plan, subnet: string): readonly string[] =>
  gatewaysOf(plan, subnet).map((address) => hostOf(plan, address).device.id),
);

/** A gateway that passes nothing on; whoever sends to it is heard, and that is all. */
const notRouting: SiteCheck = {
  id: 'gateway-not-routing',
  station: 'segments',
  scope: 'site',
  *find(plan) {
    const served = new Map<string, Subnet[]>();
    for (const subnet of plan.subnet.values())
      for (const device of gatewayDevices(plan, subnet.id))
        if (!routersIn(plan).get(device)?.routes) served.set(device, [...(served.get(device) ?? []), subnet]);
    for (const [id, subnets] of served) {
      const { name } = plan.device.get(id)!;
      const box = boxOf(plan, id);
      yield {
        severity: 'stop',
        on: { table: 'device', id },
        also: subnets.map((subnet) => ({ table: 'subnet' as const, id: subnet.id })),
        what: `${name} is a gateway and does not route`,
        because: `It passes nothing on: hosts of ${subnets.map(({ prefix }) => formatPrefix(prefix)).join(', ')} reach only each other.`,
        remedies:
          box && routersIn(plan).has(id)
            ? [
                {
                  label: 'Switch routing on; its segments then reach each other as far as it filters',
                  operation: 'edit',
                  input: { table: 'box', id: box.id, set: { layer3: true }, seen: { layer3: false } },
                },
              ]
            : [],
      };
    }
  },
};

export const gatewaySiteChecks = [notRouting];
export const gatewayChecks = [
  gatewayMissing,
  gatewayOutside,
  gatewayOnEdge,
  gatewayInPool,
  gatewayEqualsHost,
];
