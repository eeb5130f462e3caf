import { Collection } from './collection';
import { type Reader, readBy, reading } from './reads';

/** Lets only one table be read; with none, nothing at all. */
function only(allowed: number | null): Reader {
  const check = (table: number) => {
    if (table !== allowed) throw new Error('a memo reads nothing but its key; what reads a plan is derived');
  };
  return { one: check, bucket: check, key: check, whole: check };
}
const NOTHING = only(null);

/**
 * Remembers what `make` made of an immutable value for as long as that value lives. It may read nothing but that value: what
 * reads a plan is made by `derive`. Of a collection, all is taken to be read.
 */
export function memo<K extends object, V>(make: (key: K) => V): (key: K) => V {
  const known = new WeakMap<K, V>();
  return (key) => {
    const table = key instanceof Collection ? key.table : null;
    if (table !== null && reading.reader !== null) reading.reader.whole(table);
    let value = known.get(key);
    if (value === undefined)
      known.set(key, (value = readBy(table === null ? NOTHING : only(table), () => make(key))));
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
