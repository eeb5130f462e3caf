import { type IpAddress, contains, formatAddress, parseAddress } from '../../address';
import { leaseWords } from '../../formats';
import { type Exclusion, type Plan, type Pool, type Subnet, Refusal } from '../../plan';
import { columnsIn, rowsIn } from '../../edit';
import { type ReadRow, Reading, type TableKind, type Taking } from '../row';

/** Ranges that a server leases, and ranges that it leaves out. */

export interface TypedRange {
  readonly start: IpAddress;
  readonly end: IpAddress;
}
/** “10.0.0.10 – 10.0.0.20”; null where it is none. */
export function rangeIn(text: string): TypedRange | null {
  const [from = '', to = from] = text.split(/\s*[–—-]\s*/);
  const [start, end] = [parseAddress(from.trim()), parseAddress(to.trim())];
  return start === null || end === null || typeof start !== typeof end ? null : { start, end };
}

const UNITS: Readonly<Record<string, number>> = {
  '': 1,
  s: 1,
  m: 60,
  min: 60,
  h: 3600,
  d: 86_400,
  w: 604_800,
};
/** “12 h”, “45m”, “43200” in seconds; null for what is no time. */
export function leaseIn(text: string): number | null {
  const match = /^(\d{1,9})\s*(s|m|min|h|d|w|)$/.exec(text.trim().toLowerCase());
  return match ? Number(match[1]) * UNITS[match[2]!]! : null;
}

/** By mistake there may be several: networks that overlap. */
export const subnetsWith = (plan: Plan, address: IpAddress): Subnet[] =>
  [...plan.subnet.values()].filter(({ prefix }) => contains(prefix, address));

interface RangeRow {
  readonly range: string;
  readonly lease: string;
  /** Leased, or left out. */
  readonly excluded: boolean;
  readonly why: string;
}

export function readRange(taking: Taking, line: number, row: RangeRow): ReadRow {
  const reading = new Reading();
  const { plan } = taking;
  const typed = rangeIn(row.range);
  const shown = typed ? `${formatAddress(typed.start)}–${formatAddress(typed.end)}` : row.range;
  const lease = row.lease === '' ? null : leaseIn(row.lease);
  const cells = [shown, row.excluded ? 'left out' : 'leased', lease === null ? '' : leaseWords(lease)];
  const around = (subnet: Subnet): (Pool | Exclusion) | undefined =>
    [...plan[row.excluded ? 'exclusion' : 'pool'].group(subnet.id).values()].find(
      ({ start, end }) => start <= typed!.start && typed!.end <= end,
    );
  const subnets = typed === null ? [] : subnetsWith(plan, typed.start);
  const subnet = subnets.find(around) ?? subnets[0];
  if (!typed) reading.refused.push(`“${row.range}” is no range; write one like 10.0.0.100–10.0.0.199`);
  else if (!subnet) reading.refused.push(`${formatAddress(typed.start)} lies in no subnet of this site`);
  if (row.lease !== '' && lease === null)
    reading.refused.push(`“${row.lease}” is no lease time; write one like 12 h`);
  if (!typed || !subnet || reading.refused.length > 0) return reading.row(line, cells);
  const table = [...plan[row.excluded ? 'exclusion' : 'pool'].group(subnet.id).values()];
  const same = table.find(({ start, end }) => start === typed.start && end === typed.end);
  if (around(subnet) && (!same || row.excluded || lease === null || plan.pool.get(same.id)!.lease === lease))
    return reading.row(line, cells, true);
  const met = same ? undefined : table.find(({ start, end }) => start <= typed.end && typed.start <= end);
  if (met) {
    reading.refused.push(
      `it overlaps ${formatAddress(met.start)}–${formatAddress(met.end)}, which is ${row.excluded ? 'left out' : 'leased'} already`,
    );
    return reading.row(line, cells);
  }
  const ends = { start: formatAddress(typed.start), end: formatAddress(typed.end) };
  try {
    if (same) {
      taking.take({ operation: 'edit', input: { table: 'pool', id: same.id, set: { lease } } });
      reading.changed.push(`changes the lease from ${leaseWords(plan.pool.get(same.id)!.lease)}`);
    } else if (row.excluded)
      taking.take({
        operation: 'addExclusion',
        input: { subnet: subnet.id, ...ends, why: row.why.slice(0, 120) },
      });
    else
      taking.take({
        operation: 'addPool',
        input: { subnet: subnet.id, ...ends, ...(lease === null ? {} : { lease }) },
      });
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    reading.refused.push(error.message);
  }
  return reading.row(line, cells);
}

type Column = 'range' | 'from' | 'to' | 'lease' | 'what' | 'why';
const isAddress = (cell: string): boolean => parseAddress(cell) !== null;

export const ranges: TableKind = {
  id: 'ranges',
  title: 'ranges that are leased',
  columns: [
    { id: 'range', title: 'range' },
    { id: 'from', title: 'first' },
    { id: 'to', title: 'last' },
    { id: 'lease', title: 'lease' },
    { id: 'what', title: 'leased or left out' },
    { id: 'why', title: 'why' },
  ],
  heads: ['Range', 'What', 'Lease'],
  guess: (cells) =>
    columnsIn<Column>(cells, {
      heads: {
        range: ['range', 'pool', 'pools', 'dhcp range', 'scope', 'addresses'],
        from: ['from', 'first', 'start', 'begin'],
        to: ['to', 'last', 'end'],
        lease: ['lease', 'lease time', 'valid lifetime'],
        what: ['what', 'kind', 'type', 'leased or left out'],
        why: ['why', 'note', 'comment', 'reason'],
      },
      looks: [
        ['range', (cell) => /[–—-]/.test(cell) && rangeIn(cell) !== null],
        ['from', isAddress],
        ['to', isAddress],
        ['lease', (cell) => leaseIn(cell) !== null],
      ],
      isRow: (cell) => rangeIn(cell) !== null,
    }),
  *read(taking, cells, columns) {
    const rows: ReadRow[] = [];
    for (const { line, value } of rowsIn<string>(cells, columns)) {
      const range = value('range') || [value('from'), value('to')].filter(Boolean).join('–');
      const excluded = /exclu|left out|reserved|not leased/i.test(value('what'));
      rows.push(readRange(taking, line, { range, lease: value('lease'), excluded, why: value('why') }));
      yield;
    }
    return rows;
  },
};
