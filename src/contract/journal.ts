import * as z from 'zod';
import { wireStepSchema } from '../core/plan';
import { CHANGE_LIMIT, noSite, route, siteGone } from './route';
import {
  authorSchema,
  browserSchema,
  count,
  entry,
  entryHead,
  revisionSchema,
  seedSchema,
  wellFormed,
} from './shapes';

/** Entries in one part of an answer, and the bytes after which a part ends early. */
export const ENTRIES_PART = 500;
export const ENTRIES_BYTES = 4 * 1024 * 1024;

const common = {
  /** The revision the client holds; what came after it is told with the answer. */
  base: revisionSchema,
  seed: seedSchema,
  author: authorSchema,
  browser: browserSchema,
  /** SHA-256 of the steps that the client worked out, in hexadecimal. */
  digest: z.string().regex(/^[0-9a-f]{64}$/, 'a digest has 64 hexadecimal digits'),
  /** The user accepted that very result: with another one the change is refused. */
  reviewed: z.boolean().default(false),
};

export const changeBody = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('change'), ...common, operation: z.string().max(40), input: z.unknown() }),
  /** Undoes the change of that seed, or redoes what an undo of that seed took back. */
  z.strictObject({ kind: z.enum(['undo', 'redo']), ...common, undoes: seedSchema }),
  /** Back to how the plan was at a revision. */
  z.strictObject({ kind: z.literal('back'), ...common, to: revisionSchema }),
]);
export type ChangeBody = z.output<typeof changeBody>;

const revertible = entry.pick({ revision: true, seed: true, label: true, steps: true }).nullable();

export const journal = {
  commit: route({
    method: 'POST',
    path: '/api/sites/{site}/changes',
    says: 'Runs one operation on the newest plan and saves what it says. A seed that is saved already gets the same answer again.',
    body: changeBody,
    limit: CHANGE_LIMIT,
    answer: z.object({
      /** The revision it was saved as; null when nothing had to be changed. */
      revision: revisionSchema.nullable(),
      /**
       * What the client does not hold yet, its own change last. The steps of its own are left out where they are what the
       * client worked out.
       */
      entries: z.array(entry.extend({ steps: z.array(wireStepSchema).nullable() })),
      /** More came between than one answer holds: ask for the changes. */
      more: z.boolean(),
    }),
    problems: {
      404: noSite,
      409: 'Somebody changed the same fields meanwhile, or the result is another than the one reviewed.',
      422: 'The operation refuses.',
      503: 'The database is away or full.',
    },
  }),
  changes: route({
    method: 'GET',
    path: '/api/sites/{site}/changes',
    says: 'The changes after a revision, in parts.',
    query: z.object({ since: count(), limit: count(ENTRIES_PART).optional() }),
    answer: z.object({ revision: revisionSchema, changes: z.array(entry), more: z.boolean() }),
    problems: siteGone,
  }),
  saved: route({
    method: 'POST',
    path: '/api/sites/{site}/changes/saved',
    says: 'Which of these seeds are saved, and as which revision: for a client that lost an answer.',
    body: z.strictObject({ seeds: z.array(seedSchema).max(10_000) }),
    answer: z.object({ saved: z.array(z.object({ seed: z.string(), revision: revisionSchema })) }),
    problems: siteGone,
  }),
  history: route({
    method: 'GET',
    path: '/api/sites/{site}/journal',
    says: 'Who changed what and when, newest first; `below` pages backwards.',
    query: z.object({ below: count().optional() }),
    answer: z.object({
      revision: revisionSchema,
      entries: z.array(entryHead.extend({ name: z.string().nullable() })),
    }),
    problems: siteGone,
  }),
  back: route({
    method: 'GET',
    path: '/api/sites/{site}/back',
    says: 'The steps that lead from the newest plan back to an earlier revision.',
    query: z.object({ revision: count() }),
    answer: z.object({ from: revisionSchema, steps: z.array(wireStepSchema) }),
    problems: { ...siteGone, 422: 'There is no such revision.' },
  }),
  accepted: route({
    method: 'GET',
    path: '/api/sites/{site}/accepted',
    says: 'What was accepted of proposals and is not undone: for each record one step, from before the first to after the last of them.',
    answer: z.object({ steps: z.array(wireStepSchema) }),
    problems: siteGone,
  }),
  undoable: route({
    method: 'GET',
    path: '/api/sites/{site}/undo',
    says: 'What undo and redo would revert for a browser.',
    query: z.object({ browser: browserSchema }),
    answer: z.object({ undo: revertible, redo: revertible }),
    problems: siteGone,
  }),
  name: route({
    method: 'POST',
    path: '/api/sites/{site}/names',
    says: 'Gives a revision a name.',
    body: z.strictObject({
      revision: revisionSchema.min(1),
      name: wellFormed
        .trim()
        .min(1, 'the name is empty; write at least one character')
        .max(80, 'the name is longer than 80 characters; write a shorter one'),
      author: authorSchema,
    }),
    answer: z.object({ revision: revisionSchema, name: z.string() }),
    problems: { ...siteGone, 422: 'There is no such revision.' },
  }),
  events: route({
    method: 'GET',
    path: '/api/events',
    says: 'One stream for all sites: says which site is at which revision and how far its log has come, whenever one is changed, made or deleted.',
    answer: {
      type: 'text/event-stream',
      says: 'Events “at” with the id of a site and its revision, -1 where it was deleted; events “log” with the number of its newest entry in the log.',
    },
    problems: {},
  }),
};
