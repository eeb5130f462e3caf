import type { Cells } from '../row';

/** What a file of another program says, as tables; what was not understood is listed. */

export interface FoundTable {
  /** Of a kind that can be brought in. */
  readonly kind: string;
  readonly title: string;
  readonly cells: Cells;
  /** The line its first row stands in, where that is not the first. */
  readonly from?: number;
  /** Does it say only what a program was told, such as names or reservations, and nothing else of the hosts? */
  readonly ofProgram?: true;
  /** What was repaired while the table was read, by the line of the file. */
  readonly notes?: ReadonlyMap<number, string>;
}
export interface LeftOut {
  /** Of the file, from 1; null where it has no lines. */
  readonly line: number | null;
  readonly text: string;
}
export interface FoundFile {
  /** What it was taken for, as in “a dnsmasq file”. */
  readonly what: string;
  readonly tables: readonly FoundTable[];
  readonly leftOut: readonly LeftOut[];
}

export const addressTable = (rows: Cells): FoundTable => ({
  kind: 'addresses',
  title: 'fixed addresses',
  ofProgram: true,
  cells: [['name', 'address', 'mac', 'assignment', 'note'], ...rows],
});
export const rangeTable = (rows: Cells): FoundTable => ({
  kind: 'ranges',
  title: 'ranges that are leased',
  cells: [['range', 'lease'], ...rows],
});
/** Tables in which something stands. */
export const filled = (tables: readonly FoundTable[]): FoundTable[] =>
  tables.filter(({ cells }) => cells.length > 1);
