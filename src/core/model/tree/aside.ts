import type { Lag, Plan } from '../../plan';
import type { Fabric, WiredPort } from '../wiring';

/** The members of LACP bundles that stand aside, as a bundle has one partner (IEEE 802.1AX-2020 clause 6.3.1). */

/** The bundle at the other end of a port whose link is up; null for none. */
function farBundle(plan: Plan, { bridges, seats, links }: Fabric, port: WiredPort): Lag | null {
  for (const { to } of links.get(port.id) ?? []) {
    const seat = seats.get(to);
    const far = seat && bridges[seat.bridge]!;
    if (!far?.facts[seat!.port]) continue;
    const lag = plan.lag.get(far.ports[seat!.port]!.lag ?? '');
    if (lag) return lag;
  }
  return null;
}

/**
 * Ports through which nothing passes, since their bundle stands with another partner: with the one most links lead to, of
 * several such with the one at the lowest port. Or since the bundle at the other end says no LACP, and sends over all of its
 * links as over one; boxes that then let single links pass lose a part of it, so nothing is counted on.
 */
export function portsAside(plan: Plan, fabric: Fabric): ReadonlySet<string> {
  const aside = new Set<string>();
  for (const lag of plan.lag.values()) {
    if (!lag.lacp) continue;
    const bridge = fabric.bridges.find(({ device }) => device === lag.device);
    const partners = new Map<string, string[]>();
    bridge?.ports.forEach((port, i) => {
      if (port.lag !== lag.id || !bridge.facts[i]) return;
      const far = farBundle(plan, fabric, port);
      if (far?.lacp) partners.set(far.id, [...(partners.get(far.id) ?? []), port.id]);
      else if (far) aside.add(port.id);
    });
    if (partners.size < 2) continue;
    const [, ...others] = [...partners.values()].sort((a, b) => b.length - a.length);
    for (const id of others.flat()) aside.add(id);
  }
  return aside;
}
