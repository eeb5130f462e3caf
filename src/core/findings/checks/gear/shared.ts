import { type Plan, type Port, boxOf, type Remedy } from '../../../plan';
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

/** Does a port lead to another box? */
export const leadsToBox = (plan: Plan, port: Port): boolean =>
  linksAt(plan, port).some(({ to }) => boxOf(plan, plan.port.get(to)!.device) !== undefined);
