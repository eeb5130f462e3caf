import type * as z from 'zod';

/** What is wrong with a value, in plain words: the value, shortened, and what to write instead. */

type Issue = z.core.$ZodRawIssue;

/** So much of a value a message shows, in characters. */
const SHOWN = 60;
/** A value as a message shows it. */
export function shownValue(value: unknown): string {
  if (value === undefined) return 'nothing';
  const text = typeof value === 'string' ? value : (JSON.stringify(value) ?? String(value));
  const shown = text.length > SHOWN ? `${text.slice(0, SHOWN).toWellFormed()}…` : text.toWellFormed();
  return `“${shown}”`;
}

const KINDS: Readonly<Record<string, string>> = {
  string: 'text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  object: 'an object',
  record: 'an object',
  array: 'a list',
  null: 'null',
};
const kind = (name: string) => KINDS[name] ?? `a ${name}`;
/** As many choices as a sentence can hold. */
const CHOICES = 20;

function choices(values: readonly unknown[]): string {
  const words = values.map(String);
  if (words.length === 1) return `write ${words[0]}`;
  if (words.length > CHOICES) return `write one of ${words.slice(0, CHOICES).join(', ')} …`;
  return `write ${words.slice(0, -1).join(', ')} or ${words.at(-1)}`;
}

function tooLong(issue: { origin?: string; maximum: number | bigint }, value: unknown): string {
  const most = issue.maximum;
  if (issue.origin === 'string')
    return `${shownValue(value)} has ${(value as string).length} characters; write at most ${most}`;
  if (issue.origin === 'array')
    return `the list has ${(value as unknown[]).length} items; at most ${most} fit`;
  return `${shownValue(value)} is too large; write at most ${most}`;
}

function tooShort(issue: { origin?: string; minimum: number | bigint }, value: unknown): string {
  const least = issue.minimum;
  if (issue.origin === 'string')
    return value === ''
      ? 'it is empty; write at least one character'
      : `${shownValue(value)} is too short; write at least ${least} characters`;
  if (issue.origin === 'array')
    return Number(least) === 1
      ? 'the list is empty; name at least one'
      : `the list is too short; name at least ${least}`;
  return `${shownValue(value)} is too small; write at least ${least}`;
}

/** The message of an issue for which its schema has none of its own. */
function plainMessage(issue: Issue): string | undefined {
  const value = issue.input;
  switch (issue.code) {
    case 'invalid_type': {
      const expected = kind(String(issue.expected));
      return value === undefined
        ? `it is missing; write ${expected}`
        : `${shownValue(value)} is not ${expected}; write ${expected}`;
    }
    case 'invalid_value':
      return `${shownValue(value)} is no choice here; ${choices(issue.values as readonly unknown[])}`;
    case 'too_big':
      return tooLong(issue as never, value);
    case 'too_small':
      return tooShort(issue as never, value);
    case 'not_multiple_of':
      return `${shownValue(value)} is not a multiple of ${String(issue.divisor)}; write one`;
    case 'unrecognized_keys':
      return `there is no field ${(issue.keys as string[]).slice(0, 5).map(shownValue).join(', ')} here; leave it out`;
    case 'invalid_format':
      return issue.format === 'datetime'
        ? `${shownValue(value)} is not a moment; write it like 2026-05-04T10:20:30Z`
        : `${shownValue(value)} does not have the form that is asked for here; look at the others of its kind`;
    case 'invalid_key':
      return 'a name in it is not one that is allowed; leave it out';
    default:
      return undefined;
  }
}

/** What is wrong, and where; `named`: the message is the schema’s own and says itself what it is about. */
export interface WrongInput {
  readonly path: readonly (string | number)[];
  readonly message: string;
  readonly named: boolean;
}

type Read<T> = { readonly value: T } | { readonly wrong: WrongInput };

/** A value decoded by a schema, or what is wrong with it in plain words. */
export const decoded = <S extends z.ZodType>(schema: S, value: unknown): Read<z.output<S>> =>
  plainly((params) => schema.safeDecode(value as never, params));

/** A value encoded by a schema, or what is wrong with it in plain words. */
export const encoded = <S extends z.ZodType>(schema: S, value: z.output<S>): Read<z.input<S>> =>
  plainly((params) => schema.safeEncode(value, params));

function plainly<T>(
  turn: (params: { error: (issue: Issue) => string | undefined }) => z.ZodSafeParseResult<T>,
): Read<T> {
  const ours = new Set<string>();
  const parsed = turn({
    error: (issue) => {
      const message = plainMessage(issue);
      if (message) ours.add(message);
      return message;
    },
  });
  if (parsed.success) return { value: parsed.data };
  const { path, message } = nearest(parsed.error.issues[0]!, []);
  return { wrong: { path, message, named: !ours.has(message) } };
}

/** Where a value has several forms, the issue of the form that it is nearest to. */
function nearest(issue: z.core.$ZodIssue, above: readonly (string | number)[]): Omit<WrongInput, 'named'> {
  const path = [...above, ...(issue.path as (string | number)[])];
  if (issue.code !== 'invalid_union' || !issue.errors?.length) return { path, message: issue.message };
  const depth = (list: readonly z.core.$ZodIssue[]) => Math.max(...list.map((item) => item.path.length));
  const [best] = [...issue.errors].sort((a, b) => a.length - b.length || depth(b) - depth(a));
  return best?.[0]
    ? nearest(best[0], path)
    : { path, message: 'it has none of the forms that are read here' };
}
