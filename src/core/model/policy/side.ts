import { type IpAddress, contains, formatAddress } from '../../address';
import type { Plan, Route, Zone } from '../../plan';
import type { Router } from '../routing';
import { type PacketSide, vlanOfAddress } from './decide';
import { LINES, insideSpans, spanOf, tunnelSpans, vlanSpans } from './traffic';
import { type Span, gaps } from './traffic-range';
import { isOutside, ownMembers, zoneOfVlan, zonesOf } from './zones';

/**
 * In which zone a router puts an address it meets on one of its legs: said once for one address, and once as all addresses of a
 * zone. Law: an address is of a side in a zone exactly when it is among the addresses of that zone.
 */

const allTunnels = (plan: Plan): Span[] =>
  tunnelSpans(
    plan,
    [...plan.tunnel.values()].map(({ id }) => id),
  );
/** Static routes into networks that are not of this site, the longest prefix first; a default route leads outside. */
const routesBeyond = (router: Router): Route[] =>
  router.statics
    .filter(({ prefix }) => prefix.length > 0)
    .sort((a, b) => b.prefix.length - a.prefix.length || (a.id < b.id ? -1 : 1));
/** The segment in which the next router on a route stands. */
const legOfRoute = (router: Router, { via }: Route): string | undefined =>
  router.legs.find(({ prefix }) => contains(prefix, via))?.vlan;

/**
 * An address of the site is of its segment, whichever way it comes; one behind a tunnel of that; one that a static route leads to of
 * the segment of the next router. Anything else is outside, for a router that has no uplink of its own to tell it by.
 */
export function sideOfAddress(plan: Plan, router: Router, address: IpAddress): PacketSide {
  const own = vlanOfAddress(plan, address);
  if (own !== null) return { vlan: own };
  const tunnel = [...plan.tunnel.values()].find(({ remote }) =>
    remote.some((prefix) => contains(prefix, address)),
  );
  if (tunnel) return { tunnel: tunnel.id };
  const route = routesBeyond(router).find(({ prefix }) => contains(prefix, address));
  const vlan = route && legOfRoute(router, route);
  if (vlan !== undefined) return { vlan };
  if (!route && router.uplinks.length === 0) return { outside: true };
  return { nowhere: `${formatAddress(address)} is in no segment of this site` };
}

/** All addresses that a router takes for those of a zone when it meets them on a leg. */
export function spansAt(plan: Plan, router: Router, zone: Zone): Span[] {
  const { vlans, tunnels } = ownMembers(plan, zone);
  const known: Span[] = [...insideSpans(plan), ...allTunnels(plan)];
  const beyond: Span[] = [];
  for (const route of routesBeyond(router)) {
    const vlan = legOfRoute(router, route);
    if (vlan !== undefined && zoneOfVlan(plan, vlan)?.id === zone.id)
      beyond.push(...gaps(spanOf(route.prefix), known));
    known.push(spanOf(route.prefix));
  }
  const first = zonesOf(plan).find(isOutside);
  const outside =
    first?.id === zone.id && router.uplinks.length === 0 ? LINES.flatMap((line) => gaps(line, known)) : [];
  return [
    ...vlans.flatMap((vlan) => vlanSpans(plan, vlan)),
    ...tunnelSpans(plan, tunnels),
    ...beyond,
    ...outside,
  ];
}
