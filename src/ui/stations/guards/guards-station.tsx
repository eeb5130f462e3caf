'use client';

import dynamic from 'next/dynamic';
import { useMemo, useState } from 'react';
import { boxOf } from '@/core/plan';
import { boxesInOrder } from '@/core/model/switching';
import { usePlan } from '../../session/context';
import { useView } from '../../session/view';
import { useCommands } from '../../shell/commands';
import { OneOf } from '../../parts/one-of';
import { StationHead } from '../../parts/station-head';
import { BoxGuards } from './box-guards';
import { BoxesTable } from './boxes-table';
import { SwitchOn } from './switch-on';

const AccessView = dynamic(() => import('./access-view').then((m) => m.AccessView));
const TelephonesView = dynamic(() => import('./telephones-view').then((m) => m.TelephonesView));
const HardeningView = dynamic(() => import('./hardening-view').then((m) => m.HardeningView));

const views = [
  { value: 'frames' as const, shown: 'what ports say', title: 'who is believed at which port' },
  { value: 'access' as const, shown: 'who is let in', title: 'ports that ask who is there' },
  { value: 'voice' as const, shown: 'telephones', title: 'how telephones start, and what they are told' },
  { value: 'boxes' as const, shown: 'hardening', title: 'what is done to each box before it is left alone' },
];

/** What ports are trusted with and held to, and whom guards would stop. */
export function GuardsStation() {
  const plan = usePlan();
  const device = useView((state) => state.device);
  const [trying, setTrying] = useState(false);
  const [shown, setShown] = useState<(typeof views)[number]['value']>('frames');
  const able = boxesInOrder(plan)
    .map(({ device: id }) => plan.device.get(id)!)
    .filter(({ id }) => boxOf(plan, id)?.snooping || plan.vlanGuard.group(id).size > 0);
  const none = able.length === 0;
  const commands = useMemo(
    () => (none ? [] : [{ key: 'o', name: 'switch guards on', run: () => setTrying(true) }]),
    [none],
  );
  useCommands(commands);
  const chosen = able.find(({ id }) => id === device) ?? able[0];
  return (
    <>
      <StationHead title="Guards" about="">
        <OneOf label="Show" look="bar" value={shown} of={views} onChoose={setShown} />
        <button
          type="button"
          className="button button-primary"
          disabled={none}
          aria-expanded={trying}
          onClick={() => setTrying(!trying)}
        >
          Switch on… <span className="key">o</span>
        </button>
      </StationHead>
      {none && (
        <p className="pb-3">
          No box here can watch what its ports say. Under Gear &amp; ports a box says whether it can (DHCP
          snooping).
        </p>
      )}
      {trying && !none && <SwitchOn plan={plan} able={able} onClose={() => setTrying(false)} />}
      {shown === 'frames' && !none && <BoxesTable plan={plan} boxes={able} chosen={chosen!.id} />}
      {shown === 'frames' && chosen && <BoxGuards key={chosen.id} plan={plan} device={chosen} />}
      {shown === 'access' && <AccessView plan={plan} />}
      {shown === 'voice' && <TelephonesView plan={plan} />}
      {shown === 'boxes' && <HardeningView plan={plan} />}
    </>
  );
}
