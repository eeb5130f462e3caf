import { type IpAddress, familyOf } from '../address';
import { type Plan, subnetOf } from '../plan';
import { discover } from './dhcp';
import { type Entry, entryTitle, landsAt, placeAt } from './entry';
import { keptOverSix } from './guards/over-six';
import { type Host, newcomer, newcomerAddress } from './host';

/** Somebody new over IPv6 as guards leave it: without a router that is not heard, or why without an address. */
function unguarded(plan: Plan, vlan: string, host: Host | null): Host | string | null {
  const subnet = host && familyOf(host.address) === 6 ? subnetOf(plan, vlan, 6) : undefined;
  if (!host || !subnet) return host;
  const { router, lease } = keptOverSix(plan, subnet, host.place);
  const makes = subnet.advertised && subnet.prefix.length === 64;
  const leased = plan.pool.group(subnet.id).size > 0;
  if ((!makes || router !== null) && (!leased || lease !== null))
    return `no IPv6 address: ${router ?? lease}`;
  return router === null ? host : { ...host, gateway: null };
}

/**
 * A laptop plugged into a port or on a wireless network, with the settings it is leased there. Where nothing is leased its owner sets them by hand, and of
 * IPv6 it makes them itself. A text says why it has no address.
 */
export function newcomerAt(
  plan: Plan,
  entry: Entry,
  to: IpAddress | null,
  today: string | null,
): Host | string {
  const { vlan, why } = landsAt(plan, entry);
  if (!vlan) return why;
  const title = `a laptop ${'port' in entry ? 'in' : 'on'} ${entryTitle(plan, entry)}`;
  const place = placeAt(plan, entry);
  const subnet = subnetOf(plan, vlan.id, 4);
  const family = to === null ? undefined : familyOf(to);
  if (family === 6 || !subnet || plan.pool.group(subnet.id).size === 0)
    return (
      unguarded(plan, vlan.id, newcomer(plan, vlan.id, place, title, family, to)) ??
      (family !== undefined && subnet
        ? `${vlan.name} has no IPv${family} addresses`
        : `${vlan.name} has no addresses`)
    );
  const { taken, summary } = discover(plan, { at: entry, mac: null, rogueAt: null }, today);
  if (!taken?.offer) return summary.charAt(0).toLowerCase() + summary.slice(1);
  const { address: offered, length, gateway } = taken.offer;
  const address = offered === to ? newcomerAddress(plan, subnet, to) : offered;
  if (address === null) return 'no address is left in the segment it lands in';
  return { title, device: null, place, vlan: vlan.id, address, length, gateway, on: null, own: false };
}
