import type * as z from 'zod';
import { Collection, type TableLayout, shardOf } from './collection';
import { madeFrom } from './derive';
import type { Definition } from './kinds/kind';
import {
  type AnyRecord,
  type RecordOf,
  SITE_ID,
  type Site,
  type TableName,
  kinds,
  tableNames,
} from './records';

/** The whole plan of a site as an immutable value: one bucketed collection per record kind. */
export type Plan = { readonly [T in TableName]: Collection<RecordOf<T>> };

/** Tables that grow large without a bucket of their own are spread over so many, so that changing one record copies few. */
const SHARDS = 256;
/** How the records of each kind are kept, as the kind says. */
const layouts = Object.fromEntries(
  tableNames.map((table, at) => {
    const { bucket, indexes } = kinds[table] as unknown as Definition<z.ZodRawShape>;
    const of: TableLayout<AnyRecord>['bucket'] =
      bucket === undefined
        ? () => ''
        : bucket === 'spread'
          ? ({ id }) => String(shardOf(id, SHARDS))
          : (record) => (record as unknown as Record<string, string>)[bucket]!;
    return [table, { table: at, bucket: of, indexes: indexes ?? {} }];
  }),
) as unknown as { readonly [T in TableName]: TableLayout<RecordOf<T>> };

export type RecordLists = { readonly [T in TableName]?: readonly RecordOf<T>[] };

const collect = <T extends TableName>(table: T, records: readonly RecordOf<T>[]): Collection<RecordOf<T>> =>
  Collection.of(layouts[table] as TableLayout<RecordOf<T>>, records);

/** Builds a plan from lists of records. Throws a RangeError when an id stands twice in a list. */
export function planOf(lists: RecordLists): Plan {
  const entries = tableNames.map((table) => [table, collect(table, (lists[table] ?? []) as never)]);
  return Object.fromEntries(entries) as Plan;
}

/** The site record. A plan always has exactly one; a file without one is refused when it is read. */
export function siteOf(plan: Plan): Site {
  const site = plan.site.get(SITE_ID);
  if (!site) throw new RangeError('this plan has no site record');
  return site;
}

/** Looks a record up by table name where the table is only known at run time. */
export const recordIn = (plan: Plan, table: TableName, id: string): AnyRecord | undefined =>
  (plan[table] as Collection<AnyRecord>).get(id);

export function withRecord(plan: Plan, table: TableName, id: string, record: AnyRecord | null): Plan {
  const next: Plan = { ...plan, [table]: (plan[table] as Collection<AnyRecord>).with(id, record) };
  madeFrom(next, plan);
  return next;
}

/** The plan with many records changed, by table and id; null removes one. */
export function withRecords(
  plan: Plan,
  changes: ReadonlyMap<TableName, ReadonlyMap<string, AnyRecord | null>>,
): Plan {
  const changed = [...changes].map(([table, records]) => [
    table,
    (plan[table] as Collection<AnyRecord>).withAll(records),
  ]);
  const next = { ...plan, ...Object.fromEntries(changed) } as Plan;
  madeFrom(next, plan);
  return next;
}
