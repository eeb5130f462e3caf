import {
  type IpAddress,
  type Prefix,
  addOffset,
  contains,
  networkOf,
  parseAddress,
  parsePrefix,
  usableRange,
} from '../address';
import { nextFreeAddress } from '../model/hosts';
import type { Plan } from '../plan';
import { type Management, type SiteState, placeIn } from './state';

/** What whoever sits down sets on their own laptop. */

export interface LaptopSettings {
  readonly address: IpAddress;
  /** Of the prefix, in bits. */
  readonly length: number;
}

/** The addresses that a host gives itself (RFC 3927 section 2.1), without the parts at both ends that are kept free. */
const LINK_LOCAL = parsePrefix('169.254.0.0/16')!.prefix;
const LAST = parseAddress('169.254.254.255')!;

/** Where a box is looked for; null while nobody knows its address. */
export const subnetOf = ({ address, length, way }: Management): Prefix | null =>
  way === 'link-local' ? LINK_LOCAL : address === null ? null : networkOf(address, length);

/**
 * The settings with which a laptop talks to a box as it is now: an address of the same subnet that nobody has, planned or as
 * it comes. A gateway is not needed, as both are in one segment. Null where its address is not
 * known or the subnet is full.
 */
export function laptopFor(plan: Plan, state: SiteState, device: string): LaptopSettings | null {
  const management = state.boxes[placeIn(state, device)]?.management;
  const prefix = management && subnetOf(management);
  if (!prefix) return null;
  const { length } = prefix;
  const used = new Set(state.boxes.flatMap((box) => box.management?.address ?? []));
  const planned = [...plan.subnet.values()].find(
    (subnet) => subnet.prefix.address === prefix.address && subnet.prefix.length === length,
  );
  if (planned) {
    const address = nextFreeAddress(plan, planned, 'computer', 'static', used);
    return address === null ? null : { address, length };
  }
  // From the top, as boxes come with the first addresses of their subnet.
  const { first, last } =
    prefix === LINK_LOCAL ? { ...usableRange(prefix), last: LAST } : usableRange(prefix);
  for (let address = last; address >= first; address = addOffset(address, -1))
    if (!used.has(address)) return { address, length };
  return null;
}

/** Do a laptop with these settings and a box talk without a router between? Each has to be in the subnet of the other. */
export function talksTo(laptop: LaptopSettings | null, state: SiteState, device: string): boolean {
  const management = state.boxes[placeIn(state, device)]?.management;
  const subnet = management ? subnetOf(management) : null;
  if (subnet === null || laptop === null) return subnet === null && laptop === null;
  const theirs = management!.address ?? subnet.address;
  return contains(subnet, laptop.address) && contains(networkOf(laptop.address, laptop.length), theirs);
}
