'use client';

import { useEffect, useState } from 'react';
import { usePlan } from '../../session/context';
import { useJob } from '../../session/job';
import { OneOf } from '../../parts/one-of';
import { ProgressLine } from '../../parts/progress-line';
import { StationHead } from '../../parts/station-head';
import { BoxesNow } from './boxes-now';
import { OrderSheet } from './order-sheet';

const views = [
  { value: 'order' as const, shown: 'order', title: 'what to set where, step by step' },
  { value: 'boxes' as const, shown: 'boxes now', title: 'how each box is before work begins' },
];

/** The order of all settings of the site, worked out off the page whenever the plan changes. */
export function CommissionStation() {
  const plan = usePlan();
  const [shown, setShown] = useState<(typeof views)[number]['value']>('order');
  const { start, running, result, stale } = useJob();
  useEffect(() => start({ kind: 'order' }), [start]);
  const sheet = result?.kind === 'order' && !stale ? result.sheet : null;
  return (
    <>
      <StationHead title="Commission" about="an order that cannot lock you out">
        <OneOf label="Show" look="bar" value={shown} of={views} onChoose={setShown} />
      </StationHead>
      {shown === 'boxes' && <BoxesNow plan={plan} />}
      {shown === 'order' && running && (
        <p role="status">
          <ProgressLine label="The order is worked out" progress={running} atMost />
        </p>
      )}
      {shown === 'order' && sheet?.steps === 0 && (
        <p>Nothing is left to set: every box that can be set up is recorded as planned already.</p>
      )}
      {shown === 'order' && sheet && sheet.steps > 0 && <OrderSheet plan={plan} sheet={sheet} />}
    </>
  );
}
