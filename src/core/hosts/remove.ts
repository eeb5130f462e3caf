import type { Draft } from '../plan/draft';
import { addressesOn, interfacesOf } from '../plan/view';
import { removeGear } from '../gear/remove';
import { removeForwardsTo } from '../uplink/remove';
import { boxOf } from '../plan/box-of';

/** Removes an interface and every mention of it: as a DNS server of a subnet, as the server of a pool, as the target of a forward. */
export function removeInterface(draft: Draft, id: string): void {
  for (const subnet of draft.plan.subnet.values())
    if (subnet.dns.some((server) => 'interface' in server && server.interface === id))
      draft.update('subnet', subnet.id, {
        dns: subnet.dns.filter((server) => !('interface' in server && server.interface === id)),
      });
  for (const pool of draft.plan.pool.values())
    if (pool.servedBy.includes(id))
      draft.update('pool', pool.id, { servedBy: pool.servedBy.filter((server) => server !== id) });
  for (const relay of [...draft.plan.relay.values()])
    if (relay.interface === id) draft.remove('relay', relay.id);
    else if (relay.servers.includes(id))
      draft.update('relay', relay.id, { servers: relay.servers.filter((server) => server !== id) });
  removeForwardsTo(draft, id);
  draft.remove('interface', id);
}

/**
 * Removes an address and what stood only for it: the interface when nothing else is on it, and the device when that
 * was its last interface, unless it routes or has a box with ports. Returns true when the device went too.
 */
export function removeAddress(draft: Draft, id: string): boolean {
  const address = draft.need('address', id);
  draft.remove('address', id);
  if (addressesOn(draft.plan, address.interface).length > 0) return false;
  const item = draft.need('interface', address.interface);
  removeInterface(draft, item.id);
  const device = draft.need('device', item.device);
  if (interfacesOf(draft.plan, device.id).length > 0) return false;
  if (device.kind === 'gateway' || device.kind === 'layer3-switch' || boxOf(draft.plan, device.id))
    return false;
  removeGear(draft, device.id);
  draft.remove('device', device.id);
  return true;
}
