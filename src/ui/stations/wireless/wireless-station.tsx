'use client';

import dynamic from 'next/dynamic';
import { useMemo, useState } from 'react';
import { accessPoints, ssidsOf } from '@/core/model/wireless';
import { usePlan } from '../../session/context';
import { type AirView, useView } from '../../session/view';
import { useCommands } from '../../shell/commands';
import { OneOf } from '../../parts/one-of';
import { StationHead } from '../../parts/station-head';
import { NetworksView } from './networks-view';

const AirPanel = dynamic(() => import('./air-panel').then((m) => m.AirPanel));
const FloorPanel = dynamic(() => import('./floor-panel').then((m) => m.FloorPanel));
const ChannelPlan = dynamic(() => import('./channel-plan').then((m) => m.ChannelPlan));

const views: readonly { readonly value: AirView; readonly shown: string; readonly title: string }[] = [
  { value: 'networks', shown: 'networks', title: 'names, where they lead, how they are secured' },
  { value: 'air', shown: 'air', title: 'radios on their channels, and who hears whom' },
  { value: 'floor', shown: 'floor', title: 'where access points hang, in metres' },
];

/** What goes through the air: networks, radios, and where they hang. */
export function WirelessStation() {
  const plan = usePlan();
  const { air, set } = useView();
  const [planning, setPlanning] = useState(false);
  const none = accessPoints(plan).length === 0;
  const commands = useMemo(
    () => [
      ...views.map(({ value, title }, i) => ({
        key: ['w', 'i', 'l'][i]!,
        name: `show the ${value}: ${title}`,
        run: () => set({ air: value }),
      })),
      ...(none ? [] : [{ key: 'c', name: 'assign channels', run: () => setPlanning(true) }]),
    ],
    [set, none],
  );
  useCommands(commands);
  return (
    <>
      <StationHead title="Wireless" about="networks, radios, and who hears whom">
        <OneOf label="Show" look="bar" value={air} of={views} onChoose={(value) => set({ air: value })} />
        <button
          type="button"
          className="button button-primary"
          disabled={none}
          aria-expanded={planning}
          onClick={() => setPlanning(!planning)}
        >
          Assign channels… <span className="key">c</span>
        </button>
      </StationHead>
      {none && (
        <p className="pb-3">
          {ssidsOf(plan).length === 0 ? 'Nothing is on the air yet. ' : ''}No access point is recorded: add
          one under Gear &amp; ports, or give a gateway a radio here once it is chosen there.
        </p>
      )}
      {planning && !none && <ChannelPlan plan={plan} onClose={() => setPlanning(false)} />}
      {air === 'networks' && <NetworksView plan={plan} />}
      {air === 'air' && <AirPanel plan={plan} />}
      {air === 'floor' && <FloorPanel plan={plan} />}
    </>
  );
}
