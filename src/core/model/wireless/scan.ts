import type { Band, ForeignSsid, Width } from '../../plan';
import { channelsOf, middleOf } from './channels';

/** What was heard, as general tools print it, read line by line. */

export type Scanned = Pick<ForeignSsid, 'name' | 'band' | 'channel' | 'width' | 'dbm'>;

export interface Scan {
  readonly found: readonly Scanned[];
  /** Lines nothing could be made of, with why. */
  readonly refused: readonly { readonly line: number; readonly text: string; readonly why: string }[];
}

/** The band and channel of a middle frequency in MHz; null where there is none. */
export function channelAt(megahertz: number): { readonly band: Band; readonly channel: number } | null {
  for (const band of ['2.4', '5', '6'] as const)
    for (const channel of channelsOf[band])
      if (middleOf(band, channel) === megahertz) return { band, channel };
  return null;
}

/** The band of a channel number by itself: up to 14 it is taken for 2.4 GHz, above for 5 GHz. */
const byNumber = (channel: number): { readonly band: Band; readonly channel: number } | null => {
  const band: Band = channel <= 14 ? '2.4' : '5';
  return channelsOf[band].includes(channel) ? { band, channel } : null;
};

/** A level in dBm, or a quality in per cent, where 100 % is −50 dBm and 0 % is −100 dBm as such tools reckon. */
function levelOf(text: string): number | null {
  const value = Number(/-?\d+(\.\d+)?/.exec(text)?.[0] ?? NaN);
  if (Number.isNaN(value)) return null;
  const dbm = value < 0 ? value : value / 2 - 100;
  return dbm >= -120 && dbm <= 0 ? Math.round(dbm) : null;
}

function widthOf(text: string | undefined): Width {
  const value = /\d+/.exec(text ?? '')?.[0];
  return value === '40' || value === '80' || value === '160' || value === '320' ? value : '20';
}

/** Blocks of lines: BSS, freq:, signal:, SSID:, channel width: as `iw dev … scan` prints them. */
function readBlocks(text: string): Scan {
  const found: Scanned[] = [];
  const refused: Scan['refused'][number][] = [];
  const lines = text.split(/\r?\n/);
  const starts = lines.flatMap((line, i) => (/^BSS /.test(line.trim()) ? [i] : []));
  starts.forEach((start, k) => {
    const block = lines.slice(start, starts[k + 1] ?? lines.length);
    const value = (label: RegExp) => label.exec(block.join('\n'))?.[1]?.trim();
    const at = channelAt(Math.round(Number(value(/^\s*freq:\s*([\d.]+)/m))));
    const dbm = levelOf(value(/^\s*signal:\s*(-?[\d.]+)/m) ?? '');
    // The widest that is said: 40 MHz by a second channel beside the first, more by its number.
    const wide = value(/^\s*\* channel width:\s*\d+\s*\((\d+) MHz\)/m);
    const beside = /secondary channel offset: (above|below)/.test(block.join('\n'));
    if (!at || dbm === null) {
      refused.push({
        line: start + 1,
        text: lines[start]!.trim(),
        why: at ? 'it has no level' : 'it has no frequency of a channel',
      });
      return;
    }
    found.push({
      name: (value(/^\s*SSID:[ \t]*(.*)$/m) ?? '').slice(0, 32),
      ...at,
      width: wide ? widthOf(wide) : beside ? '40' : '20',
      dbm,
    });
  });
  return { found, refused };
}

const heads = {
  name: /^(ssid|name|network)$/i,
  channel: /^(chan|channel|ch)$/i,
  frequency: /^(freq|frequency)/i,
  width: /^(width|bandwidth|bw)/i,
  level: /^(signal|level|dbm|rssi)/i,
} as const;
type Head = keyof typeof heads;

interface Cell {
  readonly text: string;
  readonly from: number;
}

/** Cells of a line by tabs, semicolons or commas, where the head has any; else null. */
function separated(line: string): Cell[] | null {
  const by = line.includes('\t') ? '\t' : line.includes(';') ? ';' : line.includes(',') ? ',' : null;
  if (by === null) return null;
  let from = 0;
  return line.split(by).map((text) => {
    const cell = { text: text.trim().replace(/^"|"$/g, ''), from };
    from += text.length + 1;
    return cell;
  });
}

/** The words of a head that stand in columns. */
const inColumns = (line: string): Cell[] =>
  [...line.matchAll(/\S+(?: \S+)*/g)].map((match) => ({ text: match[0], from: match.index }));

/** The cells of a line below such a head: from where its word begins to where the next does. */
const below = (line: string, head: readonly Cell[]): Cell[] =>
  head.map(({ from }, i) => ({ text: line.slice(i === 0 ? 0 : from, head[i + 1]?.from).trim(), from }));

/** A table with a head that names its columns. */
function readTable(text: string): Scan {
  const lines = text.split(/\r?\n/);
  const at = lines.findIndex((line) => line.trim() !== '');
  const columns = new Map<Head, number>();
  const parted = separated(lines[at] ?? '');
  const head = parted ?? inColumns(lines[at] ?? '');
  head.forEach(({ text: word }, i) => {
    for (const [name, form] of Object.entries(heads) as [Head, RegExp][])
      if (form.test(word) && !columns.has(name)) columns.set(name, i);
  });
  const found: Scanned[] = [];
  const refused: Scan['refused'][number][] = [];
  lines.slice(at + 1).forEach((line, i) => {
    if (line.trim() === '') return;
    const cells = parted ? (separated(line) ?? []) : below(line, head);
    const cell = (column: Head) => cells[columns.get(column) ?? -1]?.text;
    const frequency = Number(/\d+/.exec(cell('frequency') ?? '')?.[0] ?? NaN);
    const number = Number(/\d+/.exec(cell('channel') ?? '')?.[0] ?? NaN);
    const place = channelAt(frequency) ?? byNumber(number);
    const dbm = levelOf(cell('level') ?? '');
    if (!place || dbm === null) {
      const why = place ? 'it has no level' : 'it has no channel';
      refused.push({ line: at + 2 + i, text: line.trim(), why });
      return;
    }
    const name = cell('name') ?? '';
    found.push({
      name: name === '--' ? '' : name.slice(0, 32),
      ...place,
      width: widthOf(cell('width')),
      dbm,
    });
  });
  return { found, refused };
}

/** Reads what was heard: blocks that begin with BSS, or a table with a head (name, channel or frequency, level; width). */
export const readScan = (text: string): Scan => (/^\s*BSS /m.test(text) ? readBlocks(text) : readTable(text));
