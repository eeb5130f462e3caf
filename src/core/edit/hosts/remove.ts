import { type Draft, addressesOn, boxOf, interfacesOf, removeRecords } from '../../plan';

/**
 * Removes addresses and what stood only for them: an interface when nothing else is on it, and a device when that was its last
 * interface, unless it routes or has a box with ports.
 */
export function removeAddresses(draft: Draft, ids: readonly string[]): void {
  const addresses = ids.map((id) => draft.need('address', id));
  removeRecords(draft, 'address', new Set(ids));
  const items = new Set(addresses.map((address) => address.interface));
  for (const id of items) if (addressesOn(draft.plan, id).length > 0) items.delete(id);
  const devices = new Set([...items].map((id) => draft.need('interface', id).device));
  removeRecords(draft, 'interface', items);
  for (const id of devices) if (!standsOnlyForThem(draft, id)) devices.delete(id);
  removeRecords(draft, 'device', devices);
}

function standsOnlyForThem({ plan }: Draft, device: string): boolean {
  const { kind } = plan.device.get(device)!;
  return (
    interfacesOf(plan, device).length === 0 &&
    kind !== 'gateway' &&
    kind !== 'layer3-switch' &&
    !boxOf(plan, device)
  );
}
