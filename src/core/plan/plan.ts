import { Collection, shardOf } from './collection';
import { type AnyRecord, type RecordOf, SITE_ID, type Site, type TableName, tableNames } from './records';

/** The whole plan of a site as an immutable value: one bucketed collection per record kind. */
export type Plan = { readonly [T in TableName]: Collection<RecordOf<T>> };

const BUCKETS = 256;
/** Devices and their interfaces share a bucket number, so the interfaces of a device are found in one bucket. */
export const deviceBucket = (deviceId: string): string => String(shardOf(deviceId, BUCKETS));

const groupKeys: { readonly [T in TableName]: (record: RecordOf<T>) => string } = {
  site: () => '',
  lan: () => '',
  vlan: () => '',
  device: (record) => deviceBucket(record.id),
  interface: (record) => deviceBucket(record.device),
  box: () => '',
  profile: () => '',
  aggregate: (record) => record.device,
  port: (record) => record.device,
  cable: () => '',
  bridge: () => '',
  instance: (record) => record.device,
  treePort: () => '',
  subnet: () => '',
  pool: (record) => record.subnet,
  exclusion: (record) => record.subnet,
  relay: () => '',
  address: (record) => record.subnet,
  uplink: () => '',
  forward: () => '',
  offer: (record) => record.device,
  route: () => '',
  tunnel: () => '',
  translation: () => '',
  voiceBox: () => '',
  zone: () => '',
  service: () => '',
  cell: () => '',
  rule: () => '',
  question: () => '',
  acceptance: () => '',
};

export type RecordLists = { readonly [T in TableName]?: readonly RecordOf<T>[] };

const collect = <T extends TableName>(table: T, records: readonly RecordOf<T>[]): Collection<RecordOf<T>> =>
  Collection.of(groupKeys[table] as (record: RecordOf<T>) => string, records);

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

export const withRecord = (plan: Plan, table: TableName, id: string, record: AnyRecord | null): Plan => ({
  ...plan,
  [table]: (plan[table] as Collection<AnyRecord>).with(id, record),
});
