import { type IpAddress, contains, familyOf, formatAddress, formatPrefix, samePlace } from '../address';
import {
  type Forward,
  type Plan,
  type Remedy,
  type Translation,
  type Uplink,
  gatewaysOf,
  hostOf,
} from '../plan';
import type { PacketSide, Wanted } from '../model/policy';
import {
  type Leg,
  type NextHop,
  type Router,
  isSame,
  legUp,
  meetingPoint,
  routersIn,
} from '../model/routing';
import { forwardedTo, forwardsOf, protocolsMeet, uplinkDown, uplinksOf } from '../model/uplink';

/** What a router makes of an address, by itself: its way there, its other name, the forward that takes it. */

/** An interface of a router that no port lets anything into. */
export function downAt(plan: Plan, { vlan }: Leg): string {
  const { vid, name } = plan.vlan.get(vlan)!;
  return `its interface in VLAN ${vid} ${name} is down, as none of its ports is in it`;
}

/** Why a router has no way to an address: none at all, or none that works. */
export function noWay(plan: Plan, router: Router, to: IpAddress): string {
  const down = router.legs.find(({ prefix, vlan }) => contains(prefix, to) && !legUp(plan, router, vlan));
  if (down) return downAt(plan, down);
  const nothing = `it knows no way to ${formatAddress(to)}`;
  const own = uplinksOf(plan).filter(({ device, enabled }) => device === router.device.id && enabled);
  if (own.length === 0) return `${nothing} and has no default route`;
  if (router.uplinks.length > 0) return `${nothing}: no provider delegates an IPv6 prefix to it`;
  return `${nothing}: ${own.map(({ id, name }) => `${name} is down, as ${uplinkDown(plan, id)!}`).join('; ')}`;
}

/** A route to the network of an address, by way of its own router where the two share a network; empty where they do not. */
export function wayInside(plan: Plan, router: Router, to: IpAddress): Remedy[] {
  for (const subnet of plan.subnet.values()) {
    if (!contains(subnet.prefix, to)) continue;
    for (const gateway of gatewaysOf(plan, subnet.id)) {
      const home = routersIn(plan).get(hostOf(plan, gateway).device.id);
      if (!home?.routes || isSame(home, router)) continue;
      const via = meetingPoint(router, home, familyOf(to));
      if (via === null) continue;
      const [prefix, next] = [formatPrefix(subnet.prefix), formatAddress(via)];
      return [
        {
          label: `Let ${router.device.name} send ${prefix} to ${home.device.name} at ${next}`,
          operation: 'addRoute',
          input: { device: router.device.id, prefix, via: next },
        },
      ];
    }
  }
  return [];
}

/** The side of a packet that leaves by a way. */
export function sideOfWay(way: NextHop): PacketSide {
  switch (way.by) {
    case 'leg':
      return { vlan: way.leg.vlan };
    case 'route':
      return way.leg ? { vlan: way.leg.vlan } : { gateway: true };
    case 'tunnel':
      return { tunnel: way.tunnel.id };
    case 'uplink':
      return { uplink: way.uplink.id };
  }
}

/** The address that stands for another in a 1:1 translation; null when it is not about this one. */
export function oneToOne(
  plan: Plan,
  item: Translation,
  address: IpAddress,
  to: 'in' | 'out',
): IpAddress | null {
  const inside = plan.subnet.get(item.subnet)!.prefix;
  const [from, into] = to === 'out' ? [inside, item.outside] : [item.outside, inside];
  if (!contains(from, address)) return null;
  return samePlace(from, into, address);
}

/** The forward of an uplink that takes a port, from somebody outside where `from` says who. */
export const forwardFor = (
  plan: Plan,
  uplink: Uplink,
  { protocol, port }: Wanted,
  from: IpAddress | null = null,
): Forward | null =>
  uplink.noForwards
    ? null
    : (forwardsOf(plan, uplink.id).find(
        (forward) =>
          forward.enabled &&
          forwardedTo(plan, forward) !== null &&
          protocol !== 'icmp' &&
          protocolsMeet(forward.protocol, protocol) &&
          forward.from <= port &&
          port <= forward.to &&
          (from === null ||
            forward.sources.length === 0 ||
            forward.sources.some((prefix) => contains(prefix, from))),
      ) ?? null);
