'use client';

import dynamic from 'next/dynamic';
import { LogProvider } from '../../session/log-context';
import { usePlan } from '../../session/context';
import { type CommissionView, useView } from '../../session/view';
import { type Alternative, OneOf } from '../../parts/one-of';
import { StationHead } from '../../parts/station-head';
import { OrderView } from './order-view';

/** It is looked at now and then, and brings a pad to sign on. */
const LogView = dynamic(() => import('../../log/log-view').then((m) => m.LogView));

const BoxesNow = dynamic(() => import('./boxes-now').then((m) => m.BoxesNow));
const KitView = dynamic(() => import('./kit-view').then((m) => m.KitView));
const SettingsView = dynamic(() => import('./settings-view').then((m) => m.SettingsView));

const PracticeView = dynamic(() => import('./practice-view').then((m) => m.PracticeView));

const FoundView = dynamic(() => import('./found-view').then((m) => m.FoundView));

const TestsView = dynamic(() => import('./tests-view').then((m) => m.TestsView));

const views: readonly Alternative<CommissionView>[] = [
  { value: 'order', shown: 'order', title: 'what to set where, step by step' },
  { value: 'settings', shown: 'settings', title: 'everything that is to be set at one box, page by page' },
  { value: 'kit', shown: 'kit', title: 'what to bring along, and what to ask for before' },
  { value: 'boxes', shown: 'boxes now', title: 'how each box is before work begins' },
  { value: 'tests', shown: 'tests', title: 'what to try when it is set up, and what must come of it' },
  { value: 'found', shown: 'as found', title: 'what the site shows, put beside what is planned' },
  {
    value: 'practice',
    shown: 'practice',
    title: 'pretend boxes that take settings and cut you off like real ones',
  },
  { value: 'log', shown: 'logbook', title: 'runs, defects, sign-offs and everything that was written down' },
];

/** From the plan to a working network. */
export function CommissionStation() {
  const plan = usePlan();
  const shown = useView((state) => state.commission);
  const set = useView((state) => state.set);
  return (
    <LogProvider>
      <StationHead title="Commission" about="nobody locked out">
        <OneOf
          label="Show"
          look="bar"
          value={shown}
          of={views}
          onChoose={(commission) => set({ commission })}
        />
      </StationHead>
      {shown === 'order' && <OrderView plan={plan} />}
      {shown === 'settings' && <SettingsView plan={plan} />}
      {shown === 'kit' && <KitView plan={plan} />}
      {shown === 'boxes' && <BoxesNow plan={plan} />}
      {shown === 'tests' && <TestsView plan={plan} />}
      {shown === 'found' && <FoundView plan={plan} />}
      {shown === 'practice' && <PracticeView plan={plan} />}
      {shown === 'log' && <LogView plan={plan} />}
    </LogProvider>
  );
}
