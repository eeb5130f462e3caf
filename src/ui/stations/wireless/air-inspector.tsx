'use client';

import { usePlan } from '../../session/context';
import { useView } from '../../session/view';
import { AccessPointInspector } from './access-point-inspector';
import { SsidInspector } from './ssid-inspector';

/** The details of the chosen network, or of the chosen access point. */
export function AirInspector() {
  const plan = usePlan();
  const { ssid: id, accessPoint } = useView();
  const ssid = id === null ? undefined : plan.ssid.get(id);
  if (ssid) return <SsidInspector key={ssid.id} plan={plan} ssid={ssid} />;
  const device = accessPoint === null ? undefined : plan.device.get(accessPoint);
  if (device) return <AccessPointInspector key={device.id} plan={plan} device={device} />;
  return <p className="pb-3 text-muted">Choose a network or an access point to see and set what it is.</p>;
}
