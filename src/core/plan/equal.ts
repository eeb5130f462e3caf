/**
 * Structural equality of plain values: strings, numbers, bigints, booleans, null, arrays, objects, and maps and sets in the
 * same order. Functions are equal only to themselves.
 */
export function equal(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a))
    return Array.isArray(b) && a.length === b.length && a.every((item, i) => equal(item, b[i]));
  if (a instanceof Map || a instanceof Set)
    return (
      b instanceof a.constructor && a.size === (b as typeof a).size && equal([...a], [...(b as typeof a)])
    );
  if (Object.getPrototypeOf(a) !== Object.getPrototypeOf(b)) return false;
  const left = a as Record<string, unknown>;
  const right = b as Record<string, unknown>;
  const keys = Object.keys(left);
  return (
    keys.length === Object.keys(right).length &&
    keys.every((key) => key in right && equal(left[key], right[key]))
  );
}
