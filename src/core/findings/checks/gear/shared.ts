import {
  type Plan,
  type Box,
  type Device,
  type Port,
  type Vlan,
  addressesOn,
  interfacesOf,
  boxOf,
  type Remedy,
} from '../../../plan';
import { cablesAt, isPassive, linksOf, portsOf } from '../../../model/wiring';
import type { SiteCheck } from '../../finding';

/** What the checks of gear have in common. */

export const gearCheck = (id: string, find: SiteCheck['find']): SiteCheck => ({
  id,
  station: 'gear',
  scope: 'site',
  find,
});

export const ref = (port: Pick<Port, 'id'>) => ({ table: 'port' as const, id: port.id });
export const isCabled = (plan: Plan, port: Port): boolean =>
  cablesAt(plan, { port: port.id, side: 'front' }).length > 0;

export interface Bridging {
  readonly box: Box;
  readonly device: Device;
  /** Those on the case, without the inner one. */
  readonly ports: readonly Port[];
}
/** The boxes that pass frames on. */
export function* bridging(plan: Plan): Generator<Bridging> {
  for (const box of plan.box.values()) {
    const device = plan.device.get(box.device)!;
    if (!isPassive(device.kind))
      yield { box, device, ports: portsOf(plan, device.id).filter((port) => port.number > 0) };
  }
}
/** The ports on the cases of boxes that understand VLANs. */
export function* vlanPorts(plan: Plan): Generator<Port> {
  for (const { box, ports } of bridging(plan)) if (box.vlanAware) yield* ports;
}

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
export const endsAt = (plan: Plan, port: Port): Device[] =>
  (linksOf(plan).get(port.id) ?? [])
    .map((link) => plan.device.get(plan.port.get(link.to)!.device)!)
    .filter((device) => !boxOf(plan, device.id));
