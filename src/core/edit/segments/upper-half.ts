import {
  type IpAddress,
  type Prefix,
  contains,
  covers,
  familyOf,
  formatAddress,
  formatPrefix,
  packPrefixes,
  samePlace,
  usableRange,
} from '../../address';
import {
  type Address,
  type Draft,
  type Plan,
  type Subnet,
  type Vlan,
  Refusal,
  addressesOf,
  addressesOn,
  gatewaysOf,
  hostOf,
  siteOf,
} from '../../plan';
import { clip, isUntaken, takenPrefixes, usableSpace, vlanIdPlace64 } from '../../model/segments';
import { insertRouted } from '../hosts/network-interface';
import { hostsIn, routersIn, setRelay } from '../pools/operations';
import { gatewayPlace } from './repairs';
import { withoutId } from './twin';

/** What of a subnet that is cut in two belongs to its upper half. */

/** The interfaces of boxes in the lower segment, with those of the same boxes in the upper. */
export class Interfaces {
  private readonly made = new Map<string, string>();

  constructor(
    private readonly draft: Draft,
    private readonly lower: string,
    private readonly upper: string,
  ) {}

  /** The interface that an address above needs: its own, or where that is one in the lower segment, its box’s in the upper. */
  of(id: string): string {
    const item = this.draft.need('interface', id);
    if (item.kind !== 'vlan' || item.vlan !== this.lower) return id;
    const known = this.made.get(id);
    if (known) return known;
    const made = insertRouted(this.draft, item.device, this.upper).id;
    this.made.set(id, made);
    return made;
  }

  /** The same, where there is one. */
  known(id: string): string {
    return this.made.get(id) ?? id;
  }

  /** What says who serves a pool, as it is above; nothing for what no server leases. */
  served(record: object): object {
    return 'servedBy' in record
      ? { servedBy: (record.servedBy as readonly string[]).map((id) => this.known(id)) }
      : {};
  }

  get twins(): ReadonlyMap<string, string> {
    return this.made;
  }
}

/** Those above are of the upper segment; returns their devices. */
export function moveHosts(
  draft: Draft,
  { id, vlan }: Subnet,
  upper: Subnet,
  above: Interfaces,
): ReadonlySet<string> {
  const { plan } = draft;
  const goes = ({ subnet, gateway, address }: Address) =>
    subnet === id && !gateway && contains(upper.prefix, address);
  const moving = addressesOf(plan, id).filter(goes);
  const isSix = ({ address, gateway }: Address) => familyOf(address) === 6 && !gateway;
  for (const card of new Set(moving.map((address) => address.interface)))
    // A box that nothing holds in the lower segment leaves it; its addresses of IPv6 come along.
    if (
      plan.interface.get(card)!.vlan === vlan &&
      addressesOn(plan, card).every((address) => goes(address) || isSix(address))
    )
      draft.update('interface', card, { vlan: upper.vlan });
  for (const address of moving)
    draft.update('address', address.id, { subnet: upper.id, interface: above.of(address.interface) });
  return new Set(moving.map((address) => hostOf(plan, address).device.id));
}

/** Where a network of IPv6 of the upper segment stands: in the space of that of the lower one, by the VLAN id where it can. */
function placeBeside(plan: Plan, { prefix }: Subnet, { vid }: Vlan): Prefix | null {
  const block = usableSpace(siteOf(plan)).find((one) => covers(one, prefix));
  if (!block) return null;
  const { length } = prefix;
  const habit = length === 64 ? vlanIdPlace64({ space: [block] }, vid) : null;
  if (habit && isUntaken(plan, habit)) return habit;
  return packPrefixes([block], takenPrefixes(plan), [{ key: '', length }]).placed.get('') ?? null;
}

/** The upper segment gets a network of IPv6 like that of the lower, in which everything stands at the same place. */
export function addBeside(
  draft: Draft,
  six: Subnet,
  upper: Vlan,
  went: ReadonlySet<string>,
  above: Interfaces,
): void {
  const { plan } = draft;
  const going = addressesOf(plan, six.id).filter(
    (address) => !address.gateway && went.has(hostOf(plan, address).device.id),
  );
  const prefix = placeBeside(plan, six, upper);
  const [first] = going;
  if (!prefix && first)
    throw new Refusal(
      'no-room',
      `${hostOf(plan, first).device.name} also has ${formatAddress(first.address)}, and no network beside ${formatPrefix(six.prefix)} is free for the upper half. Widen the address space in Brief, or remove that address.`,
      [{ table: 'address', id: first.id }],
      ['subnet'],
    );
  if (!prefix) return;
  const made = draft.insert('subnet', { ...withoutId(six), vlan: upper.id, prefix });
  const moved = <A extends IpAddress>(address: A) => samePlace(six.prefix, prefix, address);
  for (const address of going)
    draft.update('address', address.id, {
      subnet: made.id,
      address: moved(address.address),
      interface: above.of(address.interface),
    });
  for (const gateway of gatewaysOf(plan, six.id))
    draft.insert('address', {
      ...withoutId(gateway),
      subnet: made.id,
      address: moved(gateway.address),
      interface: above.of(gateway.interface),
    });
  for (const table of ['pool', 'exclusion'] as const)
    for (const record of plan[table].group(six.id).values())
      draft.insert(table, {
        ...withoutId(record),
        subnet: made.id,
        start: moved(record.start),
        end: moved(record.end),
        ...above.served(record),
      } as never);
}

/** Whoever routes the whole routes both halves, in each at the same place. */
export function shareRouters(draft: Draft, lower: Subnet, upper: Subnet, above: Interfaces): void {
  for (const gateway of gatewaysOf(draft.plan, lower.id)) {
    const [from, to] = contains(upper.prefix, gateway.address) ? [upper, lower] : [lower, upper];
    const place = opposite(draft, from, to, gateway);
    const [under, over] = from === lower ? [gateway.address, place] : [place, gateway.address];
    draft.update('address', gateway.id, { address: under });
    draft.insert('address', {
      ...withoutId(gateway),
      subnet: upper.id,
      address: over,
      interface: above.of(gateway.interface),
    });
  }
}

/** Where an address of one half stands in the other; where that is taken, the next place for a gateway. */
function opposite(draft: Draft, from: Subnet, to: Subnet, { address }: Address): IpAddress {
  const place = samePlace(from.prefix, to.prefix, address);
  const { first, last } = usableRange(to.prefix);
  const held = addressesOf(draft.plan, to.id).some((other) => other.address === place);
  return place < first || place > last || held ? gatewayPlace(draft, to) : place;
}

/** Cuts pools and exclusions where the halves meet; nobody leases a router’s address, a network or a broadcast address. */
export function sharePools(draft: Draft, lower: string, upper: Subnet, above: Interfaces): void {
  const sides = [draft.need('subnet', lower), upper];
  for (const table of ['pool', 'exclusion'] as const)
    for (const record of [...draft.plan[table].group(lower).values()]) {
      const [first, ...more] = sides.flatMap(({ id, prefix }) => {
        const parts =
          table === 'pool'
            ? hostsIn(record, prefix, routersIn(draft.plan, id))
            : [clip(record, prefix)].filter((part) => part !== null);
        return parts.map((part) => ({ ...part, subnet: id }));
      });
      const servers = (subnet: string) => (subnet === upper.id ? above.served(record) : {});
      if (!first) draft.remove(table, record.id);
      else draft.update(table, record.id, { ...first, ...servers(first.subnet) });
      for (const part of more)
        draft.insert(table, { ...withoutId(record), ...part, ...servers(part.subnet) } as never);
    }
}

/** Routers pass discovers of the upper half on where they did, and to servers that stand in the lower half now. */
export function passOn(draft: Draft, upper: string, above: Interfaces): void {
  const outside = [...draft.plan.pool.group(upper).values()]
    .flatMap(({ servedBy }) => servedBy)
    .filter((id) => ![...above.twins.values()].includes(id))
    .filter((id) => !draft.plan.address.by('interface', id).some(({ subnet }) => subnet === upper));
  const relayAt = (id: string | undefined) =>
    [...draft.plan.relay.values()].find((relay) => relay.interface === id);
  for (const { interface: router } of gatewaysOf(draft.plan, upper)) {
    const [under] = [...above.twins].find(([, over]) => over === router) ?? [];
    const asked = (relayAt(router) ?? relayAt(under))?.servers ?? [];
    const servers = [...new Set([...asked, ...outside])].filter((id) => id !== router);
    if (servers.length > 0) setRelay.run(draft, { interface: router, servers });
  }
}
