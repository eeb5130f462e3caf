'use client';

import dynamic from 'next/dynamic';
import type { ComponentType } from 'react';
import { useStation } from './findings-panel';

/** Each station's details come when the station is first shown. */
const inspectors: Readonly<Record<string, ComponentType>> = {
  segments: dynamic(() => import('../stations/segments/segment-inspector').then((m) => m.SegmentInspector)),
  addresses: dynamic(() => import('../stations/addresses/host-inspector').then((m) => m.HostInspector)),
  gear: dynamic(() => import('../stations/gear/gear-inspector').then((m) => m.GearInspector)),
  wireless: dynamic(() => import('../stations/wireless/air-inspector').then((m) => m.AirInspector)),
  guards: dynamic(() => import('../stations/guards/guards-inspector').then((m) => m.GuardsInspector)),
  internet: dynamic(() => import('../stations/internet/internet-inspector').then((m) => m.InternetInspector)),
  policy: dynamic(() => import('../stations/policy/policy-inspector').then((m) => m.PolicyInspector)),
};

/** The details of what is selected, on the stations that have something to select. */
export function Inspector() {
  const Details = inspectors[useStation()];
  return Details ? <Details /> : null;
}
