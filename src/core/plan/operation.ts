import type { z } from 'zod';
import type { Change } from './change';
import { Draft } from './draft';
import type { Plan } from './plan';
import { Refusal } from './refusal';

/**
 * Something a user can do: a schema for its input (text at the edge, values inside) and a pure function that drafts
 * the records and returns the label. Edits, remedies, imports and automatic plans are all operations.
 */
export interface Operation<S extends z.ZodType = z.ZodType> {
  readonly name: string;
  readonly input: S;
  readonly run: (draft: Draft, input: z.output<S>) => string;
}

export const operation = <S extends z.ZodType>(
  name: string,
  input: S,
  run: (draft: Draft, input: z.output<S>) => string,
): Operation<S> => ({ name, input, run });

/** An operation named with its wire input, as stored in the journal, queued by a client or offered as a remedy. */
export interface Call {
  readonly operation: string;
  readonly input: unknown;
}

/** Something that would remove a finding, or let a packet through: an operation, run when previewed or taken. */
export interface Remedy extends Call {
  readonly label: string;
}

/**
 * Runs an operation on a plan. `input` is wire JSON; `seed` makes the ids of new records.
 * Throws a Refusal when the input has the wrong shape or makes no sense on this plan.
 */
export function runOperation(op: Operation, plan: Plan, input: unknown, seed: string): Change {
  const parsed = op.input.safeDecode(input as never);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    const path = issue.path as (string | number)[];
    const prefix = issue.code === 'custom' || path.length === 0 ? '' : `${path.join('.')}: `;
    throw new Refusal('bad-input', `${prefix}${issue.message}`, [], path);
  }
  const draft = new Draft(plan, seed);
  const label = op.run(draft, parsed.data);
  return draft.change(label);
}
