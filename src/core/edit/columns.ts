/** Which column of a pasted table is what: by its head where there is one, else by what the cells look like. */

export interface ColumnKinds<C extends string> {
  /** The heads people give each column, in small letters. */
  readonly heads: Readonly<Record<C, readonly string[]>>;
  /** What cells of a column look like; asked in this order, each for the column that most cells fit. */
  readonly looks: readonly (readonly [C, (cell: string) => boolean])[];
  /** What the columns that are left are taken for, from the left. */
  readonly rest?: readonly C[];
  /** Is this no head but a first row? */
  readonly isRow: (cell: string) => boolean;
}

export interface Columns<C extends string> {
  readonly order: readonly (C | null)[];
  readonly header: boolean;
}

export const plainCell = (cell: string): string => cell.trim().toLowerCase().replace(/\s+/g, ' ');

export function columnsIn<C extends string>(
  cells: readonly (readonly string[])[],
  { heads, looks, rest = [], isRow }: ColumnKinds<C>,
): Columns<C> {
  const used = new Set<C>();
  const named = (cells[0] ?? []).map((cell) => {
    const column = (Object.keys(heads) as C[]).find(
      (one) => !used.has(one) && heads[one].includes(plainCell(cell)),
    );
    if (column) used.add(column);
    return column ?? null;
  });
  if (named.some((column) => column !== null) && !(cells[0] ?? []).some(isRow))
    return { order: named, header: true };
  const width = Math.max(0, ...cells.map((row) => row.length));
  const order: (C | null)[] = Array.from({ length: width }, () => null);
  for (const [column, fits] of looks) {
    const best = order
      .map((taken, i) => ({
        i,
        hits: taken === null ? cells.filter((row) => fits((row[i] ?? '').trim())).length : 0,
      }))
      .sort((a, b) => b.hits - a.hits)[0];
    if (best && best.hits > 0) order[best.i] = column;
  }
  for (const column of rest) {
    const at = order.indexOf(null);
    if (at >= 0 && !order.includes(column)) order[at] = column;
  }
  return { order, header: false };
}

export interface TableRow<C extends string> {
  /** Line in the table, from 1. */
  readonly line: number;
  /** What stands in a column, trimmed; empty where the table has no such column. */
  readonly value: (column: C) => string;
  /** Has this row a cell in that column, be it an empty one? */
  readonly has: (column: C) => boolean;
}

/** The rows below the head, without those in which nothing stands. */
export const rowsIn = <C extends string>(
  cells: readonly (readonly string[])[],
  { order, header }: Columns<C>,
): TableRow<C>[] =>
  cells
    .map((row, i) => ({
      row,
      line: i + 1,
      value: (column: C) => (row[order.indexOf(column)] ?? '').trim(),
      has: (column: C) => row[order.indexOf(column)] !== undefined,
    }))
    .slice(header ? 1 : 0)
    .filter(({ row }) => row.some((cell) => cell.trim() !== ''))
    .map(({ line, value, has }) => ({ line, value, has }));
