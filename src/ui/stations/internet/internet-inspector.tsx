'use client';

import dynamic from 'next/dynamic';
import { usePlan } from '../../session/context';
import { useView } from '../../session/view';

const ForwardInspector = dynamic(() => import('./forward-inspector').then((m) => m.ForwardInspector));
const UplinkInspector = dynamic(() => import('./uplink-inspector').then((m) => m.UplinkInspector));

/** The details of the chosen forward, or of the chosen uplink. */
export function InternetInspector() {
  const plan = usePlan();
  const { uplink: uplinkId, forward: forwardId } = useView();
  const forward = forwardId === null ? undefined : plan.forward.get(forwardId);
  if (forward) return <ForwardInspector key={forward.id} plan={plan} forward={forward} />;
  const uplink = uplinkId === null ? undefined : plan.uplink.get(uplinkId);
  if (uplink) return <UplinkInspector key={uplink.id} plan={plan} uplink={uplink} />;
  return <p className="pb-3 text-muted">Choose an uplink or a forward to see and set what it is.</p>;
}
