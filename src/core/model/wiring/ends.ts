import { type Device, type Plan, type Port, type Vlan, addressesOn, boxOf, interfacesOf } from '../../plan';
import { linksAt } from './wiring';

/** The end devices a port leads to. */
export const endsAt = (plan: Plan, port: Pick<Port, 'id' | 'device'>): Device[] =>
  linksAt(plan, port)
    .map((link) => plan.device.get(plan.port.get(link.to)!.device)!)
    .filter((device) => !boxOf(plan, device.id));

/** The segments a device has addresses in. */
export function homesOf(plan: Plan, device: string): Vlan[] {
  const ids = interfacesOf(plan, device)
    .flatMap((item) => addressesOn(plan, item.id))
    .map((address) => plan.subnet.get(address.subnet)!.vlan);
  return [...new Set(ids)].map((id) => plan.vlan.get(id)!);
}
