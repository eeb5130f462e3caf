import { z } from 'zod';
import {
  fieldsOf,
  type Plan,
  planOf,
  recordIn,
  schemaOf,
  type AnyRecord,
  type RecordOf,
  SITE_ID,
  type TableName,
  kinds,
  tableNames,
  referencedIds,
  references,
  Refusal,
  decoded,
  encodePlan,
  upcastLists,
} from '../plan';

/** The project's own file: a whole plan as JSON, versioned. docs/format.md describes it. */
export const FORMAT = 'dianome-plan';

/** The version is that of the newest kind: one more when a kind or a field is added or gets another name. */
export const VERSION = Math.max(
  ...tableNames.flatMap((table) =>
    [kinds[table], ...fieldsOf(kinds[table].fields)].flatMap(({ since = 1, was }) => [
      since,
      was ? was.until + 1 : 1,
    ]),
  ),
);

const versions = Array.from({ length: VERSION }, (_, i) => z.literal(i + 1));
const lists = Object.fromEntries(
  tableNames.map((table) => [
    table,
    table === 'site'
      ? z.array(schemaOf(table)).length(1, 'a plan file holds exactly one site record')
      : z.array(schemaOf(table)).default([]),
  ]),
) as unknown as { readonly [T in TableName]: z.ZodType<RecordOf<T>[]> };
export const planFileSchema = z.strictObject({
  format: z.literal(FORMAT),
  version: z.union(versions),
  plan: z.strictObject(lists),
});

/** Writes a plan as a file: tables in order, records by id, two spaces, so that equal plans are equal bytes. */
export const writePlanFile = (plan: Plan): string =>
  `${JSON.stringify({ format: FORMAT, version: VERSION, plan: encodePlan(plan) }, null, 2)}\n`;

const refuse = (message: string, path: readonly (string | number)[] = []): never => {
  throw new Refusal('bad-input', message, [], path);
};

/**
 * Reads a plan file. Refuses with the reason and the place: text that is not JSON or ends early, another format, a
 * newer version, a record of the wrong shape, an id twice, a reference to nothing.
 */
export function readPlanFile(text: string): Plan {
  const json = parseJson(text);
  if (typeof json !== 'object' || json === null || (json as { format?: unknown }).format !== FORMAT)
    refuse(`This is not a plan file: its “format” should be “${FORMAT}”.`, ['format']);
  const { version } = json as { version?: unknown };
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    refuse(`The version ${JSON.stringify(version)} should be a whole number from 1.`, ['version']);
  if ((version as number) > VERSION)
    refuse(
      `This file has version ${version}; this program reads up to version ${VERSION}. Update Dianome, then read it again.`,
      ['version'],
    );
  const lists = upcastLists((json as { plan?: unknown }).plan);
  const read = decoded(planFileSchema, { ...(json as object), plan: lists });
  if ('wrong' in read) return refuse(`${place(read.wrong.path)}: ${read.wrong.message}`, read.wrong.path);
  for (const table of tableNames) {
    const seen = new Set<string>();
    read.value.plan[table].forEach((record, i) => {
      if (seen.has(record.id))
        refuse(`${place(['plan', table, i])}: the id ${record.id} stands twice.`, ['plan', table, i, 'id']);
      seen.add(record.id);
    });
  }
  const plan = planOf(read.value.plan as never);
  requireReferences(plan, read.value.plan as never);
  return plan;
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    const { message } = error as Error;
    const at = /position (\d+)/.exec(message)?.[1];
    const ended =
      /Unexpected end|Unterminated/.test(message) ||
      (at !== undefined && Number(at) >= text.trimEnd().length);
    const line = at ? text.slice(0, Number(at)).split('\n').length : text.split('\n').length;
    return refuse(
      ended
        ? `The file ends in the middle, after line ${line}; it was cut off. Save it again where it came from.`
        : `The file is not JSON: line ${line} cannot be read (${message}).`,
    );
  }
}

function requireReferences(plan: Plan, lists: Readonly<Record<TableName, readonly AnyRecord[]>>): void {
  for (const table of tableNames)
    for (const { field, to } of references[table])
      lists[table].forEach((record, i) => {
        for (const id of referencedIds(record, field))
          if (!recordIn(plan, to, id))
            refuse(`${place(['plan', table, i, field])}: there is no ${to} with the id ${id} in this file.`, [
              'plan',
              table,
              i,
              field,
            ]);
      });
  if (!plan.site.get(SITE_ID))
    refuse(`plan.site: the site record’s id must be “${SITE_ID}”.`, ['plan', 'site']);
}

/** plan.vlan[3].vid, as a person would look for it. */
const place = (path: readonly (string | number)[]): string =>
  path.reduce<string>(
    (text, part) => (typeof part === 'number' ? `${text}[${part}]` : text ? `${text}.${part}` : part),
    '',
  ) || 'the file';
