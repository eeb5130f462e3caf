import {
  type Plan,
  type Device,
  type Port,
  type Vlan,
  addressesOn,
  interfacesOf,
  boxOf,
  type Remedy,
} from '../../../plan';
import { cablesAt, linksAt } from '../../../model/wiring';
import type { BoxCheck, SiteCheck } from '../../finding';

/** What the checks of gear have in common. */

export const gearCheck = (id: string, find: SiteCheck['find']): SiteCheck => ({
  id,
  station: 'gear',
  scope: 'site',
  find,
});

export const isCabled = (plan: Plan, port: Pick<Port, 'id'>): boolean =>
  cablesAt(plan, { port: port.id, side: 'front' }).length > 0;

export const boxCheck = (id: string, find: BoxCheck['find']): BoxCheck => ({
  id,
  station: 'gear',
  scope: 'box',
  find,
});
/** A check of the boxes that understand VLANs. */
export const vlanBoxCheck = (id: string, find: BoxCheck['find']): BoxCheck =>
  boxCheck(id, (plan, view, today) => (view.box.vlanAware ? find(plan, view, today) : []));

export const assign = (
  label: string,
  ports: readonly Pick<Port, 'id'>[],
  role: Port['role'],
  fields: object = {},
): Remedy => ({
  label,
  operation: 'assignPorts',
  input: { ports: ports.map((port) => port.id), role, ...fields },
});

/** The segments a device has addresses in. */
export const segmentsOf = (plan: Plan, device: string): Vlan[] => {
  const ids = interfacesOf(plan, device)
    .flatMap((item) => addressesOn(plan, item.id))
    .map((address) => plan.subnet.get(address.subnet)!.vlan);
  return [...new Set(ids)].map((id) => plan.vlan.get(id)!);
};

/** The end devices a port leads to. */
export const endsAt = (plan: Plan, port: Pick<Port, 'id' | 'device'>): Device[] =>
  linksAt(plan, port)
    .map((link) => plan.device.get(plan.port.get(link.to)!.device)!)
    .filter((device) => !boxOf(plan, device.id));

/** Does a port lead to another box? */
export const leadsToBox = (plan: Plan, port: Port): boolean =>
  linksAt(plan, port).some(({ to }) => boxOf(plan, plan.port.get(to)!.device) !== undefined);
