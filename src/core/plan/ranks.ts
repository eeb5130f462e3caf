import { generateKeyBetween } from 'fractional-indexing';
import type { Draft } from './draft';
import type { RecordOf, TableName } from './records';
import { missing } from './refusal';

/** A rank string between two others; null stands for the beginning or the end. Sorts by plain string comparison. */
export const rankBetween = (before: string | null, after: string | null): string =>
  generateKeyBetween(before, after);

interface Ranked {
  readonly rank: string;
  readonly id: string;
}

/** From the first to the last, as the user ordered them. */
export const inRank = <R extends Ranked>(a: R, b: R): number =>
  a.rank < b.rank ? -1 : a.rank > b.rank ? 1 : a.id < b.id ? -1 : 1;

type RankedTable = { [T in TableName]: RecordOf<T> extends Ranked ? T : never }[TableName];

/** Puts one of the ordered records of a kind behind another, or first with null. Throws a Refusal (missing) where that is gone. */
export function putBehind(
  draft: Draft,
  table: RankedTable,
  ordered: readonly Ranked[],
  id: string,
  behind: string | null,
): void {
  if (behind === id) return;
  const others = ordered.filter((other) => other.id !== id);
  const at = others.findIndex((other) => other.id === behind) + 1;
  if (behind !== null && at === 0) throw missing(table, behind);
  let last = others[at - 1]?.rank ?? null;
  const rankAnew = (each: string, following: readonly Ranked[]) => {
    const next = following.find(({ rank }) => last === null || rank > last);
    last = rankBetween(last, next?.rank ?? null);
    draft.update(table, each, { rank: last });
  };
  rankAnew(id, others.slice(at));
  // Two that were added at once may share a rank; then those behind need new ones too.
  for (let i = at; i < others.length && others[i]!.rank <= last!; i++)
    rankAnew(others[i]!.id, others.slice(i + 1));
}
