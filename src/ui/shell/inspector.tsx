'use client';

import { HostInspector } from '../stations/addresses/host-inspector';
import { GearInspector } from '../stations/gear/gear-inspector';
import { InternetInspector } from '../stations/internet/internet-inspector';
import { PolicyInspector } from '../stations/policy/policy-inspector';
import { SegmentInspector } from '../stations/segments/segment-inspector';
import { useStation } from './findings-panel';

/** The details of what is selected, on the stations that have something to select. */
export function Inspector() {
  const station = useStation();
  if (station === 'segments') return <SegmentInspector />;
  if (station === 'addresses') return <HostInspector />;
  if (station === 'gear') return <GearInspector />;
  if (station === 'internet') return <InternetInspector />;
  if (station === 'policy') return <PolicyInspector />;
  return null;
}
