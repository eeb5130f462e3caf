import * as z from 'zod';
import { type Operation, Refusal, decoded, operation } from '../plan';

/** So many at once; a spreadsheet of more is brought in as rows. */
const MOST = 2000;

/** What takes steps or plans as they come is never one of several: only what is checked as an operation is. */
const ALONE: ReadonlySet<string> = new Set([
  'several',
  'takeSteps',
  'acceptProposal',
  'bringInPlan',
  'bringInRows',
]);

const input = z.object({
  label: z.string().trim().min(1).max(200),
  calls: z
    .array(z.object({ operation: z.string(), input: z.unknown() }))
    .min(1)
    .max(MOST),
});

/**
 * Several operations as one change, taken back by one undo: cells pasted, many records set alike. Each runs on what the ones
 * before it left. A Refusal of one, with its place in front of its path, refuses all.
 */
export const several = (named: (name: string) => Operation | undefined) =>
  operation('several', input, (draft, { label, calls }) => {
    calls.forEach((call, at) => {
      const place = ['calls', at];
      const op = named(call.operation);
      if (!op || ALONE.has(op.name))
        throw new Refusal('bad-input', `“${call.operation}” cannot be one of several.`, [], place);
      const read = decoded(op.input, call.input);
      if ('wrong' in read)
        throw new Refusal('bad-input', read.wrong.message, [], [...place, ...read.wrong.path]);
      try {
        op.run(draft, read.value);
      } catch (error) {
        if (!(error instanceof Refusal)) throw error;
        throw new Refusal(error.code, error.message, error.records, [...place, ...error.path]);
      }
    });
    return label;
  });
