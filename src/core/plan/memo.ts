/**
 * Remembers what `derive` made of an immutable value for as long as that value lives. Plans share their unchanged
 * groups, so a derivation per group is an index that is kept up to date by recomputing only what changed.
 */
export function memo<K extends object, V>(derive: (key: K) => V): (key: K) => V {
  const known = new WeakMap<K, V>();
  return (key) => {
    let value = known.get(key);
    if (value === undefined) known.set(key, (value = derive(key)));
    return value;
  };
}

/** Lists by key, in the order they come. */
export function groupBy<T, K>(items: Iterable<T>, keyOf: (item: T) => K): Map<K, T[]> {
  const map = new Map<K, T[]>();
  for (const item of items) {
    const key = keyOf(item);
    const list = map.get(key);
    if (list) list.push(item);
    else map.set(key, [item]);
  }
  return map;
}

/**
 * An index of records by a key that is nearly always unique: a single record is kept as itself, so that indexing
 * 50,000 of them makes no 50,000 lists. `null` keys are left out.
 */
export class Index<K, R extends object> {
  private readonly entries = new Map<K, R | R[]>();

  constructor(records: Iterable<R>, keyOf: (record: R) => K | null) {
    for (const record of records) {
      const key = keyOf(record);
      if (key === null) continue;
      const known = this.entries.get(key);
      if (known === undefined) this.entries.set(key, record);
      else if (Array.isArray(known)) known.push(record);
      else this.entries.set(key, [known, record]);
    }
  }

  /** Adds the records under a key to a list. */
  collect(key: K, into: R[]): void {
    const known = this.entries.get(key);
    if (known === undefined) return;
    if (Array.isArray(known)) into.push(...known);
    else into.push(known);
  }
}

/**
 * Remembers what `derive` last made for as long as none of the named collections changes: for what reads several of them
 * and must not be made again at an edit of another.
 */
export function memoOn<P extends object, T extends keyof P, V>(
  tables: readonly T[],
  derive: (plan: P) => V,
): (plan: P) => V {
  let latest: { readonly of: readonly unknown[]; readonly value: V } | null = null;
  return (plan) => {
    if (!latest || tables.some((table, i) => plan[table] !== latest!.of[i]))
      latest = { of: tables.map((table) => plan[table]), value: derive(plan) };
    return latest.value;
  };
}
