import { type AddressRange, type IpAddress, contains, prefixFamily, rangesOverlap } from '../../address';
import { isDomain, nameProblem } from '../../model/hosts';
import { layoutOfSubnet } from '../../model/segments';
import {
  type Device,
  type Plan,
  type Subnet,
  type Telephony,
  type Vlan,
  addressesOf,
  dnsOf,
  domainOf,
  gatewaysOf,
  hostOf,
  interfacesOf,
  subnetsOf,
  vlansOf,
} from '../../plan';
import { telephoniesOf } from '../../model/guards';
import { legName } from '../interface-names';
import { interfaceName } from '../nft-match';

/** What a server leases, as programs that lease want it: ranges without what is fixed or kept out, and who has an address for good. */

export interface LeasedRange extends AddressRange {
  /** In seconds. */
  readonly lease: number;
}
export interface Reserved {
  readonly mac: string;
  readonly address: IpAddress;
  /** A label of the DNS; empty where the device has no name that can be one. */
  readonly name: string;
}
export interface Leasing {
  readonly vlan: Vlan;
  readonly subnet: Subnet;
  /** A word of its own for it: `vlan20`, for further subnets of that number `vlan20-2`. */
  readonly tag: string;
  readonly ranges: readonly LeasedRange[];
  readonly gateway: IpAddress | null;
  readonly dns: readonly IpAddress[];
  readonly domain: string;
  readonly reserved: readonly Reserved[];
  /** Names of reservations that cannot be made, as nobody recorded a MAC address. */
  readonly missing: readonly string[];
  /** What telephones are told there. */
  readonly telephony: Telephony | null;
}

/** The name of a device as a label of the DNS; empty where nothing of it can be one. */
export const labelOf = (name: string): string => {
  const problem = nameProblem(name);
  return (problem ? (problem.repair ?? '') : name).toLowerCase();
};

/** Labels of devices by id, in their order: their names, told apart where two would be alike, and none of those taken. */
export function hostLabels(
  devices: readonly Device[],
  taken: readonly string[],
): ReadonlyMap<string, string> {
  const used = new Set(taken);
  const labels = new Map<string, string>();
  for (const { id, name } of devices) {
    const own = labelOf(name) || 'device';
    let label = own;
    for (let next = 2; used.has(label); next++) label = `${own}-${next}`;
    used.add(label);
    labels.set(id, label);
  }
  return labels;
}

/** The domain of a subnet as programs take it; empty where there is none, or what was typed is no domain (RFC 1035). */
export function soundDomain(plan: Plan, subnet: Subnet): string {
  const domain = domainOf(plan, subnet);
  return isDomain(domain) ? domain.toLowerCase() : '';
}

function rangesOf(plan: Plan, subnet: Subnet, cards: ReadonlySet<string>): LeasedRange[] {
  const own = [...plan.pool.group(subnet.id).values()].filter(({ servedBy }) =>
    servedBy.some((id) => cards.has(id)),
  );
  const taken = layoutOfSubnet(plan, subnet).runs.filter(({ use }) => use === 'pool');
  let free: AddressRange[] = [...taken];
  // Where pools overlap by mistake an address is leased once.
  return own.flatMap(({ start, end, lease }) => {
    const pool = { start, end };
    const parts = free.filter((run) => rangesOverlap(run, pool));
    const found = parts.map((run) => ({
      start: run.start > start ? run.start : start,
      end: run.end < end ? run.end : end,
      lease,
    }));
    free = free.filter((run) => !parts.includes(run));
    return found;
  });
}

function reservedIn(plan: Plan, subnet: Subnet): Pick<Leasing, 'reserved' | 'missing'> {
  const reserved: Reserved[] = [];
  const missing: string[] = [];
  const macs = new Set<string>();
  for (const address of addressesOf(plan, subnet.id)) {
    // One outside is nobody's; programs refuse all that is said beside it.
    if (address.assignment !== 'reservation' || !contains(subnet.prefix, address.address)) continue;
    const { interface: card, device } = hostOf(plan, address);
    if (card.mac === null) missing.push(device.name);
    else if (!macs.has(card.mac)) {
      macs.add(card.mac);
      reserved.push({ mac: card.mac.toLowerCase(), address: address.address, name: labelOf(device.name) });
    }
  }
  return { reserved, missing };
}

/** What a device leases, in the order of the segments; each subnet once, also where two are alike. */
export function leasedBy(plan: Plan, device: string): Leasing[] {
  const cards = new Set(interfacesOf(plan, device).map(({ id }) => id));
  const prefixes = new Set<string>();
  const tags = new Set<string>();
  return vlansOf(plan).flatMap((vlan) =>
    subnetsOf(plan, vlan.id).flatMap((subnet): Leasing[] => {
      const { address, length } = subnet.prefix;
      const ranges = rangesOf(plan, subnet, cards);
      const key = `${address}/${length}`;
      if (ranges.length === 0 || prefixes.has(key)) return [];
      prefixes.add(key);
      let tag = `vlan${vlan.vid}`;
      for (let next = 2; tags.has(tag); next++) tag = `vlan${vlan.vid}-${next}`;
      tags.add(tag);
      const four = prefixFamily(subnet.prefix) === 4;
      return [
        {
          vlan,
          subnet,
          tag,
          ranges,
          gateway: gatewaysOf(plan, subnet.id)[0]?.address ?? null,
          dns: dnsOf(plan, subnet),
          domain: soundDomain(plan, subnet),
          ...reservedIn(plan, subnet),
          telephony: (four && telephoniesOf(plan).find((one) => one.vlan === vlan.id)) || null,
        },
      ];
    }),
  );
}

/**
 * Where a server listens: its legs in the segments that it serves, or its cards. What is passed on by a relay may come in by any leg.
 */
export function listensAt(plan: Plan, device: string, served: ReadonlySet<string>): string[] {
  const all = interfacesOf(plan, device);
  const relayed = [...served].some((id) => !all.some(({ vlan }) => vlan === id));
  const legs = all.filter(({ vlan }) => vlan === null || relayed || served.has(vlan));
  return [
    ...new Set(
      legs.map(({ vlan, name }) =>
        vlan === null ? interfaceName(name, 'eth0') : legName(plan, device, vlan),
      ),
    ),
  ];
}

/** The devices that lease addresses, by id. */
export const leasingDevices = (plan: Plan): ReadonlySet<string> =>
  new Set(
    [...plan.pool.values()].flatMap(({ servedBy }) =>
      servedBy.flatMap((id) => plan.interface.get(id)?.device ?? []),
    ),
  );
