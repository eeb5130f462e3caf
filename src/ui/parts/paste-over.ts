import Papa from 'papaparse';
import { armed, defused } from '@/core/formats';
import { type Call, Refusal } from '@/core/plan';
import type { SiteSession } from '../session/session';
import type { DataColumn } from './data-table';

type Pastable<R> = Pick<DataColumn<R>, 'id' | 'text' | 'paste'>;

/** Rows as a spreadsheet takes them, with a head; what would be a formula there is none. */
export const tabbed = <R>(columns: readonly Pastable<R>[], records: readonly R[]): string =>
  Papa.unparse(
    [
      columns.map(({ id }) => id),
      ...records.map((record) => columns.map(({ text }) => defused(text(record)))),
    ],
    { delimiter: '\t', newline: '\n' },
  );

interface Over<R> {
  readonly session: SiteSession;
  readonly columns: readonly Pastable<R>[];
  readonly records: readonly R[];
  /** The cell that was pasted into; column 0 is the mark. */
  readonly at: { readonly row: number; readonly column: number };
  readonly text: string;
  readonly nameOf: (record: R) => string;
}

/**
 * Which cells are pasted over, from the one that was pasted into to the right and down; those that hold the same already are left.
 * The head that was copied along is none of them.
 */
export function cellsUnder<R>({ columns, records, at, text }: Omit<Over<R>, 'session' | 'nameOf'>) {
  const read = Papa.parse<string[]>(text, { delimiter: '\t' }).data.map((cells) => cells.map(armed));
  const isHead =
    read.length > 1 && read[0]!.every((cell, across) => columns[at.column - 1 + across]?.id === cell);
  const block = isHead ? read.slice(1) : read;
  const found: { readonly record: R; readonly column: Pastable<R>; readonly text: string }[] = [];
  block.forEach((cells, down) =>
    cells.forEach((cell, across) => {
      const record = records[at.row + down];
      const column = columns[at.column - 1 + across];
      if (record === undefined || column === undefined)
        throw new Refusal(
          'bad-input',
          `What was copied has ${block.length} rows of ${cells.length} cells; from here there is no room for that. Paste further up or to the left.`,
        );
      if (column.text(record) !== cell.trim()) found.push({ record, column, text: cell.trim() });
    }),
  );
  return found;
}

/** Pastes a block of cells as one change; nothing when one of them is refused. Says why, or nothing. */
export function pasteOver<R>(over: Over<R>): string {
  const { session, nameOf } = over;
  try {
    const cells = cellsUnder(over);
    if (cells.length === 0) return '';
    const calls = cells.map(({ record, column, text }): Call => {
      if (!column.paste)
        throw new Refusal('bad-input', `${column.id} of ${nameOf(record)} is not set here; leave it out.`);
      return column.paste(record, text);
    });
    const count = `${cells.length} ${cells.length === 1 ? 'cell' : 'cells'}`;
    try {
      session.perform({ operation: 'several', input: { label: `${count} pasted`, calls } });
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      const wrong = cells[Number(error.path[1])];
      if (!wrong) throw error;
      throw new Refusal(error.code, `${wrong.column.id} of ${nameOf(wrong.record)}: ${error.message}`);
    }
    return '';
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    return `${error.message} Nothing was pasted.`;
  }
}
