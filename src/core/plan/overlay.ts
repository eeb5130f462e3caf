/**
 * So many changed entries are copied at each change before they are folded into a new base: as many as make copying the
 * changed ones at each change cost what folding all costs once.
 */
const mostRecent = (base: number): number => Math.max(16, Math.sqrt(2 * base));
const EMPTY = new Map<string, never>();

/**
 * An immutable map for many entries of which few change: `base` is shared by all versions since it was made, `recent`
 * holds what changed after it (null: removed) and is copied at each change.
 */
export class Overlay<V extends object> {
  private constructor(
    private readonly base: ReadonlyMap<string, V>,
    private readonly recent: ReadonlyMap<string, V | null>,
  ) {}

  /** Takes the map as it is; the caller changes it no more. */
  static of<V extends object>(entries: ReadonlyMap<string, V>): Overlay<V> {
    return new Overlay(entries, EMPTY);
  }

  get(key: string): V | undefined {
    if (this.recent.size > 0) {
      const changed = this.recent.get(key);
      if (changed !== undefined) return changed ?? undefined;
    }
    return this.base.get(key);
  }

  *values(): IterableIterator<V> {
    if (this.recent.size === 0) return yield* this.base.values();
    const found: V[] = [];
    this.forEach((value) => found.push(value));
    yield* found;
  }

  /** Every value in the order of `values`, without an iterator's cost. */
  forEach(visit: (value: V, key: string) => void): void {
    const { base, recent } = this;
    if (recent.size === 0) return base.forEach(visit);
    base.forEach((value, key) => {
      const changed = recent.get(key);
      if (changed === undefined) visit(value, key);
      else if (changed !== null) visit(changed, key);
    });
    recent.forEach((value, key) => {
      if (value !== null && !base.has(key)) visit(value, key);
    });
  }

  /** The map in which `key` holds `value`, or nothing when that is null. */
  with(key: string, value: V | null): Overlay<V> {
    return this.over(new Map(this.recent).set(key, value));
  }

  /** The map in which each of these keys holds its value, or nothing where that is null. */
  withAll(changes: Iterable<readonly [string, V | null]>): Overlay<V> {
    const recent = new Map(this.recent);
    for (const [key, value] of changes) recent.set(key, value);
    return this.over(recent);
  }

  private over(recent: ReadonlyMap<string, V | null>): Overlay<V> {
    if (recent.size <= mostRecent(this.base.size)) return new Overlay(this.base, recent);
    const folded = new Map(this.base);
    for (const [changed, now] of recent) {
      if (now === null) folded.delete(changed);
      else folded.set(changed, now);
    }
    return new Overlay(folded, EMPTY);
  }

  /** The keys that hold something else here than in an earlier version. Only the changed entries are looked at while both share a base. */
  differing(earlier: Overlay<V>): Set<string> {
    const keys = new Set<string>();
    const look = (entries: ReadonlyMap<string, unknown>) => {
      for (const key of entries.keys()) if (this.get(key) !== earlier.get(key)) keys.add(key);
    };
    look(this.recent);
    look(earlier.recent);
    if (this.base === earlier.base) return keys;
    look(this.base);
    look(earlier.base);
    return keys;
  }
}
