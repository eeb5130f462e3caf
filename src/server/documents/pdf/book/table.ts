import { type Block, type Cell, cellText } from '../../../../core/book';
import { textOn } from '../../../../core/model/segments';
import { LEADING, type Style } from '../typesetter';
import type { Struct } from './figures';
import type { Sheet } from './sheet';

/** Ruled tables that go on over sheets, each with its head again. */

type Table = Extract<Block, { kind: 'table' }>;

const SIZE = 8;
const STEP = SIZE * LEADING;
const PAD = { x: 3, y: 2.5 } as const;
const RULE = '#c3ccc6';
const INK = '#12201a';
const HEAD: Style = { size: 7.5, weight: 700, colour: INK };
const CELL: Style = { size: SIZE, colour: INK };

interface Places {
  readonly x: readonly number[];
  readonly width: readonly number[];
}
function placesOf({ columns }: Table, left: number, width: number): Places {
  const all = columns.reduce((sum, { share }) => sum + share, 0);
  const widths = columns.map(({ share }) => (share / all) * width);
  let x = left;
  return { x: widths.map((own) => (x += own) - own), width: widths };
}

const linesOf = (sheet: Sheet, { width }: Places, row: readonly Cell[]): string[][] =>
  row.map((cell, i) => sheet.set.lines(cellText(cell), CELL, width[i]! - 2 * PAD.x));

const heightOf = (lines: readonly (readonly string[])[]): number =>
  Math.max(1, ...lines.map(({ length }) => length)) * STEP + 2 * PAD.y;

function rule({ doc }: Sheet, { x, width }: Places, y: number, colour: string, thick: number): void {
  const [left, right] = [x[0]!, x.at(-1)! + width.at(-1)!];
  doc.lineWidth(thick).moveTo(left, y).lineTo(right, y).stroke(colour);
}

/** The head; only the first one of a table is read aloud. */
function drawHead(sheet: Sheet, { columns }: Table, places: Places, parent: Struct | null): void {
  const { doc, set, y } = sheet;
  const write = (title: string, i: number) =>
    set.line(set.cut(title, HEAD, places.width[i]! - 2 * PAD.x), places.x[i]! + PAD.x, y + PAD.y, HEAD);
  const bottom = y + STEP + 2 * PAD.y;
  if (parent) {
    const row = doc.struct('TR');
    parent.add(row);
    columns.forEach(({ title }, i) =>
      row.add(doc.struct('TH', { scope: 'Column' } as object, () => write(title, i))),
    );
    row.end();
  }
  doc.markContent('Artifact', { type: 'Layout' });
  if (!parent) columns.forEach(({ title }, i) => write(title, i));
  rule(sheet, places, bottom, INK, 1);
  doc.endMarkedContent();
  sheet.y = bottom;
}

/** So much of a row as fits on a sheet by itself. */
function drawPart(
  sheet: Sheet,
  places: Places,
  row: readonly Cell[],
  lines: readonly (readonly string[])[],
  cells: readonly Struct[],
): void {
  const { doc, set, y } = sheet;
  const height = heightOf(lines);
  row.forEach((cell, i) => {
    const own = lines[i]!;
    const x = places.x[i]!;
    const colour = typeof cell === 'string' ? null : cell.colour;
    cells[i]!.add(() => {
      if (colour !== null)
        doc.rect(x + 1, y + 1.5, places.width[i]! - 4, Math.max(1, own.length) * STEP + 1.5).fill(colour);
      own.forEach((line, at) =>
        set.line(line, x + PAD.x, y + PAD.y + at * STEP, {
          ...CELL,
          ...(colour === null ? {} : { colour: textOn(colour), weight: 700 }),
        }),
      );
    });
  });
  doc.markContent('Artifact', { type: 'Layout' });
  rule(sheet, places, y + height, RULE, 0.5);
  doc.endMarkedContent();
  sheet.y = y + height;
}

export function drawTable(sheet: Sheet, table: Table, parent: Struct): void {
  const { doc } = sheet;
  const places = placesOf(table, sheet.left, sheet.width);
  const struct = doc.struct('Table', { title: table.label });
  parent.add(struct);
  const most = Math.floor((sheet.height - STEP - 4 * PAD.y) / STEP);
  const rows = table.rows.map((row) => linesOf(sheet, places, row));
  const head = STEP + 2 * PAD.y;
  sheet.need(head + heightOf(rows[0]!.map((lines) => lines.slice(0, most))));
  drawHead(sheet, table, places, struct);
  table.rows.forEach((row, at) => {
    const tr = doc.struct('TR');
    struct.add(tr);
    const cells = row.map(() => doc.struct('TD'));
    cells.forEach((cell) => tr.add(cell));
    // A row higher than a sheet goes on on the next one.
    const longest = Math.max(1, ...rows[at]!.map(({ length }) => length));
    for (let from = 0; from < longest; from += most) {
      const lines = rows[at]!.map((own) => own.slice(from, from + most));
      if (sheet.y + heightOf(lines) > sheet.bottom) {
        sheet.begin();
        drawHead(sheet, table, places, null);
      }
      drawPart(sheet, places, row, lines, cells);
    }
    cells.forEach((cell) => cell.end());
    tr.end();
  });
  struct.end();
  sheet.y += 10;
}
