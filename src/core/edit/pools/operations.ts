import * as z from 'zod';
import {
  type AddressRange,
  type IpAddress,
  type Prefix,
  addOffset,
  formatAddress,
  usableRange,
  countOf,
} from '../../address';
import {
  type Address,
  addressCodec,
  operation,
  outsideOf,
  siteOf,
  kinds,
  type Plan,
  type Subnet,
  Refusal,
  badInput,
  addressesOf,
  gatewaysOf,
} from '../../plan';
import { type Run, clip, layoutOfSubnet, leaseOf } from '../../model/segments';
import { proposePool } from '../segments/propose';
import { dynamicNeed } from '../../model/pools';

const range = { start: addressCodec, end: addressCodec };
const show = (start: IpAddress, end: IpAddress) => `${formatAddress(start)}–${formatAddress(end)}`;

function requireOrder(start: IpAddress, end: IpAddress): void {
  if (typeof start !== typeof end || start > end)
    throw new Refusal(
      'bad-input',
      `The start ${formatAddress(start)} lies after the end ${formatAddress(end)}; swap them.`,
      [],
      ['end'],
    );
}

/** Refuses a range that is not wholly in its subnet. */
function requireInside(range: AddressRange, { prefix }: Subnet): void {
  const wrong = outsideOf(range, prefix);
  if (wrong) throw badInput(wrong.message, wrong.field);
}

export const addPool = operation(
  'addPool',
  z.strictObject({ subnet: z.string(), ...range, lease: kinds.pool.fields.lease.optional() }),
  (draft, { subnet: id, start, end, lease }) => {
    requireOrder(start, end);
    const subnet = draft.need('subnet', id);
    requireInside({ start, end }, subnet);
    const server = gatewaysOf(draft.plan, id)[0]?.interface;
    draft.insert('pool', {
      subnet: id,
      start,
      end,
      lease: lease ?? leaseOf(draft.plan, subnet),
      servedBy: server ? [server] : [],
    });
    return `Pool ${show(start, end)} added, ${countOf({ start, end })} addresses`;
  },
);

/** Says to which servers a router's interface passes discovers on; to none removes the relay. */
export const setRelay = operation(
  'setRelay',
  z.strictObject({ interface: z.string(), servers: z.array(z.string()) }),
  (draft, { interface: id, servers }) => {
    const item = draft.need('interface', id);
    const name = draft.need('device', item.device).name;
    for (const server of servers)
      if (server === id) throw badInput(`${name} cannot pass discovers on to itself.`, 'servers');
    const known = [...draft.plan.relay.values()].find((relay) => relay.interface === id);
    if (known && servers.length === 0) draft.remove('relay', known.id);
    else if (known) draft.update('relay', known.id, { servers });
    else if (servers.length > 0) draft.insert('relay', { interface: id, servers });
    const names = servers.map((server) => draft.need('device', draft.need('interface', server).device).name);
    return `${name}: ${names.length > 0 ? `passes discovers on to ${names.join(', ')}` : 'no relay'}`;
  },
);

export const addExclusion = operation(
  'addExclusion',
  z.strictObject({ subnet: z.string(), ...range, why: kinds.exclusion.fields.why.default('') }),
  (draft, { subnet: id, start, end, why }) => {
    requireOrder(start, end);
    requireInside({ start, end }, draft.need('subnet', id));
    draft.insert('exclusion', { subnet: id, start, end, why });
    return `${show(start, end)} excluded from the pool`;
  },
);

export const removeRange = operation(
  'removeRange',
  z.strictObject({ table: z.enum(['pool', 'exclusion']), id: z.string() }),
  (draft, { table, id }) => {
    const record = draft.need(table, id);
    draft.remove(table, id);
    return `${table === 'pool' ? 'Pool' : 'Exclusion'} ${show(record.start, record.end)} removed`;
  },
);

/** The parts of a range that are hosts of a prefix, without what is blocked. */
export function hostsIn(
  range: AddressRange,
  prefix: Prefix,
  blocked: readonly AddressRange[],
): AddressRange[] {
  const { first, last } = usableRange(prefix);
  const start = range.start < first ? first : range.start;
  const end = range.end > last ? last : range.end;
  const whole = clip(range, prefix) && start <= end ? [{ start, end }] : [];
  return blocked.reduce<AddressRange[]>((parts, one) => parts.flatMap((part) => without(part, one)), whole);
}

const only = ({ address }: Address): AddressRange => ({ start: address, end: address });
/** The addresses of the routers of a subnet, as ranges. */
export const routersIn = (plan: Plan, subnet: string): AddressRange[] => gatewaysOf(plan, subnet).map(only);

/** The parts of a range that a server may lease: without gateways, static hosts and other pools than one. */
function leasableOf(
  plan: Plan,
  { id, prefix }: Subnet,
  range: AddressRange,
  own: string | null,
): AddressRange[] {
  const inPools = siteOf(plan).reservationInPool;
  const held = addressesOf(plan, id).filter(
    ({ gateway, assignment }) => gateway || assignment !== 'reservation' || !inPools,
  );
  const pools = [...plan.pool.group(id).values()].filter((other) => other.id !== own);
  return hostsIn(range, prefix, [...held.map(only), ...pools]);
}

/** The pools a subnet without any would get by the site's habits, around who stands there already; null where none fits. */
export function firstPools(
  plan: Plan,
  subnet: Subnet,
): { readonly ranges: readonly AddressRange[]; readonly lease: number } | null {
  const proposal = proposePool(siteOf(plan), subnet.prefix, plan.vlan.get(subnet.vlan)!);
  const ranges = proposal && leasableOf(plan, subnet, proposal.range, null);
  return ranges?.length ? { ranges, lease: proposal!.lease } : null;
}

/**
 * Cuts a pool down to the parts that lie in its subnet's usable range and hold no gateway, static host or other pool;
 * keeps the largest part in this record and, with `keepAll`, the others as pools of their own.
 */
export const trimPool = operation(
  'trimPool',
  z.strictObject({ pool: z.string(), keepAll: z.boolean().default(true) }),
  (draft, { pool: id, keepAll }) => {
    const pool = draft.need('pool', id);
    const subnet = draft.need('subnet', pool.subnet);
    const parts = leasableOf(draft.plan, subnet, pool, id);
    if (parts.length === 0) {
      draft.remove('pool', id);
      return `Pool ${show(pool.start, pool.end)} removed; nothing of it could be leased`;
    }
    const [largest, ...rest] = [...parts].sort((a, b) => countOf(b) - countOf(a));
    draft.update('pool', id, largest!);
    if (keepAll)
      for (const part of rest)
        draft.insert('pool', { ...part, subnet: subnet.id, lease: pool.lease, servedBy: pool.servedBy });
    return `Pool ${show(pool.start, pool.end)} cut to ${(keepAll ? parts : [largest!]).map((part) => show(part.start, part.end)).join(', ')}`;
  },
);

/** What is left of a range without another. */
function without(part: AddressRange, block: AddressRange): AddressRange[] {
  if (typeof part.start !== typeof block.start || block.end < part.start || block.start > part.end)
    return [part];
  const low = { start: part.start, end: addOffset(block.start, -1) };
  const high = { start: addOffset(block.end, 1), end: part.end };
  return [low, high].filter((span) => span.start <= span.end);
}
/** Widens the pools of a subnet over neighbouring free addresses until they hold their need; adds one if there is none. */
export const widenPool = operation(
  'widenPool',
  z.strictObject({ subnet: z.string() }),
  (draft, { subnet: id }) => {
    const subnet = draft.need('subnet', id);
    const vlan = draft.need('vlan', subnet.vlan);
    if (draft.plan.pool.group(id).size === 0) {
      const proposal = firstPools(draft.plan, subnet);
      if (!proposal) throw new Refusal('no-room', `${vlan.name} has no room for a pool; grow its subnet.`);
      const server = gatewaysOf(draft.plan, id)[0]?.interface;
      for (const range of proposal.ranges)
        draft.insert('pool', {
          subnet: id,
          ...range,
          lease: proposal.lease,
          servedBy: server ? [server] : [],
        });
      return `${vlan.name}: pool ${proposal.ranges.map(({ start, end }) => show(start, end)).join(', ')} added`;
    }
    const start = dynamicNeed(draft.plan, subnet);
    let lacking = start.need.total - start.capacity;
    for (let guard = 0; lacking > 0 && guard < 64; guard++) {
      const gap = bestGap(layoutOfSubnet(draft.plan, subnet).runs);
      if (!gap) break;
      const pool = [...draft.plan.pool.group(id).values()].find(
        (candidate) => addOffset(candidate.end, 1) === gap.start || candidate.start === addOffset(gap.end, 1),
      );
      const take = Math.min(lacking, countOf(gap));
      const after = pool && addOffset(pool.end, 1) === gap.start;
      const span =
        after || !pool
          ? { start: gap.start, end: addOffset(gap.start, take - 1) }
          : { start: addOffset(gap.end, 1 - take), end: gap.end };
      const model = [...draft.plan.pool.group(id).values()][0]!;
      if (!pool) draft.insert('pool', { ...span, subnet: id, lease: model.lease, servedBy: model.servedBy });
      else draft.update('pool', pool.id, after ? { end: span.end } : { start: span.start });
      lacking -= take;
    }
    if (lacking > 0)
      throw new Refusal(
        'no-room',
        `${vlan.name} lacks ${lacking} leases even with every free address in the pool; grow its subnet or shorten the lease.`,
      );
    return `${vlan.name}: pool widened to ${start.need.total} leases`;
  },
);

/** The free run to widen into: one that touches a pool, the largest first; else the largest. */
function bestGap(runs: readonly Run[]): Run | undefined {
  const free = runs.filter((run) => run.use === 'free');
  const touches = (run: Run) => {
    const at = runs.indexOf(run);
    return runs[at - 1]?.use === 'pool' || runs[at + 1]?.use === 'pool' ? 1 : 0;
  };
  return [...free].sort((a, b) => touches(b) - touches(a) || countOf(b) - countOf(a))[0];
}

/** Sets one lease time on every pool of a subnet. */
export const setLease = operation(
  'setLease',
  z.strictObject({ subnet: z.string(), lease: kinds.pool.fields.lease }),
  (draft, { subnet: id, lease }) => {
    const vlan = draft.need('vlan', draft.need('subnet', id).vlan);
    for (const pool of [...draft.plan.pool.group(id).keys()]) draft.update('pool', pool, { lease });
    return `${vlan.name}: lease ${lease / 3600} h`;
  },
);
