/** What a spreadsheet begins a formula with, also in the wide forms of East Asian text. */
const FORMULA = '[=+\\-@\uff1d\uff0b\uff0d\uff20]';
/**
 * It strips white space first; where it takes semicolons for separators, what follows one is a cell of its own. An apostrophe that
 * stands in front already gets one more, so that it is known which was put there.
 */
const AT_START = new RegExp(`^'*(?:[\\s\\p{Z}\\p{C}]*${FORMULA}|[\\t\\r])`, 'u');
const AFTER_SEMICOLON = new RegExp(`(;[\\s\\p{Z}\\p{C}"]*)(?='*${FORMULA})`, 'gu');
const APOSTROPHES = new RegExp(`(;[\\s\\p{Z}\\p{C}"]*)'(?='*${FORMULA})`, 'gu');

/**
 * A cell of text that no spreadsheet takes for a formula: an apostrophe stands in front of whatever could begin one, at its start
 * and after each semicolon.
 */
export function defused(value: string): string {
  const safe = value.replace(AFTER_SEMICOLON, "$1'");
  return AT_START.test(safe) ? `'${safe}` : safe;
}

/** One cell of a CSV file (RFC 4180 section 2): defused, and quoted where it must be. */
export function csvCell(value: string): string {
  const safe = defused(value);
  return /[",;\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/** Rows as CSV text with CRLF line ends. */
export const csvText = (rows: readonly (readonly string[])[]): string =>
  rows.map((row) => `${row.map(csvCell).join(',')}\r\n`).join('');

/** A cell as it was before it was defused. */
export const armed = (cell: string): string =>
  (cell.startsWith("'") && AT_START.test(cell) ? cell.slice(1) : cell).replace(APOSTROPHES, '$1');
