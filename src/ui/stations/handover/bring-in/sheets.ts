import type ExcelJS from 'exceljs';

/** The sheets of a workbook as cells of text. */

export interface Sheet {
  readonly title: string;
  /** The line its first row stands in. */
  readonly from: number;
  readonly cells: readonly (readonly string[])[];
  /** Lines in which cells were joined, with which. */
  readonly notes: ReadonlyMap<number, string>;
}

function textOf(value: ExcelJS.CellValue): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return value.toISOString().replace(/T00:00:00\.000Z$/, '');
  if (typeof value !== 'object') return String(value).trim();
  if ('richText' in value)
    return value.richText
      .map(({ text }) => text)
      .join('')
      .trim();
  if ('result' in value) return textOf(value.result as ExcelJS.CellValue);
  if ('text' in value) return textOf(value.text as ExcelJS.CellValue);
  // A formula without a result, or an error.
  return '';
}

/** A title over a table stands in one cell, or in cells that are joined to one. */
const isTitle = (row: readonly string[]): boolean => new Set(row.filter(Boolean)).size < 2;

function sheetOf(sheet: ExcelJS.Worksheet): Sheet {
  const rows: string[][] = [];
  for (let line = 1; line <= sheet.rowCount; line++) {
    const row = sheet.getRow(line);
    // A joined cell says in every row what its first one says.
    rows.push(Array.from({ length: sheet.columnCount }, (_, i) => textOf(row.getCell(i + 1).value)));
  }
  const wide = rows.some((row) => !isTitle(row));
  let from = 1;
  while (wide && from <= rows.length && isTitle(rows[from - 1]!)) from++;
  const notes = new Map<number, string>();
  for (const merge of (sheet.model as { merges?: readonly string[] }).merges ?? []) {
    const [, first, last] = /^[A-Z]+(\d+):[A-Z]+(\d+)$/.exec(merge) ?? [];
    for (let line = Math.max(from, Number(first)); line <= Number(last); line++)
      notes.set(line, `the cells ${merge} are joined, read as the same in each`);
  }
  return { title: sheet.name, from, cells: rows.slice(from - 1), notes };
}

/** Sheets in which something stands. */
export const sheetsOf = (book: ExcelJS.Workbook): Sheet[] =>
  book.worksheets.map(sheetOf).filter(({ cells }) => cells.some((row) => row.some(Boolean)));
