'use client';

import { useEffect } from 'react';
import { usePlan } from '../../session/context';
import { useJob } from '../../session/job';
import { ProgressLine } from '../../parts/progress-line';
import { StationHead } from '../../parts/station-head';
import { OrderSheet } from './order-sheet';

/** The order of all settings of the site, worked out off the page whenever the plan changes. */
export function CommissionStation() {
  const plan = usePlan();
  const { start, running, result, stale } = useJob();
  useEffect(() => start({ kind: 'order' }), [start]);
  const sheet = result?.kind === 'order' && !stale ? result.sheet : null;
  return (
    <>
      <StationHead title="Commission" about="an order that cannot lock you out" />
      {running && (
        <p role="status">
          <ProgressLine label="The order is worked out" progress={running} atMost />
        </p>
      )}
      {sheet && sheet.steps === 0 && (
        <p>Nothing is left to set: every box that can be set up is recorded as planned already.</p>
      )}
      {sheet && sheet.steps > 0 && <OrderSheet plan={plan} sheet={sheet} />}
    </>
  );
}
