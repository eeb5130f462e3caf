'use client';

import { useEffect } from 'react';
import { usePlan } from '../../session/context';
import { useJob } from '../../session/job';
import { type CommissionView, useView } from '../../session/view';
import { type Alternative, OneOf } from '../../parts/one-of';
import { ProgressLine } from '../../parts/progress-line';
import { StationHead } from '../../parts/station-head';
import { BoxesNow } from './boxes-now';
import { KitView } from './kit-view';
import { OrderSheet } from './order-sheet';
import { SettingsView } from './settings-view';

const views: readonly Alternative<CommissionView>[] = [
  { value: 'order', shown: 'order', title: 'what to set where, step by step' },
  { value: 'settings', shown: 'settings', title: 'everything that is to be set at one box, page by page' },
  { value: 'kit', shown: 'kit', title: 'what to bring along, and what to ask for before' },
  { value: 'boxes', shown: 'boxes now', title: 'how each box is before work begins' },
];

/** From the plan to a working network. */
export function CommissionStation() {
  const plan = usePlan();
  const shown = useView((state) => state.commission);
  const set = useView((state) => state.set);
  return (
    <>
      <StationHead title="Commission" about="an order that cannot lock you out">
        <OneOf
          label="Show"
          look="bar"
          value={shown}
          of={views}
          onChoose={(commission) => set({ commission })}
        />
      </StationHead>
      {shown === 'order' && <OrderView />}
      {shown === 'settings' && <SettingsView plan={plan} />}
      {shown === 'kit' && <KitView plan={plan} />}
      {shown === 'boxes' && <BoxesNow plan={plan} />}
    </>
  );
}

/** The order of all settings of the site, worked out off the page whenever the plan changes. */
function OrderView() {
  const plan = usePlan();
  const { start, running, result, stale } = useJob();
  useEffect(() => start({ kind: 'order' }), [start]);
  const sheet = result?.kind === 'order' && !stale ? result.sheet : null;
  return (
    <>
      {running && (
        <p role="status">
          <ProgressLine label="The order is worked out" progress={running} atMost />
        </p>
      )}
      {sheet?.steps === 0 && (
        <p>Nothing is left to set: every box that can be set up is recorded as planned already.</p>
      )}
      {sheet && sheet.steps > 0 && <OrderSheet plan={plan} sheet={sheet} />}
    </>
  );
}
