import { generateKeyBetween } from 'fractional-indexing';

/** A rank string between two others; null stands for the beginning or the end. Sorts by plain string comparison. */
export const rankBetween = (before: string | null, after: string | null): string =>
  generateKeyBetween(before, after);

/** From the first to the last, as the user ordered them. */
export const inRank = <R extends { readonly rank: string; readonly id: string }>(a: R, b: R): number =>
  a.rank < b.rank ? -1 : a.rank > b.rank ? 1 : a.id < b.id ? -1 : 1;
