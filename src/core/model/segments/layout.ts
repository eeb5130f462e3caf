import { deriveBy, type Plan, type Address, type Pool, type Subnet, addressesOf } from '../../plan';
import {
  type IpAddress,
  addOffset,
  compareAddresses,
  type Prefix,
  contains,
  lastOf,
  prefixFamily,
  type AddressRange,
  countOf,
  inRange,
  rangeOf,
  rangesOverlap,
} from '../../address';

/** What an address of a subnet is. Exactly one; the earlier in this list wins. */
export const addressUses = [
  'network',
  'broadcast',
  'gateway',
  'virtual',
  'fixed',
  'reserved',
  'excluded',
  'pool',
  'free',
] as const;
export type AddressUse = (typeof addressUses)[number];

/** A run of neighbouring addresses with the same use. */
export interface Run extends AddressRange {
  readonly use: AddressUse;
}

export interface Layout {
  readonly runs: readonly Run[];
  /** Addresses per use; their sum is the size of the subnet. */
  readonly counts: Readonly<Record<AddressUse, number>>;
}

const usageOf = (address: Address): AddressUse =>
  address.gateway
    ? 'gateway'
    : address.assignment === 'virtual'
      ? 'virtual'
      : address.assignment === 'static'
        ? 'fixed'
        : 'reserved';

/** The part of a range that lies in the prefix; null when none does. */
export function clip(range: AddressRange, prefix: Prefix): AddressRange | null {
  const whole = rangeOf(prefix);
  if (!rangesOverlap(range, whole)) return null;
  return {
    start: range.start > whole.start ? range.start : whole.start,
    end: range.end < whole.end ? range.end : whole.end,
  };
}

/**
 * Classifies every address of a prefix by a sweep over the places where something begins or ends, so that a /8 or an
 * IPv6 /64 costs no more than what stands in it.
 */
export function layoutOf(
  prefix: Prefix,
  addresses: readonly Address[],
  exclusions: Iterable<AddressRange>,
  pools: Iterable<AddressRange>,
): Layout {
  const single = new Map<IpAddress, AddressUse>();
  const mark = (address: IpAddress, use: AddressUse) => {
    const known = single.get(address);
    if (known === undefined || addressUses.indexOf(use) < addressUses.indexOf(known))
      single.set(address, use);
  };
  if (prefixFamily(prefix) === 4 && prefix.length <= 30) {
    mark(prefix.address, 'network');
    mark(lastOf(prefix), 'broadcast');
  }
  for (const address of addresses)
    if (contains(prefix, address.address)) mark(address.address, usageOf(address));

  const clipAll = (ranges: Iterable<AddressRange>) =>
    [...ranges].map((range) => clip(range, prefix)).filter((range) => range !== null);
  const excluded = clipAll(exclusions);
  const pooled = clipAll(pools);

  const cuts = new Set<IpAddress>([prefix.address]);
  for (const address of single.keys()) cuts.add(address).add(addOffset(address, 1));
  for (const range of [...excluded, ...pooled]) cuts.add(range.start).add(addOffset(range.end, 1));
  const last = lastOf(prefix);
  const starts = [...cuts].filter((cut) => cut <= last).sort(compareAddresses);

  const runs: Run[] = [];
  const counts = Object.fromEntries(addressUses.map((use) => [use, 0])) as Record<AddressUse, number>;
  starts.forEach((start, i) => {
    const end = i + 1 < starts.length ? addOffset(starts[i + 1]!, -1) : last;
    const within = (range: AddressRange) => start >= range.start && start <= range.end;
    const use =
      single.get(start) ?? (excluded.some(within) ? 'excluded' : pooled.some(within) ? 'pool' : 'free');
    counts[use] += countOf({ start, end });
    const previous = runs.at(-1);
    if (previous?.use === use) runs[runs.length - 1] = { ...previous, end };
    else runs.push({ use, start, end });
  });
  return { runs, counts };
}

/** The layout of a recorded subnet, remembered until it or one of its groups of records changes. */
export const layoutOfSubnet = (plan: Plan, { id }: Subnet): Layout => layoutBy(plan, id);
const layoutBy = deriveBy((plan, id: string): Layout => {
  const { prefix } = plan.subnet.get(id)!;
  return layoutOf(
    prefix,
    addressesOf(plan, id),
    plan.exclusion.group(id).values(),
    plan.pool.group(id).values(),
  );
});

/** Leases a server can really give from a pool: the pool less everything above it that lies inside. */
export function leaseCapacity(plan: Plan, subnet: Subnet, pool: Pool): number {
  const range = clip(pool, subnet.prefix);
  if (!range) return 0;
  if (plan.exclusion.group(subnet.id).size === 0) return countOf(range) - singlesInside(plan, subnet, range);
  const { runs } = layoutOfSubnet(plan, subnet);
  return runs
    .filter((run) => run.use === 'pool' && rangesOverlap(run, range))
    .reduce((sum, run) => {
      const start = run.start > range.start ? run.start : range.start;
      const end = run.end < range.end ? run.end : range.end;
      return sum + countOf({ start, end });
    }, 0);
}

/** Different addresses in a range that are something above the pool: recorded ones, network and broadcast. */
function singlesInside(plan: Plan, subnet: Subnet, range: AddressRange): number {
  const { prefix } = subnet;
  const edges = prefixFamily(prefix) === 4 && prefix.length <= 30 ? [prefix.address, lastOf(prefix)] : [];
  let count = edges.filter((edge) => inRange(range, edge)).length;
  let previous: IpAddress | null = null;
  for (const { address } of addressesOf(plan, subnet.id)) {
    if (address !== previous && inRange(range, address) && !edges.includes(address)) count++;
    previous = address;
  }
  return count;
}
