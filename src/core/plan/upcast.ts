import { fieldsOf } from './kinds/kind';
import { kinds, type TableName, tableNames } from './records';

/** Names of kinds and fields as earlier versions wrote them, in plan files and in journals, to those of today. */

const KINDS: ReadonlyMap<string, TableName> = new Map(
  tableNames.flatMap((table) => {
    const { was } = kinds[table];
    return was ? [[was.name, table] as const] : [];
  }),
);
/** By kind: the former names of fields. */
const FIELDS: ReadonlyMap<string, ReadonlyMap<string, string>> = new Map(
  tableNames.flatMap((table) => {
    const renamed = fieldsOf(kinds[table].fields).flatMap(({ name, was }) =>
      was ? [[was.name, name] as const] : [],
    );
    return renamed.length > 0 ? [[table, new Map(renamed)] as const] : [];
  }),
);

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function upcastRecord(table: string, record: unknown): unknown {
  const renamed = FIELDS.get(table);
  if (!renamed || !isObject(record) || !Object.keys(record).some((name) => renamed.has(name))) return record;
  return Object.fromEntries(
    Object.entries(record).map(([name, value]) => [renamed.get(name) ?? name, value]),
  );
}

/** The name a kind has today. */
const presentTable = (name: string): string => KINDS.get(name) ?? name;

/** A step as JSON with the names of today. What is no step is left as it is. */
export function upcastStep(step: unknown): unknown {
  if (!isObject(step) || typeof step.table !== 'string') return step;
  const table = presentTable(step.table);
  // Most steps are of today and of kinds that never had another name.
  if (table === step.table && !FIELDS.has(table)) return step;
  return {
    ...step,
    table,
    before: upcastRecord(table, step.before),
    after: upcastRecord(table, step.after),
  };
}

/** The lists of a plan file with the names of today. What is no such object is left as it is. */
export function upcastLists(lists: unknown): unknown {
  if (!isObject(lists)) return lists;
  return Object.fromEntries(
    Object.entries(lists).map(([name, list]) => {
      const table = presentTable(name);
      return [table, Array.isArray(list) ? list.map((record) => upcastRecord(table, record)) : list];
    }),
  );
}
