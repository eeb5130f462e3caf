import Papa from 'papaparse';

/** The cells of rows copied from a spreadsheet: tab separated, or by what they look like. */
export const cellsOf = (text: string): string[][] =>
  Papa.parse<string[]>(text.trim(), {
    delimiter: text.includes('\t') ? '\t' : '',
    delimitersToGuess: [',', ';', '\t', '|'],
    skipEmptyLines: false,
  }).data;
