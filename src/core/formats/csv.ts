/**
 * One cell of a CSV file (RFC 4180 section 2): quoted where it must be. A cell that a spreadsheet would run as a
 * formula (it starts with = + - @, a tab or a carriage return) is defused with a leading apostrophe.
 */
export function csvCell(value: string): string {
  const safe = /^[=+\-@\t\r]/.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/** Rows as CSV text with CRLF line ends. */
export const csvText = (rows: readonly (readonly string[])[]): string =>
  rows.map((row) => `${row.map(csvCell).join(',')}\r\n`).join('');
