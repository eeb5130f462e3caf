import type * as z from 'zod';
import type { Change } from './change';
import { Draft } from './draft';
import { decoded } from './plain-issue';
import type { Plan } from './plan';
import { Refusal } from './refusal';
import { requireSound } from './sound';

/**
 * Something a user can do: a schema for its input (text at the edge, values inside) and a pure function that drafts
 * the records and returns the label. Edits, remedies, imports and automatic plans are all operations.
 */
export interface Operation<S extends z.ZodType = z.ZodType, N extends string = string> {
  readonly name: N;
  readonly input: S;
  readonly run: (draft: Draft, input: z.output<S>) => string;
}

export const operation = <N extends string, S extends z.ZodType>(
  name: N,
  input: S,
  run: (draft: Draft, input: z.output<S>) => string,
): Operation<S, N> => ({ name, input, run });

/** As it may be handed over: nobody writes into it, so lists that are read only will do. */
export type Given<T> = T extends readonly (infer Item)[]
  ? readonly Given<Item>[]
  : T extends object
    ? { readonly [K in keyof T]: Given<T[K]> }
    : T;

/** The wire input of each operation by name. The register of operations fills it in: edit/operations.ts. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type
export interface OperationInputs {}

/** An operation named with its wire input, as a client queues it or a remedy offers it. */
export type Call = {
  readonly [N in keyof OperationInputs]: { readonly operation: N; readonly input: OperationInputs[N] };
}[keyof OperationInputs];

/** A call from outside, or from an earlier version: its name and its input have still to be checked. */
export interface WireCall {
  readonly operation: string;
  readonly input: unknown;
}

/** Something that would remove a finding, or let a packet through: an operation, run when previewed or taken. */
export type Remedy = Call & { readonly label: string };

/**
 * Runs an operation on a plan. `input` is wire JSON; `seed` makes the ids of new records.
 * Throws a Refusal when the input has the wrong shape, makes no sense on this plan, or would leave a plan that is none.
 */
export function runOperation(op: Operation, plan: Plan, input: unknown, seed: string): Change {
  const read = decoded(op.input, input);
  if ('wrong' in read) {
    const { path, message, named } = read.wrong;
    const text = named || path.length === 0 ? message : `${path.join('.')}: ${message}`;
    throw new Refusal('bad-input', text, [], path);
  }
  const draft = new Draft(plan, seed);
  const label = op.run(draft, read.value);
  const change = draft.change(label);
  requireSound(draft.plan, change.steps);
  return change;
}
