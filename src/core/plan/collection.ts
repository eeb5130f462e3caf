import { Overlay } from './overlay';

/** A stable hash of a text, 0 to 2^32 − 1 (FNV-1a over its code units, folded once). */
export function hashOf(text: string): number {
  let hash = 2166136261;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 16777619);
  return (hash ^ (hash >>> 15)) >>> 0;
}

/** The bucket of an id when records are spread over `shards` of them. */
export const shardOf = (id: string, shards: number): number => hashOf(id) % shards;

export type Group<R> = ReadonlyMap<string, R>;
const EMPTY = new Map<string, never>();

/**
 * An immutable collection of records, bucketed so that changing one record of 50,000 copies one small bucket.
 *
 * Two structures share the records: `groups` holds them by a key of the record (addresses by subnet, devices by a
 * hash of their id), and a group's identity changes exactly when one of its records does, which makes it the key for
 * memoising what is derived from it; `byId` holds them by id.
 */
export class Collection<R extends { readonly id: string }> {
  private constructor(
    private readonly groupKey: (record: R) => string,
    private readonly groups: Overlay<Group<R>>,
    private readonly byId: Overlay<R>,
    readonly size: number,
  ) {}

  /** Builds a collection at once; later records of the same id would be a caller's mistake and throw. */
  static of<R extends { readonly id: string }>(
    groupKey: (record: R) => string,
    records: Iterable<R>,
  ): Collection<R> {
    const groups = new Map<string, Map<string, R>>();
    const byId = new Map<string, R>();
    for (const record of records) {
      const key = groupKey(record);
      let group = groups.get(key);
      if (!group) groups.set(key, (group = new Map()));
      if (byId.has(record.id)) throw new RangeError(`two records with the id ${record.id}`);
      group.set(record.id, record);
      byId.set(record.id, record);
    }
    return new Collection(groupKey, Overlay.of<Group<R>>(groups), Overlay.of(byId), byId.size);
  }

  get(id: string): R | undefined {
    return this.byId.get(id);
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

  /** Every record in the order they came in, which is mostly how they lie in memory; not by group as in `values`. */
  forEach(visit: (record: R) => void): void {
    this.byId.forEach(visit);
  }

  /** A collection in which `id` holds `record`, or nothing when `record` is null. Shares everything untouched. */
  with(id: string, record: R | null): Collection<R> {
    const old = this.get(id);
    const oldKey = old && this.groupKey(old);
    const newKey = record === null ? undefined : this.groupKey(record);
    let groups = this.groups;
    if (oldKey !== undefined && oldKey !== newKey) {
      const group = new Map(groups.get(oldKey));
      group.delete(id);
      groups = groups.with(oldKey, group.size === 0 ? null : group);
    }
    if (record !== null) groups = groups.with(newKey!, new Map(groups.get(newKey!)).set(id, record));
    const size = this.size + (record === null ? 0 : 1) - (old === undefined ? 0 : 1);
    return new Collection(this.groupKey, groups, this.byId.with(id, record), size);
  }
}
