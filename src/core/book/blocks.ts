import type { Drawing } from '../formats';

/** What a chapter is made of. Who shows it decides how it looks; nothing here is about paper or screens. */

/** A text, or one on the colour of its segment. */
export type Cell = string | { readonly text: string; readonly colour: string };

export interface Column {
  readonly title: string;
  /** How wide it is beside the others. */
  readonly share: number;
  /** Addresses, numbers and names of ports. */
  readonly mono?: boolean;
}

/** A signature: the path data of SVG in a box of 400 by 150. */
export interface Signature {
  readonly path: string;
  readonly name: string;
  readonly about: string;
}

export type Block =
  | { readonly kind: 'heading' | 'text' | 'caution'; readonly text: string }
  | { readonly kind: 'list'; readonly items: readonly string[]; readonly numbered: boolean }
  | { readonly kind: 'facts'; readonly rows: readonly (readonly [what: string, value: string])[] }
  | {
      readonly kind: 'table';
      readonly label: string;
      readonly columns: readonly Column[];
      readonly rows: readonly (readonly Cell[])[];
    }
  /** `turns`: on paper it may lie on its side where it would be too small to read. */
  | { readonly kind: 'drawing'; readonly drawing: Drawing; readonly turns: boolean }
  | { readonly kind: 'signatures'; readonly of: readonly Signature[] };

export const heading = (text: string): Block => ({ kind: 'heading', text });
export const text = (words: string): Block => ({ kind: 'text', text: words });
export const list = (items: readonly string[], numbered = false): Block[] =>
  items.length === 0 ? [] : [{ kind: 'list', items, numbered }];
/** What is empty is left out. */
export const facts = (rows: readonly (readonly [string, string])[]): Block => ({
  kind: 'facts',
  rows: rows.filter(([, value]) => value !== ''),
});
/** None where there is nothing in it; without the columns in which nothing stands. */
export function table(
  label: string,
  columns: readonly Column[],
  rows: readonly (readonly Cell[])[],
): Block[] {
  const used = columns.map((_, i) => rows.some((row) => cellText(row[i]!) !== ''));
  const kept = <T>(all: readonly T[]): T[] => all.filter((_, i) => used[i]);
  return rows.length === 0 ? [] : [{ kind: 'table', label, columns: kept(columns), rows: rows.map(kept) }];
}
export const column = (title: string, share: number, mono = false): Column => ({ title, share, mono });
export const drawn = (drawing: Drawing | null, turns = false): Block[] =>
  drawing === null ? [] : [{ kind: 'drawing', drawing, turns }];

/** What a cell says, without its colour. */
export const cellText = (cell: Cell): string => (typeof cell === 'string' ? cell : cell.text);
