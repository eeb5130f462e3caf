'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import type { OrderEdit } from '@/core/commission';
import type { Plan } from '@/core/plan';
import { useJob } from '../../session/job';
import { RunsUnderWay } from '../../log/runs-under-way';
import { StartRun } from '../../log/start-run';
import { FormersAwaited } from '../../parts/formers-awaited';
import { ProgressLine } from '../../parts/progress-line';
import { OrderSheet } from './order-sheet';
import { OrderTimes, useOrderLook } from './order-times';

/** What somebody did to the order of a plan by hand; another plan has another order. */
const useEdits = create<{ readonly plan: Plan | null; readonly edits: readonly OrderEdit[] }>(() => ({
  plan: null,
  edits: [],
}));
const NONE: readonly OrderEdit[] = [];

/** The order of all settings of the site, worked out off the page whenever the plan changes. */
export function OrderView({ plan }: { plan: Plan }) {
  const edits = useEdits((state) => (state.plan === plan ? state.edits : NONE));
  const dropped = useEdits((state) => state.plan !== null && state.plan !== plan && state.edits.length > 0);
  const minutes = useOrderLook((state) => state.minutes);
  const { start, running, result, stale, problem } = useJob();
  useEffect(() => start({ kind: 'order', edits }, edits.length > 0), [start, edits]);
  const set = (next: readonly OrderEdit[]) => useEdits.setState({ plan, edits: next });
  const sheet = result?.kind === 'order' && !stale ? result.sheet : null;
  return (
    <>
      {dropped && (
        <p role="status" className="pb-2 text-muted">
          The plan has changed: the order is worked out anew, without what was moved by hand.
        </p>
      )}
      {problem && <FormersAwaited problem={problem} />}
      {running && !sheet && (
        <p role="status">
          <ProgressLine label="The order is worked out" progress={running} atMost />
        </p>
      )}
      {sheet?.steps === 0 && (
        <p>Nothing is left to set: every box that can be set up is recorded as planned already.</p>
      )}
      {sheet && sheet.steps > 0 && (
        <OrderSheet plan={plan} sheet={sheet} onEdit={(edit) => set([...edits, edit])}>
          <OrderTimes plan={plan} sheet={sheet} />
          <span className="no-print flex flex-wrap gap-2 pb-2">
            <StartRun edits={edits} minutes={minutes} />
            <RunsUnderWay />
            {edits.length > 0 && (
              <>
                <button type="button" className="button" onClick={() => set(edits.slice(0, -1))}>
                  Take the last move back
                </button>
                <button type="button" className="button" onClick={() => set(NONE)}>
                  Back to the order as worked out
                </button>
              </>
            )}
          </span>
        </OrderSheet>
      )}
    </>
  );
}
