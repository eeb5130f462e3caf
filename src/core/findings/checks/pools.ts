import { type Remedy, subnetsOf } from '../../plan';
import { proposePool } from '../../edit';
import { formatAddress, familyOf, formatPrefix, type AddressRange, rangesOverlap } from '../../address';
import { dynamicNeed } from '../../model/pools';
import { proposeLease } from '../../model/segments';
import type { SubnetCheck } from '../finding';

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
        { label: 'Widen the pool', operation: 'widenPool', input: { subnet: subnet.id } },
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
  *find(plan, { subnet, vlan, pools, site }) {
    if (pools.length > 0 || familyOf(subnet.prefix.address) === 6) return;
    if (vlan.purpose !== 'staff' && vlan.purpose !== 'guest') return;
    // Another subnet of the segment may lease.
    if (subnetsOf(plan, vlan.id).some(({ id }) => plan.pool.group(id).size > 0)) return;
    const proposal = proposePool(site, subnet.prefix, vlan);
    yield {
      severity: 'fix',
      on: { table: 'subnet', id: subnet.id },
      what: `Nobody leases addresses in ${vlan.name}`,
      because: `People bring their own devices there, and ${formatPrefix(subnet.prefix)} has no pool.`,
      remedies: proposal
        ? [
            {
              label: `Add the pool ${show(proposal.range)}`,
              operation: 'widenPool',
              input: { subnet: subnet.id },
            },
          ]
        : [],
    };
  },
};

export const poolChecks = [poolOutside, poolsOverlap, poolSmall, noPool];
