import { type Columns } from '../edit';
import { type Plan, type Progress, type WireStep, type Work, badInput, encodeStep, netSteps } from '../plan';
import type { FoundTable } from './files';
import { type ReadRow, Taking } from './row';
import { tableKindOf, tableKinds } from './tables';

/** Tables brought into a plan: what becomes of every row, and all that is good as one change. */

/** So many rows at most; a file of more is cut up first. */
const MOST_ROWS = 20_000;

const countOf = (tables: readonly Pick<AskedTable, 'cells'>[]): number =>
  tables.reduce((sum, { cells }) => sum + cells.length, 0);
/** Why tables are not read, as there are too many rows in them; empty where there are not. */
export const tooManyRows = (tables: readonly Pick<AskedTable, 'cells'>[]): string =>
  countOf(tables) <= MOST_ROWS
    ? ''
    : `There are ${countOf(tables).toLocaleString('en')} rows; at most ${MOST_ROWS.toLocaleString('en')} are brought in at once. Cut the table up.`;

export interface AskedTable extends Omit<FoundTable, 'notes'> {
  readonly notes: readonly (readonly [line: number, note: string])[];
  /** Columns put right by hand; null: as they are guessed. */
  readonly order: readonly (string | null)[] | null;
  /** It is looked at, and nothing of it is taken. */
  readonly leftOut: boolean;
}
export interface ReadTable {
  readonly kind: string;
  readonly title: string;
  readonly columns: Columns<string>;
  readonly rows: readonly ReadRow[];
}
export interface Import {
  readonly tables: readonly ReadTable[];
  readonly steps: readonly WireStep[];
}

function* readTable(taking: Taking, table: AskedTable): Work<ReadTable> {
  const kind = tableKindOf(table.kind);
  const guess = kind.guess(table.cells);
  const columns = table.order === null ? guess : { ...guess, order: table.order };
  const notes = new Map(table.notes);
  const rows = (yield* kind.read(taking, table.cells, columns, table.ofProgram === true)).map(
    (row): ReadRow => {
      const line = row.line + (table.from ?? 1) - 1;
      const note = notes.get(line);
      if (note === undefined || row.verdict === 'there') return { ...row, line };
      return {
        ...row,
        line,
        verdict: row.verdict === 'good' ? 'repaired' : row.verdict,
        why: [note, ...row.why],
      };
    },
  );
  return { kind: table.kind, title: table.title, columns, rows };
}

/**
 * Reads tables against a plan, segments first and cables last, each row as the ones before it left the plan. `seed` makes the ids of
 * what is new. Throws a Refusal where there are too many rows.
 */
export function* importing(plan: Plan, tables: readonly AskedTable[], seed: string): Work<Import, Progress> {
  const of = countOf(tables);
  const tooMany = tooManyRows(tables);
  if (tooMany !== '') throw badInput(tooMany, 'rows');
  const taking = new Taking(plan, seed);
  const read = new Map<AskedTable, ReadTable>();
  let done = 0;
  for (const { id } of tableKinds)
    for (const table of tables.filter(({ kind }) => kind === id)) {
      const work = readTable(table.leftOut ? new Taking(taking.plan, seed) : taking, table);
      for (;;) {
        const next = work.next();
        if (next.done) {
          read.set(table, next.value);
          break;
        }
        yield { done: Math.min(++done, of), of };
      }
    }
  return {
    tables: tables.map((table) => read.get(table)!),
    steps: netSteps(taking.steps).map(encodeStep),
  };
}
