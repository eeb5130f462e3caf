/**
 * Structural equality of plain values: strings, numbers, bigints, booleans, null, arrays, objects, and maps and sets in the
 * same order. Functions are equal only to themselves.
 */
export function equal(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a)) return Array.isArray(b) && sameItems(a, b);
  if (Object.getPrototypeOf(a) !== Object.getPrototypeOf(b)) return false;
  if (a instanceof Map) return sameEntries(a, b as typeof a);
  if (a instanceof Set) return sameEntries(a, b as typeof a);
  return sameFields(a, b);
}

function sameItems(a: readonly unknown[], b: readonly unknown[]): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (!equal(a[i], b[i])) return false;
  return true;
}

interface Entries {
  readonly size: number;
  entries(): IterableIterator<readonly [unknown, unknown]>;
}
function sameEntries(a: Entries, b: Entries): boolean {
  if (a.size !== b.size) return false;
  const others = b.entries();
  for (const [key, value] of a.entries()) {
    const [otherKey, otherValue] = others.next().value!;
    if (!equal(key, otherKey) || !equal(value, otherValue)) return false;
  }
  return true;
}

function sameFields(a: object, b: object): boolean {
  const [left, right] = [a as Record<string, unknown>, b as Record<string, unknown>];
  let fields = 0;
  for (const key in left) {
    if (!(key in right) || !equal(left[key], right[key])) return false;
    fields++;
  }
  for (const _key in right) fields--;
  return fields === 0;
}
