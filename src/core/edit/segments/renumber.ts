import {
  type IpAddress,
  familyOf,
  type Prefix,
  contains,
  overlaps,
  prefixFamily,
  samePlace,
  usableRange,
  type AddressRange,
} from '../../address';
import { nextFreeAddress } from '../../model/hosts';
import { type Draft, siteOf, type Address, type Subnet, addressesOf, hostOf } from '../../plan';
import { clip, habitualGateway } from '../../model/segments';

/**
 * Where an address goes when its subnet becomes `to`: it stays when the subnets overlap and it is still usable,
 * otherwise it keeps its host number. Null when that is no usable host of `to`.
 */
export function renumbered(from: Prefix, to: Prefix, address: IpAddress): IpAddress | null {
  if (familyOf(address) !== prefixFamily(to) || !contains(from, address)) return null;
  const { first, last } = usableRange(to);
  const usable = (candidate: IpAddress) => candidate >= first && candidate <= last;
  if (overlaps(from, to) && usable(address)) return address;
  const moved = samePlace(from, to, address);
  return usable(moved) ? moved : null;
}

function renumberedRange(from: Prefix, to: Prefix, range: AddressRange): AddressRange | null {
  const inside = clip(range, from);
  if (!inside) return null;
  const { first, last } = usableRange(to);
  const shift = (address: IpAddress) => (overlaps(from, to) ? address : samePlace(from, to, address));
  const start = shift(inside.start);
  const end = shift(inside.end);
  if (start > last || end < first) return null;
  return { start: start < first ? first : start, end: end > last ? last : end };
}

export interface Renumbering {
  readonly from: Prefix;
  readonly to: Prefix;
  /** By the address that a host or router had: the one it has now. */
  readonly went: ReadonlyMap<IpAddress, IpAddress>;
  /** Fixed addresses that have no place in the new prefix at their old host number. */
  readonly homeless: readonly Address[];
}

/**
 * Gives a subnet another prefix and moves everything in it: gateway, fixed addresses, pools and exclusions. Hosts
 * without a place go to the next free address when `relocate` is set; otherwise they are returned, still unmoved, for
 * the caller to refuse. Addresses recorded outside the old prefix are mistakes of their own and stay.
 */
export function renumber(draft: Draft, subnet: Subnet, to: Prefix, relocate: boolean): Renumbering {
  const from = subnet.prefix;
  draft.update('subnet', subnet.id, { prefix: to });
  for (const table of ['pool', 'exclusion'] as const)
    for (const record of [...draft.plan[table].group(subnet.id).values()]) {
      if (!clip(record, from)) continue;
      const range = renumberedRange(from, to, record);
      if (range) draft.update(table, record.id, range);
      else draft.remove(table, record.id);
    }
  const homeless: Address[] = [];
  const went = new Map<IpAddress, IpAddress>();
  const put = ({ id, address }: Address, place: IpAddress) => {
    went.set(address, place);
    draft.update('address', id, { address: place });
  };
  // Addresses recorded outside the old prefix stay; nothing may land on one of them.
  const staying = new Set(
    addressesOf(draft.plan, subnet.id)
      .map(({ address }) => address)
      .filter((address) => !contains(from, address)),
  );
  const inside = addressesOf(draft.plan, subnet.id).filter((address) => contains(from, address.address));
  const places = inside.map((address) => renumbered(from, to, address.address));
  const held = new Set([...staying, ...places]);
  inside.forEach((address, i) => {
    let place = places[i] ?? null;
    if (place === null && address.gateway) {
      const habit = habitualGateway(siteOf(draft.plan), to);
      if (!held.has(habit)) place = habit;
    }
    if (place === null || staying.has(place)) homeless.push(address);
    else if (place !== address.address) put(address, place);
  });
  if (!relocate || homeless.length === 0) return { from, to, went, homeless };
  const without: Address[] = [];
  const promised = new Set<IpAddress>();
  const target = draft.need('subnet', subnet.id);
  for (const address of homeless) {
    const { device } = hostOf(draft.plan, address);
    const place = nextFreeAddress(draft.plan, target, device.kind, address.assignment, promised);
    if (place === null) without.push(address);
    else {
      promised.add(place);
      put(address, place);
    }
  }
  return { from, to, went, homeless: without };
}
