import * as z from 'zod';
import { type Change, type Step, applySteps, fittedLabel } from './change';
import { Draft } from './draft';
import { equal } from './equal';
import { operation } from './operation';
import { type Plan, recordIn } from './plan';
import { Refusal } from './refusal';
import { requireSound } from './sound';
import { decodeStep, wireStepSchema } from './wire';
import { recordTitle } from './words';

/**
 * Takes recorded steps as they are: undo, redo, going back to a revision, and a reviewed plan file. Refused with the
 * records in the way when one of them is no longer as the steps expect.
 */
export const takeSteps = operation('takeSteps', recorded(), takeRecorded);

/** The same for what was accepted of a proposal, so that the journal tells it from what somebody set. */
export const acceptProposal = operation('acceptProposal', recorded(), takeRecorded);

/** The same for what was good of tables and files that were brought in, as it was reviewed. */
export const bringInRows = operation('bringInRows', recorded(), takeRecorded);

function recorded() {
  return z.strictObject({
    label: z.string().trim().min(1).transform(fittedLabel),
    steps: z.array(wireStepSchema).max(500_000),
  });
}
function takeRecorded(draft: Draft, { label, steps }: z.output<ReturnType<typeof recorded>>): string {
  return take(
    draft,
    label,
    steps.map((step) => decodeStep(step as never)),
  );
}

/** The same for who holds the steps themselves. */
export function withStepsTaken(plan: Plan, label: string, steps: readonly Step[]): Change {
  // Records come with their ids, so no seed makes any.
  const draft = new Draft(plan, '');
  const change = draft.change(take(draft, fittedLabel(label), steps));
  requireSound(draft.plan, change.steps);
  return change;
}

function take(draft: Draft, label: string, steps: readonly Step[]): string {
  if (!applySteps(draft.plan, steps).ok) {
    const inWay = steps.filter(
      (step) => !equal(recordIn(draft.plan, step.table, step.id) ?? null, step.before),
    );
    const names = inWay.slice(0, 3).map((step) => {
      const record = recordIn(draft.plan, step.table, step.id) ?? step.before ?? step.after!;
      return recordTitle(draft.plan, step.table, record);
    });
    const more = inWay.length > 3 ? ` and ${inWay.length - 3} more` : '';
    throw new Refusal(
      'changed',
      `“${label}” cannot be done: ${names.join(', ')}${more} changed since.`,
      inWay.map(({ table, id }) => ({ table, id })),
    );
  }
  draft.putAll(steps);
  return label;
}
