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
