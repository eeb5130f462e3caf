import { badInput } from '../../plan';
import { type SourceKind, readJson, readTable, readers } from './readers';
import { type Row, type Sighting, type Skipped, sightingOf } from './sighting';

/** A list as it was understood. */
export interface FoundList {
  readonly kind: SourceKind;
  readonly sightings: readonly Sighting[];
  /** Rows that were read and say nothing that can be compared. */
  readonly skipped: readonly Skipped[];
}

const MOST_CHARACTERS = 2_000_000;
const MOST_ROWS = 20_000;

/** The list that most lines look like; a table where none does. */
function understood(text: string): { readonly kind: SourceKind; readonly rows: readonly Row[] } {
  if (/^[[{]/.test(text.trim())) return readJson(text.trim());
  const lines = text.split(/\r?\n/);
  const [best] = readers
    .map((reader) => ({ reader, hits: lines.filter((line) => reader.looks.test(line)).length }))
    .sort((a, b) => b.hits - a.hits);
  if (!best || best.hits === 0) return readTable(text);
  return { kind: best.reader.kind, rows: best.reader.read(lines) };
}

/**
 * Reads a list that a site shows: leases, neighbours, MAC tables, scans, interfaces, or any table with heads. Throws a Refusal
 * where nothing in it can be understood.
 */
export function readFound(text: string): FoundList {
  if (text.length > MOST_CHARACTERS)
    throw badInput('This is longer than two million characters; paste it in parts.', 'text');
  const { kind, rows } = understood(text);
  if (rows.length > MOST_ROWS)
    throw badInput(`This has ${rows.length} rows; paste at most ${MOST_ROWS} at once.`, 'text');
  const read = rows.map(sightingOf);
  const sightings = read.filter((one): one is Sighting => 'mac' in one);
  const skipped = read.filter((one): one is Skipped => 'why' in one);
  if (sightings.length === 0) {
    const [first] = skipped;
    throw badInput(
      first
        ? `Nothing in it can be compared with the plan; line ${first.line}: ${first.why}.`
        : 'This is no list that is understood here; paste leases, neighbours, a MAC table, a scan, or a table with a head row such as MAC, address, port.',
      'text',
    );
  }
  return { kind, sightings, skipped };
}
