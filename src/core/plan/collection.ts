/**
 * An immutable collection of records, bucketed so that changing one record of 50,000 copies one small bucket.
 *
 * Two structures share the records: `groups` holds them by a key of the record (addresses by subnet, devices by a
 * hash of their id), and a group's identity changes exactly when one of its records does, which makes it the key for
 * memoising what is derived from it. `base` holds them by id as they were some changes ago and is shared by all plans
 * since; `recent` holds what changed after it (null: removed), is copied at each change, and is folded into a new base
 * when it has grown.
 */
const RECENT = 400;

/** A stable small hash of an id, for spreading records over buckets. */
export function shardOf(id: string, shards: number): number {
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
    private readonly base: Group<R>,
    private readonly recent: ReadonlyMap<string, R | null>,
    readonly size: number,
  ) {}

  /** Builds a collection at once; later records of the same id would be a caller's mistake and throw. */
  static of<R extends { readonly id: string }>(
    groupKey: (record: R) => string,
    records: Iterable<R>,
  ): Collection<R> {
    const groups = new Map<string, Map<string, R>>();
    const base = new Map<string, R>();
    for (const record of records) {
      const key = groupKey(record);
      let group = groups.get(key);
      if (!group) groups.set(key, (group = new Map()));
      if (base.has(record.id)) throw new RangeError(`two records with the id ${record.id}`);
      group.set(record.id, record);
      base.set(record.id, record);
    }
    return new Collection(groupKey, groups, base, EMPTY, base.size);
  }

  get(id: string): R | undefined {
    if (this.recent.size > 0) {
      const changed = this.recent.get(id);
      if (changed !== undefined) return changed ?? undefined;
    }
    return this.base.get(id);
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
    const old = this.get(id);
    const oldKey = old && this.groupKey(old);
    const newKey = record === null ? undefined : this.groupKey(record);
    const groups = new Map(this.groups);
    if (oldKey !== undefined && oldKey !== newKey) {
      const group = new Map(groups.get(oldKey)!);
      group.delete(id);
      if (group.size === 0) groups.delete(oldKey);
      else groups.set(oldKey, group);
    }
    if (record !== null) groups.set(newKey!, new Map(groups.get(newKey!)).set(id, record));
    const size = this.size + (record === null ? 0 : 1) - (old === undefined ? 0 : 1);
    let base = this.base;
    let recent: ReadonlyMap<string, R | null> = new Map(this.recent).set(id, record);
    if (recent.size > RECENT) {
      const folded = new Map(base);
      for (const [key, value] of recent) {
        if (value === null) folded.delete(key);
        else folded.set(key, value);
      }
      base = folded;
      recent = EMPTY;
    }
    return new Collection(this.groupKey, groups, base, recent, size);
  }
}
