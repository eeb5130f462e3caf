import { Overlay } from './overlay';
import { reading } from './reads';

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
const NONE: readonly never[] = [];
const byId = (a: { readonly id: string }, b: { readonly id: string }) => (a.id < b.id ? -1 : 1);

/** What a record is found by besides its id: one key, several, or null for none. */
export type KeyOf<R> = (record: R) => string | readonly string[] | null;

/** How the records of one table are kept. */
export interface TableLayout<R> {
  /** The place of the table among all; reads are reported under it. */
  readonly table: number;
  /** The bucket of a record. */
  readonly bucket: (record: R) => string;
  readonly indexes: Readonly<Record<string, KeyOf<R>>>;
}

const keysOf = <R>(keyOf: KeyOf<R>, record: R | undefined): readonly string[] => {
  const key = record && keyOf(record);
  return key === null || key === undefined ? NONE : typeof key === 'string' ? [key] : key;
};

/** What differs between two versions of a collection: ids, buckets, and the keys of each index. */
export interface ChangedKeys {
  readonly ids: ReadonlySet<string>;
  readonly buckets: ReadonlySet<string>;
  readonly keys: ReadonlyMap<string, ReadonlySet<string>>;
}

/** An index that a collection has had reason to make; later versions keep it up to date. */
type Index<R> = Overlay<readonly R[]>;

/**
 * An immutable collection of records, bucketed so that changing one record of 50,000 copies one small bucket.
 *
 * Two structures share the records: `groups` holds them by a key of the record (addresses by subnet, devices by a
 * hash of their id), and a group's identity changes exactly when one of its records does, which makes it the key for
 * memoising what is derived from it; `byId` holds them by id. Indexes are made when first asked for and kept up to date
 * from then on. Every read is reported, see reads.ts.
 */
export class Collection<R extends { readonly id: string }> {
  private constructor(
    private readonly layout: TableLayout<R>,
    private readonly groups: Overlay<Group<R>>,
    private readonly byId: Overlay<R>,
    private readonly count: number,
    private indexes: Readonly<Record<string, Index<R>>>,
  ) {}

  /** Builds a collection at once; later records of the same id would be a caller's mistake and throw. */
  static of<R extends { readonly id: string }>(layout: TableLayout<R>, records: Iterable<R>): Collection<R> {
    const groups = new Map<string, Map<string, R>>();
    const byId = new Map<string, R>();
    for (const record of records) {
      const key = layout.bucket(record);
      let group = groups.get(key);
      if (!group) groups.set(key, (group = new Map()));
      if (byId.has(record.id)) throw new RangeError(`two records with the id ${record.id}`);
      group.set(record.id, record);
      byId.set(record.id, record);
    }
    return new Collection(layout, Overlay.of<Group<R>>(groups), Overlay.of(byId), byId.size, {});
  }

  /** The place of its table among all. */
  get table(): number {
    return this.layout.table;
  }

  get size(): number {
    this.readWhole();
    return this.count;
  }

  get(id: string): R | undefined {
    const { reader } = reading;
    if (reader !== null) reader.one(this.layout.table, id);
    return this.byId.get(id);
  }

  /** The records under one bucket key; the same object as long as none of them changed. */
  group(key: string): Group<R> {
    const { reader } = reading;
    if (reader !== null) reader.bucket(this.layout.table, key);
    return this.groups.get(key) ?? (EMPTY as Group<R>);
  }

  /** The records under a key of an index, by id, so that a plan read again gives the same list. */
  by(index: string, key: string): readonly R[] {
    const { reader } = reading;
    if (reader !== null) reader.key(this.layout.table, index, key);
    return this.index(index).get(key) ?? NONE;
  }

  /** The keys of an index under which there is more than one record, in order. */
  shared(index: string): string[] {
    this.readWhole();
    const keys: string[] = [];
    this.index(index).forEach((records, key) => {
      if (records.length > 1) keys.push(key);
    });
    return keys.sort();
  }

  /** Every non-empty group. */
  allGroups(): Iterable<Group<R>> {
    this.readWhole();
    return this.groups.values();
  }

  *values(): IterableIterator<R> {
    this.readWhole();
    for (const group of this.groups.values()) yield* group.values();
  }

  /** Every record in the order they came in, which is mostly how they lie in memory; not by group as in `values`. */
  forEach(visit: (record: R) => void): void {
    this.readWhole();
    this.byId.forEach(visit);
  }

  private readWhole(): void {
    const { reader } = reading;
    if (reader !== null) reader.whole(this.layout.table);
  }

  /** A collection in which `id` holds `record`, or nothing when `record` is null. Shares everything untouched. */
  with(id: string, record: R | null): Collection<R> {
    const old = this.byId.get(id);
    const oldKey = old && this.layout.bucket(old);
    const newKey = record === null ? undefined : this.layout.bucket(record);
    let groups = this.groups;
    if (oldKey !== undefined && oldKey !== newKey) {
      const group = new Map(groups.get(oldKey));
      group.delete(id);
      groups = groups.with(oldKey, group.size === 0 ? null : group);
    }
    if (record !== null) groups = groups.with(newKey!, new Map(groups.get(newKey!)).set(id, record));
    const count = this.count + (record === null ? 0 : 1) - (old === undefined ? 0 : 1);
    const indexes: Record<string, Index<R>> = {};
    for (const [name, known] of Object.entries(this.indexes))
      indexes[name] = reindexed(known, this.layout.indexes[name]!, old, record);
    return new Collection(this.layout, groups, this.byId.with(id, record), count, indexes);
  }

  /** A collection in which each id holds its record, or nothing where that is null: many changes at the cost of one copy. */
  withAll(changes: ReadonlyMap<string, R | null>): Collection<R> {
    const groups = new Map<string, Map<string, R>>();
    const groupOf = (key: string): Map<string, R> => {
      let group = groups.get(key);
      if (!group) groups.set(key, (group = new Map(this.groups.get(key))));
      return group;
    };
    let { count } = this;
    for (const [id, record] of changes) {
      const old = this.byId.get(id);
      const oldKey = old && this.layout.bucket(old);
      const newKey = record === null ? undefined : this.layout.bucket(record);
      if (oldKey !== undefined && oldKey !== newKey) groupOf(oldKey).delete(id);
      if (record !== null) groupOf(newKey!).set(id, record);
      count += (record === null ? 0 : 1) - (old === undefined ? 0 : 1);
    }
    const changed = [...groups].map(([key, group]) => [key, group.size === 0 ? null : group] as const);
    // Indexes are made anew when they are asked for.
    return new Collection(this.layout, this.groups.withAll(changed), this.byId.withAll(changes), count, {});
  }

  /** What differs from an earlier version. */
  differences(earlier: Collection<R>): ChangedKeys {
    const ids = this.byId.differing(earlier.byId);
    const keys = new Map(
      Object.entries(this.layout.indexes).map(([name, keyOf]) => {
        const changed = [...ids].flatMap((id) => [this.byId.get(id), earlier.byId.get(id)]);
        return [name, new Set(changed.flatMap((record) => keysOf(keyOf, record)))];
      }),
    );
    return { ids, buckets: this.groups.differing(earlier.groups), keys };
  }

  private index(name: string): Index<R> {
    const known = this.indexes[name];
    if (known) return known;
    const keyOf = this.layout.indexes[name];
    if (!keyOf) throw new RangeError(`there is no index ${name}`);
    const lists = new Map<string, R[]>();
    this.byId.forEach((record) => {
      for (const key of keysOf(keyOf, record)) {
        const list = lists.get(key);
        if (list) list.push(record);
        else lists.set(key, [record]);
      }
    });
    for (const list of lists.values()) if (list.length > 1) list.sort(byId);
    const made = Overlay.of<readonly R[]>(lists);
    this.indexes = { ...this.indexes, [name]: made };
    return made;
  }
}

/** An index after one record changed; the same where nothing it holds did. */
function reindexed<R extends { readonly id: string }>(
  index: Index<R>,
  keyOf: KeyOf<R>,
  old: R | undefined,
  record: R | null,
): Index<R> {
  let next = index;
  const now = record ?? undefined;
  const after = keysOf(keyOf, now);
  for (const key of keysOf(keyOf, old))
    if (!after.includes(key)) {
      const left = (next.get(key) ?? NONE).filter((item) => item !== old);
      next = next.with(key, left.length > 0 ? left : null);
    }
  for (const key of after) {
    const known = next.get(key) ?? NONE;
    const at = old === undefined ? -1 : known.indexOf(old);
    next = next.with(key, at < 0 ? [...known, now!].sort(byId) : known.with(at, now!));
  }
  return next;
}
