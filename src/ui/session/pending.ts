import { perform } from '@/core/edit';
import {
  type Step,
  applySteps,
  invertSteps,
  netSteps,
  equal,
  type Call,
  type Plan,
  Refusal,
} from '@/core/plan';

/** A change of this window that the server has not confirmed. Enough is kept to run it again on another plan. */
export interface Pending {
  readonly seed: string;
  readonly kind: 'change' | 'undo' | 'redo';
  readonly undoes: number | null;
  readonly call: Call;
  readonly label: string;
  readonly steps: readonly Step[];
  /** The user looked at the result before accepting it; a different result must be looked at again. */
  readonly reviewed: boolean;
}

/** A change that could not be applied to the newer plan, kept for the user with the reason. */
export interface Conflict {
  readonly seed: string;
  readonly label: string;
  readonly call: Call;
  readonly why: string;
  readonly between: readonly string[];
}

export interface Rebased {
  readonly plan: Plan;
  readonly queue: readonly Pending[];
  readonly conflicts: readonly Conflict[];
  /** The steps from the old local plan to the new one. */
  readonly steps: readonly Step[];
}

/**
 * Runs queued changes again on a plan that others have changed. Each either gives a change on the new plan or becomes
 * a conflict; nothing is dropped silently and nothing of the others is overwritten.
 */
export function rebase(
  queue: readonly Pending[],
  remote: readonly Step[],
  confirmed: Plan,
  between: readonly string[],
): Rebased {
  let plan = confirmed;
  const kept: Pending[] = [];
  const conflicts: Conflict[] = [];
  for (const pending of queue) {
    const again = rerun(pending, plan);
    if (typeof again === 'string') conflicts.push({ ...pick(pending), why: again, between });
    else {
      plan = again.plan;
      if (again.pending.steps.length > 0) kept.push(again.pending);
    }
  }
  const old = queue.flatMap((pending) => pending.steps);
  const steps = netSteps([...invertSteps(old), ...remote, ...kept.flatMap((pending) => pending.steps)]);
  return { plan, queue: kept, conflicts, steps };
}

const pick = ({ seed, label, call }: Pending) => ({ seed, label, call });

function rerun(pending: Pending, plan: Plan): { plan: Plan; pending: Pending } | string {
  try {
    const change = perform(plan, pending.call, pending.seed);
    if (pending.reviewed && !equal(change.steps, pending.steps))
      return 'The plan changed since you reviewed this, and the result would differ now. Look at it again.';
    const applied = applySteps(plan, change.steps);
    if (!applied.ok) return 'It does not fit the plan any more.';
    return { plan: applied.plan, pending: { ...pending, label: change.label, steps: change.steps } };
  } catch (error) {
    if (error instanceof Refusal) return error.message;
    throw error;
  }
}
