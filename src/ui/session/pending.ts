import { perform } from '@/core/edit';
import {
  type Call,
  type Plan,
  Refusal,
  type Step,
  type WireCall,
  applySteps,
  encodeStep,
  equal,
  invertSteps,
  netSteps,
} from '@/core/plan';

interface Change {
  readonly seed: string;
  readonly call: WireCall;
  readonly label: string;
  readonly steps: readonly Step[];
  /** The user looked at the result before accepting it; a different result must be looked at again. */
  readonly reviewed: boolean;
}
/** What a change is besides its call: an undo or redo of another by its seed, or a way back to a revision. */
export type Intent =
  | { readonly kind: 'change' }
  | { readonly kind: 'undo' | 'redo'; readonly undoes: string }
  | { readonly kind: 'back'; readonly to: number };

/** A change of this window that the server has not confirmed. Enough is kept to run it again on another plan. */
export type Pending = Change & Intent;
/** As it is kept in the browser: the steps follow from the plan. */
export type KeptPending = Omit<Change, 'steps'> & Intent;

export const keptOf = ({ steps: _steps, ...kept }: Pending): KeptPending => kept;
export const pendingOf = (kept: KeptPending): Pending => ({ ...kept, reviewed: false, steps: [] });

/** A change that could not be applied to the newer plan, kept for the user with the reason. */
export interface Conflict {
  readonly seed: string;
  readonly label: string;
  readonly call: WireCall;
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

/** The call that undoes or redoes steps. */
export const reverting = (
  label: string,
  steps: readonly Step[],
): Extract<Call, { operation: 'takeSteps' }> => ({
  operation: 'takeSteps',
  input: { label, steps: invertSteps(steps).map(encodeStep) },
});

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
    const again = rerun(aimed(pending, kept), plan);
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

/** What undoes a change before it in the queue undoes what that one does now. */
function aimed(pending: Pending, before: readonly Pending[]): Pending {
  if (pending.kind !== 'undo' && pending.kind !== 'redo') return pending;
  const target = before.find(({ seed }) => seed === pending.undoes);
  return target ? { ...pending, call: reverting(pending.label, target.steps) } : pending;
}

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

/** The change of the queue that undo or redo would revert; null when there is none in it. */
export function revertible(queue: readonly Pending[], direction: 'undo' | 'redo'): Pending | null {
  const undo: Pending[] = [];
  const redo: Pending[] = [];
  for (const pending of queue)
    if (pending.kind === 'undo') {
      if (undo.at(-1)?.seed === pending.undoes) undo.pop();
      redo.push(pending);
    } else {
      if (pending.kind === 'redo') redo.pop();
      else redo.length = 0;
      undo.push(pending);
    }
  return (direction === 'undo' ? undo : redo).at(-1) ?? null;
}
