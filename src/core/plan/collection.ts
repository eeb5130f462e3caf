/**
 * An immutable collection of records, bucketed so that changing one record of 50,000 copies one small bucket.
 *
 * Two structures share the records: `groups` holds them by a key of the record (addresses by subnet, devices by a
 * hash of their id), and a group's identity changes exactly when one of its records does, which makes it the key for
 * memoising what is derived from it. `index` maps id to group, in shards that are copied one at a time.
 */
const SHARDS = 1024;

/** A stable small hash of an id, for spreading records over buckets. */
export function shardOf(id: string, shards: number = SHARDS): number {
  let hash = 2166136261;
  for (let i = 0; i < id.length; i++) hash = Math.imul(hash ^ id.charCodeAt(i), 16777619);
  return ((hash ^ (hash >>> 15)) >>> 0) % shards;
}

export type Group<R> = ReadonlyMap<string, R>;
const EMPTY = new Map<string, never>();

export class Collection<R extends { readonly id: string }> {
  private constructor(
    private readonly groupKey: (record: R) => string,
    private readonly groups: ReadonlyMap<string, Group<R>>,
    private readonly index: readonly (ReadonlyMap<string, string> | undefined)[],
    readonly size: number,
  ) {}

  /** Builds a collection at once; later records of the same id would be a caller's mistake and throw. */
  static of<R extends { readonly id: string }>(
    groupKey: (record: R) => string,
    records: Iterable<R>,
  ): Collection<R> {
    const groups = new Map<string, Map<string, R>>();
    const index: (Map<string, string> | undefined)[] = new Array(SHARDS).fill(undefined);
    let size = 0;
    for (const record of records) {
      const key = groupKey(record);
      let group = groups.get(key);
      if (!group) groups.set(key, (group = new Map()));
      group.set(record.id, record);
      const shard = shardOf(record.id);
      const ids = (index[shard] ??= new Map());
      if (ids.has(record.id)) throw new RangeError(`two records with the id ${record.id}`);
      ids.set(record.id, key);
      size++;
    }
    return new Collection(groupKey, groups, index, size);
  }

  get(id: string): R | undefined {
    const key = this.index[shardOf(id)]?.get(id);
    return key === undefined ? undefined : this.groups.get(key)?.get(id);
  }

  /** The records under one group key; the same object as long as none of them changed. */
  group(key: string): Group<R> {
    return this.groups.get(key) ?? (EMPTY as Group<R>);
  }

  /** Every non-empty group. */
  allGroups(): Iterable<Group<R>> {
    return this.groups.values();
  }

  *values(): IterableIterator<R> {
    for (const group of this.groups.values()) yield* group.values();
  }

  /** A collection in which `id` holds `record`, or nothing when `record` is null. Shares everything untouched. */
  with(id: string, record: R | null): Collection<R> {
    const shard = shardOf(id);
    const oldKey = this.index[shard]?.get(id);
    const newKey = record === null ? undefined : this.groupKey(record);
    const groups = new Map(this.groups);
    if (oldKey !== undefined && oldKey !== newKey) {
      const group = new Map(groups.get(oldKey)!);
      group.delete(id);
      if (group.size === 0) groups.delete(oldKey);
      else groups.set(oldKey, group);
    }
    if (record !== null) groups.set(newKey!, new Map(groups.get(newKey!)).set(id, record));
    let index = this.index;
    if (oldKey !== newKey) {
      const ids = new Map(index[shard]);
      if (newKey === undefined) ids.delete(id);
      else ids.set(id, newKey);
      const copy = index.slice();
      copy[shard] = ids;
      index = copy;
    }
    const size = this.size + (record === null ? 0 : 1) - (oldKey === undefined ? 0 : 1);
    return new Collection(this.groupKey, groups, index, size);
  }
}
