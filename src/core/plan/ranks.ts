import { generateKeyBetween } from 'fractional-indexing';

/** A rank string between two others; null stands for the beginning or the end. Sorts by plain string comparison. */
export const rankBetween = (before: string | null, after: string | null): string =>
  generateKeyBetween(before, after);
