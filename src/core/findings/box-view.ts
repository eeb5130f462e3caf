import { type Box, type Device, type Plan, type Port, boxOf, derive } from '../plan';
import { isPassive, portsOf } from '../model/wiring';

/** A box that passes frames on, with what its checks look at. */
export interface BoxView {
  readonly box: Box;
  readonly device: Device;
  /** Those on the case, without the inner one. */
  readonly ports: readonly Port[];
}

/** The devices with a box that passes frames on. */
export const bridgingDevices = derive((plan): readonly string[] => [
  ...new Set(
    [...plan.box.values()]
      .map(({ device }) => device)
      .filter((device) => !isPassive(plan.device.get(device)!.kind)),
  ),
]);

export function boxView(plan: Plan, id: string): BoxView {
  const device = plan.device.get(id)!;
  return {
    box: boxOf(plan, id)!,
    device,
    ports: portsOf(plan, id).filter((port) => port.number > 0),
  };
}
