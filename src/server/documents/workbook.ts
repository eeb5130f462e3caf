import ExcelJS from 'exceljs';
import { type Zippable, unzipSync, zipSync } from 'fflate';
import { tablesOf } from '../../core/formats';
import { type Plan, siteOf } from '../../core/plan';

/** All schedules as sheets of one workbook (ECMA-376), with heads that stay in view and can be filtered by. */

/** Columns are as wide as what stands in them, within these, in letters. */
const NARROWEST = 8;
const WIDEST = 48;

/** A whole number as a number, so that it sorts as one; everything else is text and never a formula. */
const valueOf = (cell: string): string | number => (/^(0|[1-9]\d{0,8})$/.test(cell) ? Number(cell) : cell);

export async function workbookOf(plan: Plan, today: string | null): Promise<Uint8Array<ArrayBuffer>> {
  const book = new ExcelJS.Workbook();
  const written = new Date(`${today ?? '1980-01-01'}T12:00:00Z`);
  book.title = siteOf(plan).name;
  book.creator = 'Dianome';
  book.created = written;
  book.modified = written;
  for (const { title, head, rows } of tablesOf(plan)) {
    const sheet = book.addWorksheet(title, { views: [{ state: 'frozen', ySplit: 1 }] });
    const cells = rows(today);
    sheet.columns = head.map((name, i) => ({
      header: name,
      width: Math.min(
        WIDEST,
        Math.max(NARROWEST, name.length + 2, ...cells.map((row) => row[i]!.length + 1)),
      ),
    }));
    sheet.getRow(1).font = { bold: true };
    for (const row of cells) sheet.addRow(row.map(valueOf));
    sheet.autoFilter = { from: { row: 1, column: 1 }, to: { row: cells.length + 1, column: head.length } };
  }
  // Packed again, as the packer writes the time of day into it: the same plan on the same day gives the same bytes.
  const parts: Zippable = unzipSync(new Uint8Array(await book.xlsx.writeBuffer()));
  return zipSync(parts, { mtime: written }) as Uint8Array<ArrayBuffer>;
}
