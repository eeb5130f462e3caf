import { type Draft, boxOf, removeRecord, addressesOn, interfacesOf } from '../../plan';

/**
 * Removes an address and what stood only for it: the interface when nothing else is on it, and the device when that
 * was its last interface, unless it routes or has a box with ports. Returns true when the device went too.
 */
export function removeAddress(draft: Draft, id: string): boolean {
  const address = draft.need('address', id);
  removeRecord(draft, { table: 'address', id });
  if (addressesOn(draft.plan, address.interface).length > 0) return false;
  const item = draft.need('interface', address.interface);
  removeRecord(draft, { table: 'interface', id: item.id });
  const device = draft.need('device', item.device);
  if (interfacesOf(draft.plan, device.id).length > 0) return false;
  if (device.kind === 'gateway' || device.kind === 'layer3-switch' || boxOf(draft.plan, device.id))
    return false;
  removeRecord(draft, { table: 'device', id: device.id });
  return true;
}
