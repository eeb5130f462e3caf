import { type Family, type IpAddress, type Prefix, contains, familyOf } from '../../address';
import {
  boxOf,
  notOneToOne,
  notRouted,
  type Address,
  derive,
  type Plan,
  type Device,
  type Route,
  type Translation,
  type Tunnel,
  type Uplink,
  addressesOn,
  interfacesOf,
  routersOf,
} from '../../plan';
import { bridgeOf, isMember } from '../wiring';
import { bridgeAt } from '../switching';
import { workingUplinks } from '../uplink';

/** What a router knows: the networks it stands in, and where it sends everything else. */

/** A network a router stands in with an address of its own. */
export interface Leg {
  readonly vlan: string;
  readonly address: IpAddress;
  readonly prefix: Prefix;
}

export interface Router {
  readonly device: Device;
  /** False: the box has addresses in several segments but passes nothing on between them. */
  readonly routes: boolean;
  readonly legs: readonly Leg[];
  readonly statics: readonly Route[];
  readonly tunnels: readonly Tunnel[];
  /** Those that are one to one. */
  readonly translations: readonly Translation[];
  /** Those over which something passes, in the order they are used. */
  readonly uplinks: readonly Uplink[];
}

/** Has the outside of a 1:1 translation a place for each address of the subnet? A subnet that grew may have more. */
export function isOneToOne(plan: Plan, { subnet, outside }: Translation): boolean {
  return notOneToOne(plan.subnet.get(subnet)!.prefix, outside) === null;
}

function make(plan: Plan, device: Device): Router {
  const box = boxOf(plan, device.id);
  const mine = <R extends { readonly device: string }>(records: Iterable<R>): R[] =>
    [...records].filter((record) => record.device === device.id);
  return {
    device,
    routes: box ? box.layer3 : device.kind === 'gateway',
    legs: interfacesOf(plan, device.id).flatMap((item) =>
      addressesOn(plan, item.id).map(({ address, subnet: id }) => {
        const subnet = plan.subnet.get(id)!;
        return { vlan: subnet.vlan, address, prefix: subnet.prefix };
      }),
    ),
    statics: mine(plan.route.values()).filter(({ prefix, via }) => notRouted(prefix, via) === null),
    tunnels: mine(plan.tunnel.values()).filter(({ enabled }) => enabled),
    translations: mine(plan.translation.values()).filter((item) => isOneToOne(plan, item)),
    uplinks: workingUplinks(plan).filter((uplink) => uplink.device === device.id),
  };
}

/** Everything that routes or could, by device; the same objects until something they are made of changes. */
export const routersIn = derive(
  (plan): ReadonlyMap<string, Router> =>
    new Map(routersOf(plan).map((device) => [device.id, make(plan, device)])),
);

/** Is it the same router, however its record was come by? */
export const isSame = (a: Router | null, b: Router | null): boolean => a?.device.id === b?.device.id;

/**
 * Is the interface of a router in a VLAN up? Where its ports are recorded, the inside must be a member, and so must an
 * open port that something could be plugged into.
 */
export function legUp(plan: Plan, router: Router, vlan: string): boolean {
  if (bridgeAt(plan, router.device.id) < 0) return true;
  const { ports, facts, box } = bridgeOf(plan, router.device.id);
  const { vid } = plan.vlan.get(vlan)!;
  // A box without VLANs is in every segment that reaches it without a tag.
  const member = (i: number) => facts[i] != null && (!box.vlanAware || isMember(facts[i]!, vid));
  return (
    ports.some((port, i) => port.number === 0 && member(i)) &&
    ports.some((port, i) => port.number > 0 && member(i))
  );
}

/** Where a router sends a packet on. */
export type NextHop =
  | { readonly by: 'leg'; readonly leg: Leg }
  | { readonly by: 'route'; readonly route: Route; readonly leg: Leg | null }
  | { readonly by: 'tunnel'; readonly tunnel: Tunnel }
  | { readonly by: 'uplink'; readonly uplink: Uplink };

const DEFAULT = -1;

/**
 * The uplinks by which a router sends what it has no other way for: the working ones of the first tier, which share it. IPv6 goes
 * only where a prefix is delegated, as nobody translates it.
 */
export function uplinksOut(router: Router, to: IpAddress): readonly Uplink[] {
  const fit = router.uplinks.filter(({ delegated }) => familyOf(to) === 4 || delegated !== null);
  return fit.filter(({ tier }) => tier === fit[0]!.tier);
}

/**
 * The way of the longest prefix (RFC 1812 section 5.2.4.3): what it stands in, then static routes, then tunnels, last the
 * uplink `by` or the first that is used, which is the way to everything else. Null when it knows none.
 */
export function wayTo(plan: Plan, router: Router, to: IpAddress, by?: string): NextHop | null {
  let best: NextHop | null = null;
  let length = DEFAULT - 1;
  const offer = (way: NextHop, bits: number) => {
    if (bits > length) {
      best = way;
      length = bits;
    }
  };
  for (const leg of router.legs)
    if (contains(leg.prefix, to) && legUp(plan, router, leg.vlan))
      offer({ by: 'leg', leg }, leg.prefix.length);
  for (const route of router.statics)
    if (contains(route.prefix, to))
      offer(
        { by: 'route', route, leg: router.legs.find((leg) => contains(leg.prefix, route.via)) ?? null },
        route.prefix.length,
      );
  for (const tunnel of router.tunnels)
    for (const prefix of tunnel.remote)
      if (contains(prefix, to)) offer({ by: 'tunnel', tunnel }, prefix.length);
  const out = uplinksOut(router, to);
  const uplink = router.uplinks.find(({ id }) => id === by) ?? out[0];
  if (uplink) offer({ by: 'uplink', uplink }, DEFAULT);
  return best;
}

const holders = derive((plan): ReadonlyMap<IpAddress, readonly string[]> => {
  const found = new Map<IpAddress, string[]>();
  plan.address.forEach(({ id, address }) => {
    const list = found.get(address);
    if (list) list.push(id);
    else found.set(address, [id]);
  });
  for (const list of found.values()) list.sort();
  return found;
});
/** The address records that carry an address: several when it was given twice, or stands behind translations. */
export const holdersOf = (plan: Plan, address: IpAddress): readonly Address[] =>
  (holders(plan).get(address) ?? []).map((id) => plan.address.get(id)!);

/** The routers that have an address. */
export const routersAt = (plan: Plan, address: IpAddress): Router[] =>
  holdersOf(plan, address).flatMap(
    ({ interface: item }) => routersIn(plan).get(plan.interface.get(item)!.device) ?? [],
  );

/**
 * The address at which a router is reached from another on a network both stand in: where it sends to the other one itself, else the
 * first. Null where they share none.
 */
export function meetingPoint(from: Router, to: Router, family: Family): IpAddress | null {
  const shared = to.legs.filter(
    ({ address }) =>
      familyOf(address) === family && from.legs.some(({ prefix }) => contains(prefix, address)),
  );
  const own = from.legs.map(({ address }) => address);
  const used = to.statics.filter(({ via }) => own.includes(via));
  const best = shared.find(({ prefix }) => used.some(({ via }) => contains(prefix, via)));
  return (best ?? shared[0])?.address ?? null;
}
