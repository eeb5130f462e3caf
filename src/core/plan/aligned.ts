import { groupBy } from './memo';
import { fieldsOf } from './kinds/kind';
import type { Plan } from './plan';
import { type AnyRecord, type TableName, kinds, tableNames } from './records';
import { decodePlan, encodePlan } from './wire';
import { recordTitle } from './words';

/**
 * Two plans that know nothing of one another, side by side: which record of one is which of the other. Records with the same id are
 * the same; others by what they are called and by what they belong to.
 */

type Wire = Readonly<Record<string, unknown>> & { readonly id: string };
/** What a record is known by, the surest first. What it refers to stands in it by the ids of the first plan. */
type Known = (record: Wire, title: string) => readonly string[];

const family = (text: unknown): string => (String(text).includes(':') ? '6' : '4');
const known: Partial<Record<TableName, Known>> = {
  lan: ({ name }) => [`${name}`, 'a lan'],
  vlan: ({ lan, name, vid }) => [`${lan} ${name}`, `${lan} ${vid}`],
  subnet: ({ vlan, prefix }) => [`${vlan} ${prefix}`, `${vlan} ${family(prefix)}`],
  interface: ({ device, vlan }) => [`${device} ${vlan}`],
  address: ({ interface: item, subnet, gateway }) => [`${item} ${subnet} ${gateway}`],
  pool: ({ subnet }) => [`${subnet}`],
  exclusion: ({ subnet, why }) => [`${subnet} ${why}`, `${subnet}`],
  route: ({ device, prefix }) => [`${device} ${prefix}`],
  rule: ({ action, from, to, services }) => [JSON.stringify([action, from, to, services])],
  question: ({ id: _, why: __, rank: ___, ...asked }) => [JSON.stringify(asked)],
};
const byTitle: Known = (_, title) => [title];

/** The fields of a table that may hold ids. */
const idFields = (table: TableName): readonly string[] =>
  fieldsOf(kinds[table].fields).flatMap(({ name, stored }) =>
    stored === 'id' || stored === 'list' || stored === 'parts' ? [name] : [],
  );

function renamed(value: unknown, ids: ReadonlyMap<string, string>): unknown {
  if (typeof value === 'string') return ids.get(value) ?? value;
  if (Array.isArray(value)) return value.map((item) => renamed(item, ids));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, item]) => [key, renamed(item, ids)]));
}
const withIds = (table: TableName, record: Wire, ids: ReadonlyMap<string, string>): Wire => ({
  ...record,
  id: ids.get(record.id) ?? record.id,
  ...Object.fromEntries(idFields(table).map((field) => [field, renamed(record[field], ids)])),
});

type Lists = Readonly<Record<TableName, readonly Wire[]>>;
const listsOf = (plan: Plan): Lists => encodePlan(plan) as unknown as Lists;

/** A plan with other ids for some of its records. */
export function withOtherIds(plan: Plan, ids: ReadonlyMap<string, string>): Plan {
  const wire = listsOf(plan);
  return decodePlan(
    Object.fromEntries(
      tableNames.map((table) => [table, wire[table].map((record) => withIds(table, record, ids))]),
    ) as never,
  );
}

/** Pairs the records of one table that are known by the same; of several in the order of their ids. */
function pair(
  table: TableName,
  from: Plan,
  to: Plan,
  here: Lists,
  there: Lists,
  ids: Map<string, string>,
): void {
  const names = known[table] ?? byTitle;
  const namesIn = (plan: Plan, id: string, record: Wire) =>
    names(record, recordTitle(plan, table, plan[table].get(id) as unknown as AnyRecord)).map((name) =>
      name.toLowerCase(),
    );
  const own = new Map(here[table].map((record) => [record.id, namesIn(from, record.id, record)]));
  const taken = new Set<string>();
  for (const { id } of there[table])
    if (own.has(id)) {
      ids.set(id, id);
      taken.add(id);
    }
  const steps = own.values().next().value?.length ?? 0;
  for (let at = 0; at < steps; at++) {
    const open = groupBy(
      [...own.keys()].filter((id) => !taken.has(id)),
      (id) => own.get(id)![at]!,
    );
    for (const record of there[table]) {
      if (ids.has(record.id)) continue;
      const name = namesIn(to, record.id, withIds(table, record, ids))[at]!;
      const found = open.get(name)?.find((id) => !taken.has(id));
      if (found === undefined) continue;
      ids.set(record.id, found);
      taken.add(found);
    }
  }
}

/** The second plan with the ids of the first wherever a record is the same. */
export function alignedTo(from: Plan, to: Plan): Plan {
  const [here, there] = [listsOf(from), listsOf(to)];
  const ids = new Map<string, string>();
  for (const table of tableNames) pair(table, from, to, here, there, ids);
  return withOtherIds(to, ids);
}
