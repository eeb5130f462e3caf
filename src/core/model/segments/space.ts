import {
  type IpAddress,
  addOffset,
  freeBlocks,
  type Prefix,
  covers,
  networkOf,
  overlaps,
  prefixFamily,
  sizeOf,
  usableHosts,
  usableRange,
  specialBlockOf,
} from '../../address';
import { derive, plainVlansOf, type Plan, siteOf, type Site, type Subnet } from '../../plan';

/** The site's address space: what is taken, what is free, and where a VLAN id wants its subnet. */

/** A home with one segment for everything, where neither VLAN nor numbering keeps anybody apart. */
export const isFlat = derive(
  (plan): boolean => siteOf(plan).kind === 'home' && plainVlansOf(plan).length === 1,
);

/** Networks of others that no segment may collide with: those the site names, and those outside its uplinks. */
export const foreignNetworks = derive((plan): Site['foreign'] => [
  ...siteOf(plan).foreign,
  ...[...plan.uplink.values()].flatMap(({ network, name }) =>
    network === null ? [] : [{ prefix: network, why: `outside the uplink ${name}` }],
  ),
  ...[...plan.tunnel.values()].flatMap(({ remote, name }) =>
    remote.map((prefix) => ({ prefix, why: `at the other end of the tunnel ${name}` })),
  ),
]);

const taken = derive((plan): readonly Prefix[] => [
  ...[...plan.subnet.values()].map((subnet) => subnet.prefix),
  ...foreignNetworks(plan).map((network) => network.prefix),
]);
const free = derive((plan): readonly Prefix[] => freeBlocks(siteOf(plan).space, taken(plan)));

/** Prefixes in use by subnets or by networks of others. */
export const takenPrefixes = (plan: Plan): readonly Prefix[] => taken(plan);
/** Aligned blocks of the space that nothing uses. */
export const freeSpace = (plan: Plan): readonly Prefix[] => free(plan);

/** The blocks of the space that segments may really use: private ones, and documentation ones on an example site. */
export const usableSpace = (site: Pick<Site, 'space' | 'documentation'>): Prefix[] =>
  site.space.filter((block) => {
    const special = specialBlockOf(block);
    if (!special || !covers(special.prefix, block)) return false;
    return special.inside === 'yes' || (special.inside === 'documentation' && site.documentation);
  });

/** True when `prefix` touches no network in use, here or elsewhere, but that of `except`. */
export function isUntaken(plan: Plan, prefix: Prefix, except?: Subnet): boolean {
  if (foreignNetworks(plan).some((network) => overlaps(network.prefix, prefix))) return false;
  for (const subnet of plan.subnet.values())
    if (subnet.id !== except?.id && overlaps(subnet.prefix, prefix)) return false;
  return true;
}

/** True when `prefix` lies in the space and touches nothing but `except`. */
export const isFree = (plan: Plan, prefix: Prefix, except?: Subnet): boolean =>
  siteOf(plan).space.some((block) => covers(block, prefix)) && isUntaken(plan, prefix, except);

/**
 * The prefixes of `length` bits whose third octet equals the VLAN id, in the order of the space. Empty where the rule
 * cannot hold: an id above 255, a subnet larger than a /24, or a space in which the third octet is not ours to choose.
 */
export function thirdOctetPlaces(site: Pick<Site, 'space'>, vid: number, length: number): Prefix[] {
  if (vid > 255 || length < 24) return [];
  const places: Prefix[] = [];
  for (const block of site.space) {
    if (typeof block.address !== 'number' || block.length > 23) continue;
    const sixteens = Math.max(1, sizeOf(block) / 65536);
    const first = networkOf(block.address, Math.min(16, block.length)).address as number;
    for (let i = 0; i < sixteens; i++) {
      const place = networkOf(Math.floor(first / 65536) * 65536 + i * 65536 + vid * 256, length);
      if (covers(block, place)) places.push(place);
    }
  }
  return places;
}

/** The /64 of a ULA or delegated prefix whose subnet id is the VLAN id (RFC 4291 section 2.5.4), where it fits. */
export function vlanIdPlace64(site: Pick<Site, 'space'>, vid: number): Prefix | null {
  for (const block of site.space) {
    if (typeof block.address !== 'bigint' || block.length > 64) continue;
    const place: Prefix = { address: block.address + (BigInt(vid) << 64n), length: 64 };
    if (covers(block, place)) return place;
  }
  return null;
}

/** The gateway address by the site's habit: first or last usable host; IPv6 always takes ::1. */
export function habitualGateway(site: Pick<Site, 'gatewayHabit'>, prefix: Prefix): IpAddress {
  const { first, last } = usableRange(prefix);
  return site.gatewayHabit === 'last' && prefixFamily(prefix) === 4 ? last : first;
}

/** Host-number bands of the site laid over one subnet: infrastructure, fixed, pool; each null when no room is left. */
export interface Bands {
  readonly infrastructure: { readonly start: IpAddress; readonly end: IpAddress } | null;
  readonly fixed: { readonly start: IpAddress; readonly end: IpAddress } | null;
  readonly pool: { readonly start: IpAddress; readonly end: IpAddress } | null;
}

/**
 * Lays the bands over a subnet. The infrastructure band keeps its size as far as it fits; in a subnet too small for
 * the fixed band and a pool, the fixed band takes at most half of what the infrastructure leaves.
 */
export function bandsOf(
  site: Pick<Site, 'infrastructureBand' | 'fixedBand' | 'gatewayHabit'>,
  prefix: Prefix,
): Bands {
  const { first } = usableRange(prefix);
  const usable = Math.min(usableHosts(prefix), 2 ** 31);
  const infrastructure = Math.min(site.infrastructureBand, Math.max(0, usable - 2));
  const rest = usable - infrastructure;
  const fixed = Math.min(site.fixedBand, Math.floor(rest / 2));
  // A gateway at the top keeps its address out of the pool band.
  const top = site.gatewayHabit === 'last' && prefixFamily(prefix) === 4 ? 1 : 0;
  const span = (from: number, count: number) =>
    count > 0 ? { start: addOffset(first, from), end: addOffset(first, from + count - 1) } : null;
  return {
    infrastructure: span(0, infrastructure),
    fixed: span(infrastructure, fixed),
    pool: span(infrastructure + fixed, rest - fixed - top),
  };
}
