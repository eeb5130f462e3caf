import * as z from 'zod';
import { schemaOf } from './record-wire';
import { decoded } from './plain-issue';
import { type Plan, planOf, recordIn } from './plan';
import { type AnyRecord, type RecordOf, SITE_ID, type TableName, tableNames } from './records';
import { referencedIds, references } from './references';
import { Refusal } from './refusal';
import { upcastLists } from './upcast';

/** A whole plan as lists of records from outside: checked as a plan file is, whoever sends it. */

const lists = Object.fromEntries(
  tableNames.map((table) => [
    table,
    table === 'site'
      ? z.array(schemaOf(table)).length(1, 'a plan file holds exactly one site record')
      : z.array(schemaOf(table)).default([]),
  ]),
) as unknown as { readonly [T in TableName]: z.ZodType<RecordOf<T>[]> };
export const listsSchema = z.strictObject(lists);

const refuse = (message: string, path: readonly (string | number)[] = []): never => {
  throw new Refusal('bad-input', message, [], path);
};

/**
 * The plan that the lists of a plan file hold, of this version or an earlier one. Throws a Refusal with the reason and the
 * place: a record of the wrong shape, an id twice, a reference to nothing, no LAN.
 */
export function planOfLists(wire: unknown): Plan {
  const read = decoded(listsSchema, upcastLists(wire));
  if ('wrong' in read) {
    const path = ['plan', ...read.wrong.path];
    return refuse(`${place(path)}: ${read.wrong.message}`, path);
  }
  for (const table of tableNames) {
    const seen = new Set<string>();
    read.value[table].forEach((record, i) => {
      if (seen.has(record.id))
        refuse(`${place(['plan', table, i])}: the id ${record.id} stands twice.`, ['plan', table, i, 'id']);
      seen.add(record.id);
    });
  }
  const plan = planOf(read.value as never);
  requireWhole(plan, read.value as never);
  return plan;
}

function requireWhole(plan: Plan, lists: Readonly<Record<TableName, readonly AnyRecord[]>>): void {
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
  if (plan.lan.size === 0)
    refuse('plan.lan: a site has at least one LAN; add one with an id and a name.', ['plan', 'lan']);
}

/** plan.vlan[3].vid, as a person would look for it. */
const place = (path: readonly (string | number)[]): string =>
  path.reduce<string>(
    (text, part) => (typeof part === 'number' ? `${text}[${part}]` : text ? `${text}.${part}` : part),
    '',
  ) || 'the file';
