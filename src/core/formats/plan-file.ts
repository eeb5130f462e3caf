import * as z from 'zod';
import {
  type Plan,
  Refusal,
  encodePlan,
  fieldsOf,
  kinds,
  listsSchema,
  planOfLists,
  tableNames,
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
export const planFileSchema = z.strictObject({
  format: z.literal(FORMAT),
  version: z.union(versions),
  plan: listsSchema,
});

/** The lists with the fields of each record in the order of its kind, however it was made. */
function inOrder(lists: ReturnType<typeof encodePlan>): unknown {
  const ordered = tableNames.map((table) => {
    const names = ['id', ...fieldsOf(kinds[table].fields).map(({ name }) => name)];
    const records = lists[table] as readonly Readonly<Record<string, unknown>>[];
    return [table, records.map((record) => Object.fromEntries(names.map((name) => [name, record[name]])))];
  });
  return Object.fromEntries(ordered);
}

/** Writes a plan as a file: tables, records and fields in order, two spaces, so that equal plans are equal bytes. */
export const writePlanFile = (plan: Plan): string =>
  `${JSON.stringify({ format: FORMAT, version: VERSION, plan: inOrder(encodePlan(plan)) }, null, 2)}\n`;

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
  for (const key of Object.keys(json as object))
    if (!(key in planFileSchema.shape))
      refuse(`There is no field “${key}” in a plan file; leave it out.`, [key]);
  return planOfLists((json as { plan?: unknown }).plan);
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
