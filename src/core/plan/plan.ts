import { Collection, type KeyOf, type Layout, shardOf } from './collection';
import { madeFrom } from './derive';
import { type AnyRecord, type RecordOf, SITE_ID, type Site, type TableName, tableNames } from './records';

/** The whole plan of a site as an immutable value: one bucketed collection per record kind. */
export type Plan = { readonly [T in TableName]: Collection<RecordOf<T>> };

const BUCKETS = 256;
/** Tables that grow large without a bucket of their own are spread, so that changing one record copies few. */
const SHARDS = 64;
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
  cable: (record) => String(shardOf(record.id, SHARDS)),
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
  cell: (record) => String(shardOf(record.id, SHARDS)),
  rule: (record) => String(shardOf(record.id, SHARDS)),
  question: () => '',
  acceptance: () => '',
};

/** What records are looked up by besides their ids. */
const indexKeys: { readonly [T in TableName]?: Readonly<Record<string, KeyOf<RecordOf<T>>>> } = {
  device: { name: ({ name }) => name.toLowerCase() },
  interface: { device: ({ device }) => device, mac: ({ mac }) => mac },
  box: { device: ({ device }) => device },
  bridge: { device: ({ device }) => device },
  cable: { end: ({ from, fromSide, to, toSide }) => [`${from} ${fromSide}`, `${to} ${toSide}`] },
  treePort: { port: ({ port }) => port },
  subnet: { vlan: ({ vlan }) => vlan },
  address: { interface: (record) => record.interface },
  forward: { uplink: ({ uplink }) => uplink },
};
const layouts = Object.fromEntries(
  tableNames.map((table, at) => [
    table,
    { table: at, bucket: groupKeys[table], indexes: indexKeys[table] ?? {} },
  ]),
) as unknown as { readonly [T in TableName]: Layout<RecordOf<T>> };

export type RecordLists = { readonly [T in TableName]?: readonly RecordOf<T>[] };

const collect = <T extends TableName>(table: T, records: readonly RecordOf<T>[]): Collection<RecordOf<T>> =>
  Collection.of(layouts[table] as Layout<RecordOf<T>>, records);

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
