import { type FileKind, type FoundFile, kindOfFile, kindOfTable, readAs } from '@/core/imports';
import { badInput } from '@/core/plan';
import { cellsOf } from '../../../parts/pasted';
import type { Sheet } from './sheets';
import { MOST_UNPACKED, unpackedSize } from './unpacked';

/** Whatever file somebody chooses, as tables; a Refusal says what is wrong with it. */

const MEGABYTE = 1024 * 1024;
const MOST_FILE = 10 * MEGABYTE;
/** A workbook that takes longer than this is given up, in milliseconds. */
const PATIENCE = 30_000;

const megabytes = (bytes: number): string => `${Math.ceil(bytes / MEGABYTE)} MB`;

/** Spreadsheets also write the code page of Windows. */
function decoded(bytes: Uint8Array): string {
  const encoding = bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : 'utf-8';
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

function sheetsIn(bytes: Uint8Array): Promise<readonly Sheet[]> {
  const size = unpackedSize(bytes);
  if (size === null) throw badInput('The file is a broken archive; save the workbook anew.', 'file');
  if (size > MOST_UNPACKED)
    throw badInput(
      `Unpacked the file would have ${megabytes(size)}; at most ${megabytes(MOST_UNPACKED)} are read. Save the sheet that is wanted as CSV.`,
      'file',
    );
  const worker = new Worker(new URL('./workbook.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<readonly Sheet[]>((resolve, reject) => {
    const refuse = (why: string) => reject(badInput(why, 'file'));
    const timer = setTimeout(
      () => refuse('The workbook takes too long to read; save the sheet that is wanted as CSV.'),
      PATIENCE,
    );
    worker.onmessage = ({ data }: MessageEvent<{ sheets: readonly Sheet[] } | { problem: string }>) => {
      clearTimeout(timer);
      if ('sheets' in data) resolve(data.sheets);
      else refuse('The file is no workbook that can be read; save it as XLSX or CSV.');
    };
    worker.onerror = () => refuse('The file is no workbook that can be read; save it as XLSX or CSV.');
    worker.postMessage(bytes);
  }).finally(() => worker.terminate());
}

const isArchive = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;
/** What spreadsheets wrote before 2007, and PDF: neither text nor an archive. */
const isBinary = (bytes: Uint8Array): boolean => bytes.subarray(0, 4096).includes(0) && bytes[0] !== 0xff;

export interface ChosenFile {
  readonly name: string;
  /** Null for a workbook: it is what it is. */
  readonly text: string | null;
  readonly kind: FileKind;
  readonly found: FoundFile;
}

function tableFile(text: string): FoundFile {
  const cells = cellsOf(text.replace(/^\ufeff/, ''));
  return {
    what: 'a table',
    tables: [{ kind: kindOfTable(cells), title: 'the table', cells }],
    leftOut: [],
  };
}

/** A text as something else than it looks like. Throws a Refusal. */
export const readTextAs = (kind: FileKind, text: string): FoundFile =>
  kind === 'table' ? tableFile(text) : readAs(kind, text);

/** Throws a Refusal. */
export async function readTables(file: File): Promise<ChosenFile> {
  const { name } = file;
  if (file.size > MOST_FILE)
    throw badInput(
      `The file has ${megabytes(file.size)}; at most ${megabytes(MOST_FILE)} are read. Cut it up, or leave out what is not wanted.`,
      'file',
    );
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (bytes.length === 0) throw badInput('The file is empty.', 'file');
  if (isArchive(bytes)) {
    const sheets = await sheetsIn(bytes);
    if (sheets.length === 0) throw badInput('Nothing stands in this workbook.', 'file');
    const tables = sheets.map(({ cells, ...sheet }) => ({ ...sheet, cells, kind: kindOfTable(cells) }));
    return { name, text: null, kind: 'table', found: { what: 'a workbook', tables, leftOut: [] } };
  }
  if (isBinary(bytes))
    throw badInput('The file is neither text nor a workbook (XLSX); save it as XLSX or CSV.', 'file');
  const text = decoded(bytes);
  if (/^\s*\{\s*"format"\s*:\s*"dianome/.test(text))
    throw badInput('This is a plan file; bring it in as a plan, one line above.', 'file');
  const kind = kindOfFile(name, text);
  return { name, text, kind, found: readTextAs(kind, text) };
}
