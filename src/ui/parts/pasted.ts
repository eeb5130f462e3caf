import Papa from 'papaparse';
import { armed } from '@/core/formats';

/**
 * The cells of rows copied from a spreadsheet: tab separated, or by what they look like. What our tables write so that it is no
 * formula comes back as it was. Empty lines before and after go; an empty first cell stays.
 */
export const cellsOf = (text: string): string[][] =>
  Papa.parse<string[]>(text.replace(/\r\n?/g, '\n').replace(/^(?:[^\S\n]*\n)+|(?:\n[^\S\n]*)+$/g, ''), {
    delimiter: text.includes('\t') ? '\t' : '',
    delimitersToGuess: [',', ';', '\t', '|'],
    newline: '\n',
    skipEmptyLines: false,
  }).data.map((row) => row.map(armed));
