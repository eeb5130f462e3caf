import * as z from 'zod';
import { unwrapped } from './shape';
import { addressCodec, idSchema, macCodec, prefixCodec, timeCodec } from '../codecs';

/**
 * What is said of a field besides its shape, and the fields there are. Every field of a record is made by one of these
 * functions, which enter it in the registry: its label, unit and limits, how it is kept in the database, what it refers to.
 */

/** What happens to a record when one it refers to is deleted. */
export type OnDelete =
  /** It goes too. */
  | 'removed'
  /** The field becomes null. */
  | 'cleared'
  /** The id is dropped from the list. */
  | 'dropped'
  /** The kind has a rule of its own for it, see `without` in kind.ts. */
  | 'hook';

export interface Reference {
  /** The kind of record referred to. */
  readonly to: string;
  readonly onDelete: OnDelete;
}

/** How a value is kept in columns. */
export type Stored =
  | 'text'
  | 'long-text'
  | 'whole'
  | 'flag'
  | 'choice'
  | 'code'
  | 'address'
  | 'addresses'
  | 'prefix'
  | 'mac'
  | 'day'
  | 'moment'
  | 'id'
  | 'words'
  | 'parts'
  | 'list';

/** An earlier name, and the last version of the plan file that had it. */
export interface Former {
  readonly name: string;
  readonly until: number;
}

export interface Field {
  /** As it stands in front of a value, and within a sentence: VLAN id. */
  readonly label: string;
  readonly stored: Stored;
  /** What the number counts: s, W, m. */
  readonly unit?: string;
  /** Limits of a number, or of the length of a text. */
  readonly min?: number;
  readonly max?: number;
  readonly values?: readonly string[];
  /** A text of its form, where it has one. */
  readonly example?: string;
  readonly reference?: Reference;
  /** Its column, where that is not its name in small letters and underscores. */
  readonly column?: string;
  /** The table that keeps a list. */
  readonly table?: string;
  /** The version of the plan file it came with, where that is later than its kind’s. */
  readonly since?: number;
  readonly was?: Former;
  /** A reference that is edited like any other value; others have operations of their own. */
  readonly edited?: boolean;
}

/** What is known of each field, by its schema. */
export const fields = z.registry<Field>();

/** What is known of a schema, or of what it wraps. */
export function fieldOf(schema: z.core.$ZodType): Field | undefined {
  return fields.get(schema as z.ZodType) ?? fields.get(unwrapped(schema) as z.ZodType);
}

interface Options {
  readonly column?: string;
  readonly since?: number;
  readonly unit?: string;
  /** The field as a message begins with it: The VLAN id. */
  readonly said?: string;
}

function enter<S extends z.ZodType>(schema: S, field: Field): S {
  fields.add(schema as never, field);
  return schema;
}

/** Half a character would be stored as another text than it was sent as. */
const wellFormed = (said: string) =>
  [
    (text: string) => text.isWellFormed(),
    `${said} holds half a character (a lone surrogate); write it again`,
  ] as const;

const limits = (said: string, min: number, max: number, schema: z.ZodString) =>
  schema
    .refine(...wellFormed(said))
    .min(min, `${said} is empty; write at least ${min === 1 ? 'one character' : `${min} characters`}`)
    .max(max, `${said} is longer than ${max} characters; shorten it`);

/** A line of text that must not be empty. */
export const text = (label: string, max: number, { said = `The ${label}`, ...options }: Options = {}) =>
  enter(limits(said, 1, max, z.string().trim()), { label, stored: 'text', min: 1, max, ...options });

/** A line of text that may be empty. */
export const note = (label: string, max: number, { said = `The ${label}`, ...options }: Options = {}) =>
  enter(limits(said, 0, max, z.string().trim()), { label, stored: 'text', min: 0, max, ...options });

/** Text of several lines, kept as it was written. */
export const longText = (label: string, max: number) =>
  enter(
    z
      .string()
      .refine(...wellFormed(`The ${label}`))
      .max(max, `The ${label} are longer than ${max} characters; shorten them`),
    { label, stored: 'long-text', min: 0, max },
  );

/** A text of a form of its own, in ASCII. */
export const code = (
  label: string,
  max: number,
  form: RegExp,
  example: string,
  message: string,
  options: Options = {},
) =>
  enter(
    z.string().regex(form, message).max(max, `The ${label} are longer than ${max} characters; shorten them`),
    {
      label,
      stored: 'code',
      max,
      example,
      ...options,
    },
  );

/** A whole number within limits. */
export const whole = (
  label: string,
  min: number,
  max: number,
  { said = `The ${label}`, ...options }: Options = {},
) => {
  const message = (given: unknown) =>
    `${said} is ${typeof given === 'number' ? given : 'not a number'}; write a whole number from ${min} to ${max}`;
  const schema = z
    .number({ error: (issue) => message(issue.input) })
    .refine((n) => Number.isInteger(n) && n >= min && n <= max, { error: (issue) => message(issue.input) });
  return enter(schema, { label, stored: 'whole', min, max, ...options });
};

export const flag = (label: string, options: Options = {}) =>
  enter(z.boolean(), { label, stored: 'flag', ...options });

export const oneOf = <const T extends readonly [string, ...string[]]>(
  label: string,
  values: T,
  options: Options = {},
) => enter(z.enum(values), { label, stored: 'choice', values, ...options });

/** Some of a few words, in the order of the list. */
export const someOf = <const T extends readonly [string, ...string[]]>(label: string, values: T) =>
  enter(z.array(z.enum(values)), { label, stored: 'words', values });

export const address = (label: string, options: Options = {}) =>
  enter(addressCodec.clone(), { label, stored: 'address', ...options });
export const prefix = (label: string, options: Options = {}) =>
  enter(prefixCodec.clone(), { label, stored: 'prefix', ...options });
export const mac = (label: string, options: Options = {}) =>
  enter(macCodec.clone(), { label, stored: 'mac', max: 17, ...options });
/** A short list of addresses, kept in one column. */
export const addresses = (label: string) =>
  enter(z.array(addressCodec).max(50, `The ${label} are more than 50; leave some out`), {
    label,
    stored: 'addresses',
    max: 2000,
  });

/** A day as 2026-12-31. */
export const day = (label: string, options: Options = {}) =>
  enter(
    z
      .string()
      .regex(/^\d{4}-\d{2}-\d{2}$/, 'A day needs the form 2026-12-31')
      .refine((value) => !Number.isNaN(Date.parse(`${value}T00:00:00Z`)), 'This day is in no calendar'),
    { label, stored: 'day', max: 10, ...options },
  );

/** A moment in UTC. */
export const moment = (label: string) => enter(timeCodec.clone(), { label, stored: 'moment' });

/** The place in an order the user gives, as a string that sorts. */
export const rank = () =>
  enter(z.string().regex(/^[A-Za-z0-9]{1,60}$/), {
    label: 'order',
    stored: 'code',
    max: 60,
    example: 'a0',
    column: 'rank_key',
  });

/** The id of another record. */
export const ref = (
  to: string,
  onDelete: OnDelete,
  label: string,
  options: Pick<Field, 'column' | 'edited' | 'since' | 'was'> = {},
) => enter(idSchema.clone(), { label, stored: 'id', max: 32, reference: { to, onDelete }, ...options });

/** An id that may be that of no record. */
export const plainId = (label: string) => enter(idSchema.clone(), { label, stored: 'id', max: 32 });

/** The ids of other records, kept in a table of their own. */
export const refs = (
  to: string,
  onDelete: OnDelete,
  label: string,
  table: string,
  options: Pick<Field, 'edited' | 'since'> = {},
) => list(label, table, ref(to, onDelete, label), { reference: { to, onDelete }, ...options });

/** A list whose items are rows of a table of their own. */
export const list = <S extends z.ZodType>(label: string, table: string, item: S, more: Partial<Field> = {}) =>
  enter(z.array(item), { label, stored: 'list', table, ...more });

/** Several numbers that are there together or not at all, each in a column. */
export const parts = <S extends z.ZodRawShape>(label: string, shape: S) =>
  enter(z.strictObject(shape), { label, stored: 'parts' });
