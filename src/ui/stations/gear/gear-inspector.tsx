'use client';

import { usePlan } from '../../session/context';
import { useView } from '../../session/view';
import { BoxInspector } from './box-inspector';
import { PortInspector } from './port-inspector';

/** The details of the chosen ports, or of the chosen box. */
export function GearInspector() {
  const plan = usePlan();
  const { ports: ids, device: id } = useView();
  const ports = ids.flatMap((port) => plan.port.get(port) ?? []);
  if (ports.length > 0) return <PortInspector key={ids.join()} plan={plan} ports={ports} />;
  const device = id === null ? undefined : plan.device.get(id);
  if (device) return <BoxInspector key={device.id} plan={plan} device={device} />;
  return <p className="pb-3 text-muted">Choose ports or a box to see and set what they are.</p>;
}
