import { type Plan, type Device, type Port, boxOf } from '@/core/plan';
import { isPassive, portsOf } from '@/core/model/wiring';

export interface Gear {
  readonly device: Device;
  readonly ports: readonly Port[];
}

const order: Partial<Record<Device['kind'], number>> = {
  'provider-box': 0,
  gateway: 1,
  'layer3-switch': 2,
  switch: 3,
  'unmanaged-switch': 4,
  'access-point': 5,
  server: 6,
};

/** The boxes with ports, from the outside inwards; panels and outlets last. */
export function gearOf(plan: Plan): Gear[] {
  return [...plan.box.values()]
    .map((box) => plan.device.get(box.device)!)
    .sort(
      (a, b) =>
        (order[a.kind] ?? (isPassive(a.kind) ? 9 : 7)) - (order[b.kind] ?? (isPassive(b.kind) ? 9 : 7)) ||
        a.name.localeCompare(b.name, undefined, { numeric: true }),
    )
    .map((device) => ({ device, ports: portsOf(plan, device.id) }));
}

/** Routing devices that stand in the plan without a box yet. */
export const withoutBox = (plan: Plan): Device[] =>
  [...plan.device.values()].filter(
    (device) =>
      ['gateway', 'layer3-switch', 'switch', 'unmanaged-switch', 'access-point', 'provider-box'].includes(
        device.kind,
      ) && !boxOf(plan, device.id),
  );
