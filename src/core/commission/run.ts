import type { Plan, Progress } from '../plan';
import { type Entry, type Order, ordering } from './order';
import { standingAfter } from './standing';
import { placeIn, plannedState, presentState } from './state';
import type { Step } from './steps';
import { stepKey } from './wire';

/** An order as it is worked off: what was done stays done, and what is left is worked out from there. */

export const outcomes = ['done', 'differs', 'skipped'] as const;
export type Outcome = (typeof outcomes)[number];

/** Something somebody said of a step, or where they sat down. */
export type Result =
  | { readonly kind: 'sit'; readonly socket: string }
  | { readonly kind: 'step'; readonly step: Step; readonly outcome: Outcome };

/** Does the plan still have what a result speaks of? */
function isThere(plan: Plan, state: ReturnType<typeof presentState>, result: Result): boolean {
  if (result.kind === 'sit') return state.seats.has(result.socket);
  const { device, setting } = result.step;
  return (
    placeIn(state, device) >= 0 &&
    (!('port' in setting) || plan.port.get(setting.port)?.device === device) &&
    (setting.kind !== 'management' ||
      setting.socket === null ||
      plan.port.get(setting.socket.port) !== undefined)
  );
}

/** How the site is after what was done, as far as the plan still has the boxes and ports, and where one is. */
export function stoodAt(plan: Plan, results: readonly Result[]): ReturnType<typeof standingAfter> {
  const now = presentState(plan);
  const entries = results
    .filter((result) => isThere(plan, now, result))
    .flatMap((result): Entry[] => {
      if (result.kind === 'sit') return [result];
      const { step, outcome } = result;
      return outcome === 'done' ? [{ kind: 'step', step, socket: '', reached: 0, of: 0 }] : [];
    });
  const { state, standing } = standingAfter(now, entries);
  return { state, standing: { ...standing, skipped: skippedIn(results) } };
}

/** The steps that somebody leaves out, unless they said otherwise later. */
function skippedIn(results: readonly Result[]): ReadonlySet<string> {
  const skipped = new Set<string>();
  for (const result of results) {
    if (result.kind !== 'step') continue;
    const { step, outcome } = result;
    if (outcome === 'skipped') {
      skipped.add(stepKey(step));
      continue;
    }
    skipped.delete(stepKey(step));
    // What is set afterwards wants to be saved again.
    if (outcome === 'done' && step.setting.kind !== 'save' && step.setting.kind !== 'check')
      for (const kind of ['save', 'check'] as const)
        skipped.delete(stepKey({ device: step.device, setting: { kind } }));
  }
  return skipped;
}

/**
 * What is left of a run: the order from how the boxes are after everything that was done to how they are planned now. A step
 * that turned out otherwise is still to be done; one that was left out is not.
 */
export function* leftOf(plan: Plan, results: readonly Result[]): Generator<Progress, Order> {
  const { state, standing } = stoodAt(plan, results);
  return yield* ordering(state, plannedState(plan), standing);
}
