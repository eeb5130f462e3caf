import * as z from 'zod';
import { tableNames, type TableName, idSchema, wireStepSchema } from '../core/plan';

export { authorSchema, wellFormed } from '../core/plan';

/** Shapes that several routes speak of. */

/** A whole number in a query. */
export const count = (most = 2 ** 31 - 1) =>
  z
    .string()
    .regex(/^\d{1,10}$/, 'write a whole number')
    .transform(Number)
    .refine((value) => value <= most, `write at most ${most}`);

/** Who undoes: one browser of one person, by an id that it made up itself. */
export const browserSchema = z
  .string()
  .regex(/^[a-z0-9]{8,32}$/, 'the id of a browser has 8 to 32 lower-case letters or digits');

export const seedSchema = z
  .string()
  .regex(/^[a-z0-9]{6,20}$/, 'a seed has 6 to 20 lower-case letters or digits');

export const revisionSchema = z
  .int()
  .min(0)
  .max(2 ** 31 - 1);

const entryKinds = ['change', 'undo', 'redo', 'back'] as const;

/** A journal entry without its steps. */
export const entryHead = z.object({
  revision: revisionSchema,
  seed: z.string(),
  kind: z.enum(entryKinds),
  label: z.string(),
  operation: z.string(),
  author: z.string(),
  at: z.string(),
  undoes: revisionSchema.nullable(),
});

export const entry = entryHead.extend({ steps: z.array(wireStepSchema) });
export type Entry = z.output<typeof entry>;

export const recordRef = z.object({
  table: z.enum(tableNames as [TableName, ...TableName[]]),
  id: z.string(),
});

/** An answer that is not success (RFC 9457), with members of our own. */
export const problem = z.object({
  type: z.string().default('about:blank'),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  code: z.string().optional(),
  path: z.array(z.union([z.string(), z.number()])).optional(),
  records: z.array(recordRef).optional(),
  revision: revisionSchema.optional(),
});
export type ProblemDetails = z.input<typeof problem>;

export const madeSite = z.object({ id: idSchema });
