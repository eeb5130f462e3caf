'use client';

import { useCallback, useMemo } from 'react';
import { type Plan, recordIn } from '@/core/plan';
import { type Fault, faultOn } from '@/core/rehearse';
import { useView } from './view';

/** The faults that are tried out, under What if and on the map alike; what is no longer in the plan cannot fail. */
export function useTried(plan: Plan) {
  const { faults: tried, set: setView } = useView();
  const faults = useMemo(
    () =>
      tried.filter((fault) => {
        const { table, id } = faultOn(fault);
        return recordIn(plan, table, id) !== undefined;
      }),
    [plan, tried],
  );
  const set = useCallback((faults: readonly Fault[]) => setView({ faults }), [setView]);
  return { faults, set };
}
