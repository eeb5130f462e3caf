import { type Plan, type Pool, type Remedy, subnetsOf } from '../../plan';
import { firstPools } from '../../edit';
import {
  compareAddresses,
  formatAddress,
  familyOf,
  formatPrefix,
  type AddressRange,
  rangesOverlap,
} from '../../address';
import { segmentsOf } from '../../model/hosts';
import { dynamicNeed } from '../../model/pools';
import { layoutOfSubnet, proposeLease } from '../../model/segments';
import type { SubnetCheck, VlanCheck } from '../finding';
import type { SubnetHost } from '../subnet-view';

const show = (range: AddressRange) => `${formatAddress(range.start)}–${formatAddress(range.end)}`;

const poolOutside: SubnetCheck = {
  id: 'pool-outside',
  station: 'addresses',
  scope: 'subnet',
  *find(_plan, { subnet, vlan, pools, first, last }) {
    for (const pool of pools) {
      if (typeof pool.start === typeof first && pool.start >= first && pool.end <= last) continue;
      yield {
        severity: 'stop',
        on: { table: 'pool', id: pool.id },
        what: `A pool of ${vlan.name} leaves its subnet`,
        because: `${show(pool)} is not within the hosts ${formatAddress(first)}–${formatAddress(last)} of ${formatPrefix(subnet.prefix)}; servers refuse it or lease dead addresses.`,
        remedies: [{ label: 'Cut it to the subnet', operation: 'trimPool', input: { pool: pool.id } }],
      };
    }
  },
};

const poolsOverlap: SubnetCheck = {
  id: 'pools-overlap',
  station: 'addresses',
  scope: 'subnet',
  *find(_plan, { vlan, pools }) {
    let widest = pools[0];
    for (const pool of pools.slice(1)) {
      if (widest && rangesOverlap(widest, pool))
        yield {
          severity: 'fix',
          on: { table: 'pool', id: pool.id },
          also: [{ table: 'pool', id: widest.id }],
          what: `Two pools of ${vlan.name} overlap`,
          because: `${show(widest)} and ${show(pool)} share addresses: two leases for one address are possible.`,
          remedies: [{ label: 'Cut the second one', operation: 'trimPool', input: { pool: pool.id } }],
        };
      if (!widest || pool.end > widest.end) widest = pool;
    }
  },
};

const poolSmall: SubnetCheck = {
  id: 'pool-small',
  station: 'addresses',
  scope: 'subnet',
  *find(plan, { subnet, vlan, pools, hosts }) {
    if (pools.length === 0) return;
    const { need, capacity } = dynamicNeed(plan, subnet);
    if (capacity >= need.total) return;
    const leased = hosts.filter((host) => host.address.assignment !== 'virtual').length;
    const longest = Math.max(...pools.map((pool) => pool.lease));
    const lease = vlan.transient ? proposeLease(vlan, leased, capacity, longest) : null;
    yield {
      severity: 'fix',
      on: { table: 'subnet', id: subnet.id },
      what: `The pool of ${vlan.name} is too small`,
      because: `${capacity} leases; ${need.text} are needed.`,
      remedies: [
        ...(layoutOfSubnet(plan, subnet).counts.free >= need.total - capacity
          ? [
              {
                label: 'Widen the pool',
                operation: 'widenPool',
                input: { subnet: subnet.id },
              } satisfies Remedy,
            ]
          : []),
        ...(lease !== null && lease < longest
          ? [
              {
                label: `Shorten the lease to ${lease / 3600} h`,
                operation: 'setLease',
                input: { subnet: subnet.id, lease },
              } satisfies Remedy,
            ]
          : []),
      ],
    };
  },
};

/** What people bring along asks for an address; nobody types one in. */
const noPool: SubnetCheck = {
  id: 'people-without-pool',
  station: 'addresses',
  scope: 'subnet',
  *find(plan, { subnet, vlan, pools }) {
    if (pools.length > 0 || familyOf(subnet.prefix.address) === 6) return;
    if (vlan.purpose !== 'staff' && vlan.purpose !== 'guest') return;
    // Another subnet of the segment may lease.
    if (subnetsOf(plan, vlan.id).some(({ id }) => plan.pool.group(id).size > 0)) return;
    const proposal = firstPools(plan, subnet);
    yield {
      severity: 'fix',
      on: { table: 'subnet', id: subnet.id },
      what: `Nobody leases addresses in ${vlan.name}`,
      because: `People bring their own devices there, and ${formatPrefix(subnet.prefix)} has no pool.`,
      remedies: proposal
        ? [
            {
              label: `Add the pool ${proposal.ranges.map(show).join(', ')}`,
              operation: 'widenPool',
              input: { subnet: subnet.id },
            },
          ]
        : [],
    };
  },
};

/** Does a server stand in a segment, or does a relay there pass discovers on to it (RFC 2131, RFC 1542)? */
const isAsked = (plan: Plan, server: string, vlan: string): boolean =>
  segmentsOf(plan, plan.interface.get(server)!).includes(vlan) ||
  [...plan.relay.values()].some(
    ({ interface: id, servers }) =>
      servers.includes(server) && segmentsOf(plan, plan.interface.get(id)!).includes(vlan),
  );

/** What would have somebody serve a pool: the router of the segment itself, or its relay. */
function serving(plan: Plan, { servedBy, id }: Pool, router: SubnetHost | undefined): Remedy[] {
  if (!router) return [];
  const { name } = router.device;
  const own = router.interface.id;
  const relays = [...plan.relay.values()].find((relay) => relay.interface === own)?.servers ?? [];
  const others = servedBy.filter((server) => server !== own);
  const [server] = others;
  return [
    ...(server === undefined
      ? []
      : [
          {
            label: `Let ${name} pass questions on to ${plan.device.get(plan.interface.get(server)!.device)!.name}`,
            operation: 'setRelay',
            input: { interface: own, servers: [...new Set([...relays, ...others])] },
          } satisfies Remedy,
        ]),
    {
      label: `Let ${name} lease it`,
      operation: 'edit',
      input: { table: 'pool', id, set: { servedBy: [...servedBy, own] }, seen: { servedBy } },
    },
  ];
}

const unserved: SubnetCheck = {
  id: 'pool-unserved',
  station: 'addresses',
  scope: 'subnet',
  *find(plan, { vlan, pools, gateways }) {
    for (const pool of pools) {
      if (pool.servedBy.some((server) => isAsked(plan, server, vlan.id))) continue;
      const names = pool.servedBy.map((id) => plan.device.get(plan.interface.get(id)!.device)!.name);
      yield {
        severity: 'fix',
        on: { table: 'pool', id: pool.id },
        what: `Nobody leases the pool of ${vlan.name}`,
        because:
          names.length === 0
            ? `${show(pool)} is recorded, and no server for it: whoever asks gets no address.`
            : `${names.join(' and ')} ${names.length === 1 ? 'stands' : 'stand'} outside ${vlan.name}, and no relay there passes questions on: whoever asks gets no address.`,
        remedies: serving(
          plan,
          pool,
          gateways.find(({ address }) => address.assignment !== 'virtual'),
        ),
      };
    }
  },
};

/** Two servers that do not share a pool each lease what they like to whoever asks; the faster one wins. */
const twoServers: VlanCheck = {
  id: 'dhcp-servers-two',
  station: 'addresses',
  scope: 'vlan',
  *find(plan, vlan) {
    const deviceOf = (item: string) => plan.interface.get(item)!.device;
    const pools = subnetsOf(plan, vlan.id)
      .filter(({ prefix }) => familyOf(prefix.address) === 4)
      .flatMap(({ id }) => [...plan.pool.group(id).values()])
      .filter(({ servedBy }) => servedBy.length > 0)
      .sort((a, b) => compareAddresses(a.start, b.start) || (a.id < b.id ? -1 : 1));
    const [first] = pools;
    if (!first) return;
    const known = new Set(first.servedBy.map(deviceOf));
    const others = pools.filter(({ servedBy }) => !servedBy.some((item) => known.has(deviceOf(item))));
    const [other] = others;
    if (!other) return;
    const names = (pool: Pool) =>
      pool.servedBy.map((item) => plan.device.get(deviceOf(item))!.name).join(', ');
    const sameSubnet = others.every(({ subnet }) => subnet === first.subnet);
    const label = `Let ${names(first)} lease all of it`;
    yield {
      severity: sameSubnet ? 'note' : 'fix',
      on: { table: 'vlan', id: vlan.id },
      also: [first, ...others].map(({ id }) => ({ table: 'pool' as const, id })),
      what: `Two DHCP servers lease in ${vlan.name}`,
      because: `${names(first)} leases ${show(first)} and ${names(other)} leases ${show(other)}: whoever answers first decides${sameSubnet ? '' : ' in which network a device is'}.`,
      remedies: sameSubnet
        ? [
            {
              label,
              operation: 'several',
              input: {
                label: label.slice(0, 200),
                calls: others.map(({ id, servedBy }) => ({
                  operation: 'edit',
                  input: {
                    table: 'pool',
                    id,
                    set: { servedBy: first.servedBy },
                    seen: { servedBy },
                  },
                })),
              },
            },
          ]
        : [],
    };
  },
};

export const poolChecks = [poolOutside, poolsOverlap, poolSmall, noPool, unserved];
export const poolVlanChecks: readonly VlanCheck[] = [twoServers];
