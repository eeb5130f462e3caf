import { equal } from './equal';

/**
 * Did somebody set a value meanwhile to something else than is wanted? `seen` is what was in view when the call was typed;
 * undefined where nobody said.
 */
export const overtaken = <T>(now: T, seen: T | undefined, wanted: T): seen is T =>
  seen !== undefined && !equal(now, seen) && !equal(now, wanted);
