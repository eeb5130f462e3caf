import { type Collection, hashOf } from '../plan';

/**
 * The records that share a key, for each key that at least two have. Records without a
 * key (null) are left out.
 *
 * Nearly all keys are unique, so a table of numbers by hash finds the few that repeat; a map of 50,000 texts, most of
 * them never asked for again, took three times as long.
 */
export function repeated<R extends { readonly id: string }>(
  records: Collection<R>,
  keyOf: (record: R) => string | null,
): Map<string, R[]> {
  const mask = 2 ** Math.ceil(Math.log2(2 * records.size + 2)) - 1;
  // The place in `firsts` and `keys` of the first record with a hash, plus one; 0 is free. At most half of it fills.
  const table = new Int32Array(mask + 1);
  const firsts: R[] = [];
  const keys: string[] = [];
  const shared = new Map<string, R[]>();
  records.forEach((record) => {
    const key = keyOf(record);
    if (key === null) return;
    let slot = hashOf(key) & mask;
    for (; table[slot] !== 0; slot = (slot + 1) & mask) {
      const known = table[slot]! - 1;
      if (keys[known] !== key) continue;
      const list = shared.get(key);
      if (list) list.push(record);
      else shared.set(key, [firsts[known]!, record]);
      return;
    }
    keys.push(key);
    table[slot] = firsts.push(record);
  });
  return shared;
}
