import * as z from 'zod';
import { landings, orderEditSchema, outcomes, pageNames, stepSchema } from '../commission';
import { authorSchema, idSchema, tableNames, type TableName, wellFormed } from '../plan';

/**
 * What is written down about the work on a site. The log is about the plan and stands outside it: nothing in it is ever changed
 * or taken away, and what was wrong is said right by a later entry.
 */

const longest = 2000;
const said = (what: string) =>
  wellFormed
    .trim()
    .min(1, `${what} is empty; write at least one character`)
    .max(longest, `${what} is longer than ${longest} characters; write a shorter one`);
/** Text that may be left empty. */
const note = wellFormed
  .trim()
  .max(longest, `the note is longer than ${longest} characters; write a shorter one`);

/** Entries are named by who wrote them, so that the same one sent twice is one. */
export const entryId = z
  .string()
  .regex(/^[a-z0-9]{8,32}$/, 'the id of an entry has 8 to 32 lower-case letters or digits');
const photos = z.array(entryId).max(12, 'an entry holds at most 12 photos');
/** The record of the plan that an entry is about. It may be gone by now. */
const about = z.strictObject({ table: z.enum(tableNames as [TableName, ...TableName[]]), id: idSchema });

const reading = wellFormed.trim().max(200, 'the reading is longer than 200 characters; write a shorter one');
/** What became of a defect. */
export const defectStates = ['open', 'mended', 'accepted'] as const;
export type DefectState = (typeof defectStates)[number];

export const signRoles = ['installer', 'customer'] as const;
export type SignRole = (typeof signRoles)[number];

export const bodySchema = z.discriminatedUnion('kind', [
  /** Somebody begins to work off the order of a revision, with what they moved in it by hand. */
  z.strictObject({
    kind: z.literal('run'),
    name: said('the name').max(80, 'the name is longer than 80 characters; write a shorter one'),
    edits: z.array(orderEditSchema).max(500),
    /** When the site must work again; not given where nobody set a time. */
    until: z.iso.datetime().optional(),
  }),
  /** They sat down at a socket. */
  z.strictObject({ kind: z.literal('sit'), run: entryId, socket: idSchema }),
  /** What became of steps that are done together. */
  z.strictObject({
    kind: z.literal('result'),
    run: entryId,
    steps: z.array(stepSchema).min(1).max(500),
    /** What was to do, in the words it was told with. */
    does: wellFormed.max(longest),
    outcome: z.enum(outcomes),
    reading,
    note,
    photos,
  }),
  /** What came of a test of the site, by the key of the test, with the words it was told with. */
  z.strictObject({
    kind: z.literal('test'),
    key: z.string().max(longest),
    at: wellFormed.max(200),
    does: wellFormed.max(longest),
    expects: wellFormed.max(longest),
    outcome: z.enum(['as-expected', 'differs']),
    /** Where one landed instead of where one should: a segment by its id, or in no segment; not given where nobody said. */
    landed: z.union([idSchema, z.enum(landings)]).optional(),
    reading,
    note,
    photos,
  }),
  z.strictObject({ kind: z.literal('runEnd'), run: entryId, note }),
  /** Lines of the settings of a box are done, or are not after all. */
  z.strictObject({
    kind: z.literal('tick'),
    device: idSchema,
    /** The run it was done in, where it was one. */
    run: entryId.nullable(),
    page: z.enum(pageNames),
    lines: z
      .array(z.strictObject({ what: wellFormed.max(longest), value: wellFormed.max(longest) }))
      .min(1)
      .max(2000),
    done: z.boolean(),
  }),
  /** Somebody comes to the site, and leaves it. */
  z.strictObject({
    kind: z.literal('visit'),
    /** Who is there besides whoever writes. */
    with: wellFormed.trim().max(200, 'who is there is longer than 200 characters; write a shorter text'),
    note,
  }),
  z.strictObject({ kind: z.literal('visitEnd'), visit: entryId, note }),
  /** Something seen, measured or done on the site. */
  z.strictObject({
    kind: z.literal('note'),
    text: said('the note'),
    about: about.nullable(),
    reading,
    photos,
  }),
  z.strictObject({
    kind: z.literal('defect'),
    text: said('the defect'),
    about: about.nullable(),
    run: entryId.nullable(),
    photos,
  }),
  z.strictObject({
    kind: z.literal('defectState'),
    defect: entryId,
    state: z.enum(defectStates),
    note,
    photos,
  }),
  /** Somebody stands for the site being built as the plan says, at the revision of the entry. */
  z.strictObject({
    kind: z.literal('signOff'),
    role: z.enum(signRoles),
    name: said('the name').max(60, 'the name is longer than 60 characters; write a shorter one'),
    /** The day, as it is written beside a signature. */
    day: z.iso.date(),
    /** Drawn by hand: the path data of SVG in a box of 400 by 150. */
    signature: z
      .string()
      .regex(/^[MLC0-9 .,-]+$/, 'the signature is empty; draw it once')
      .max(60_000, 'the signature is too long; draw it again'),
    note,
  }),
  /** Takes an entry back, and says what is right. */
  z.strictObject({ kind: z.literal('correction'), of: entryId, text: said('the correction') }),
]);
export type Body = z.output<typeof bodySchema>;
export type BodyKind = Body['kind'];

/** An entry as it is sent. */
export const newEntrySchema = z.strictObject({
  id: entryId,
  author: authorSchema,
  /** By the clock of the device it was written on. */
  at: z.iso.datetime(),
  /** The revision of the plan that was before the writer’s eyes. */
  revision: z.int().min(0),
  body: bodySchema,
});
export type NewEntry = z.output<typeof newEntrySchema>;

/** An entry as it is kept. */
export const logEntrySchema = newEntrySchema.extend({
  /** Counts the entries of a site from 1 in the order in which they came in. */
  seq: z.int().min(1),
  /** When it came in, by the clock of the server. */
  received: z.iso.datetime(),
  /** By how much the clock of the device was behind that of the server when it was sent, in milliseconds. */
  behind: z.int(),
});
export type LogEntry = z.output<typeof logEntrySchema>;
