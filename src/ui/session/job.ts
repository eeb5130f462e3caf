'use client';

import { useCallback, useEffect, useState } from 'react';
import type { Plan } from '@/core/plan';
import type { Job, JobResult } from '@/worker/protocol';
import { usePlan, useSession, useSite } from './context';

interface JobState {
  /** What was asked for last. */
  readonly job: Job | null;
  readonly running: { readonly done: number; readonly of: number } | null;
  readonly result: JobResult | null;
  /** Why it could not be worked out; empty unless it was tried. */
  readonly problem: string;
  /** The plan and the change number the result is of. */
  readonly plan: Plan | null;
  readonly revision: number;
}

/** A long computation with its progress; `stale` once the plan is another than the one it was made of. */
export function useJob() {
  const session = useSession();
  const plan = usePlan();
  const revision = useSite((state) => state.revision);
  const [state, setState] = useState<JobState>({
    job: null,
    running: null,
    result: null,
    problem: '',
    plan: null,
    revision: 0,
  });
  const start = useCallback(
    /** `keeping`: what was worked out before is shown until the new is there. */
    (job: Job, keeping = false) => {
      setState(({ result }) => ({
        job,
        running: { done: 0, of: 0 },
        result: keeping ? result : null,
        problem: '',
        plan,
        revision,
      }));
      session.run(job, {
        onProgress: (done, of) => setState((before) => ({ ...before, running: { done, of } })),
        onResult: (result) => setState((before) => ({ ...before, running: null, result })),
        onProblem: (problem) => setState((before) => ({ ...before, running: null, problem })),
        onCalledOff: () => setState((before) => ({ ...before, running: null })),
      });
    },
    [session, plan, revision],
  );
  const cancel = useCallback(() => {
    session.cancelRun();
    setState((before) => ({ ...before, running: null }));
  }, [session]);
  useEffect(() => () => session.cancelRun(), [session]);
  return { ...state, stale: state.result !== null && state.plan !== plan, start, cancel };
}
