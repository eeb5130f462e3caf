import { columnsIn, endIn, plainCell, rowsIn } from '../../edit';
import { type CableEnd, cablesAt, portsOf } from '../../model/wiring';
import { type Cable, type Plan, Refusal, type WireCall, cableMedia } from '../../plan';
import { type ReadRow, Reading, type TableKind, type Taking } from '../row';

/** Cables between sockets: new ones are laid, of known ones label and length are set, and none is pulled. */

type Column = 'label' | 'from' | 'fromPort' | 'to' | 'toPort' | 'media' | 'length';

const heads: Readonly<Record<Column, readonly string[]>> = {
  label: ['label', 'cable', 'cable label', 'name', 'id', 'number'],
  from: ['from', 'a', 'end a', 'source', 'from device', 'device a', 'side a', 'from box'],
  fromPort: ['from port', 'port a', 'source port', 'a port'],
  to: ['to', 'b', 'end b', 'destination', 'to device', 'device b', 'side b', 'to box'],
  toPort: ['to port', 'port b', 'destination port', 'b port'],
  media: ['medium', 'media', 'kind', 'type', 'cable type'],
  length: ['length m', 'length', 'm', 'metres', 'meters', 'length (m)'],
};

function mediaNamed(text: string): Cable['media'] | undefined {
  const plain = plainCell(text).replaceAll(' ', '-');
  const same = cableMedia.find((one) => one === plain);
  if (same || plain === '') return same;
  if (/single|os\d|9\/125|^sm/.test(plain)) return 'single-mode';
  if (/multi|om\d|50\/125|^mm|fib/.test(plain)) return 'multi-mode';
  if (/dac|twinax|direct/.test(plain)) return 'direct-attach';
  return /copper|cat|utp|stp|rj-?45|patch/.test(plain) ? 'copper' : undefined;
}

/** The socket an end names; null where a device gets its one socket only when it is plugged in. */
function socketOf(plan: Plan, text: string): CableEnd | null {
  const { device, number, side = 'front' } = endIn(plan, text);
  const port = portsOf(plan, device).find((one) => one.number === (number ?? 1));
  return port ? { port: port.id, side } : null;
}

/** The cable between two sockets, whichever way round. */
function cableBetween(plan: Plan, a: CableEnd | null, b: CableEnd | null): Cable | undefined {
  const isAt = (cable: Cable, { port, side }: CableEnd) =>
    (cable.from === port && cable.fromSide === side) || (cable.to === port && cable.toSide === side);
  return a && b ? cablesAt(plan, a).find((cable) => isAt(cable, b)) : undefined;
}

function readCable(taking: Taking, line: number, value: (column: Column) => string): ReadRow {
  const reading = new Reading();
  const end = (name: 'from' | 'to', port: 'fromPort' | 'toPort') =>
    [value(name), value(port)].filter(Boolean).join(' ');
  const [from, to] = [end('from', 'fromPort'), end('to', 'toPort')];
  const media = mediaNamed(value('media'));
  if (value('media') !== '' && !media)
    reading.repaired.push(`“${value('media')}” is no medium that is known, taken as what fits the sockets`);
  const metres = /^(\d{1,5})(?:[.,](\d))?\s*m?$/.exec(value('length'));
  const length = metres ? Number(metres[1]) + (Number(metres[2] ?? 0) >= 5 ? 1 : 0) : null;
  if (value('length') !== '' && length === null)
    reading.repaired.push(`length “${value('length')}” is no number of metres, left out`);
  else if (metres?.[2] && metres[2] !== '0') reading.repaired.push(`length rounded to ${length} m`);
  const label = value('label').slice(0, 60);
  const cells = [label, from, to, media ?? '', length === null ? '' : `${length} m`];
  for (const [what, text] of [
    ['from', from],
    ['to', to],
  ] as const)
    if (text === '') reading.refused.push(`it does not say where it leads ${what}`);
  if (reading.refused.length > 0) return reading.row(line, cells);
  try {
    const { plan } = taking;
    const there = cableBetween(plan, socketOf(plan, from), socketOf(plan, to));
    const calls: WireCall[] = there
      ? editsOf(there, { label, media, length }, reading)
      : [
          {
            operation: 'connect',
            input: {
              from: endIn(plan, from),
              to: endIn(plan, to),
              ...(media && { media }),
              ...(length !== null && { length }),
              ...(label && { label }),
            },
          },
        ];
    taking.take(...calls);
    return reading.row(line, cells, calls.length === 0);
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    reading.refused.push(error.message);
  }
  return reading.row(line, cells);
}

/** What of a known cable is set: only what the table says. */
function editsOf(
  cable: Cable,
  said: { label: string; media: Cable['media'] | undefined; length: number | null },
  reading: Reading,
): WireCall[] {
  const set: Record<string, unknown> = {};
  if (said.label !== '' && said.label !== cable.label) set.label = said.label;
  if (said.media && said.media !== cable.media) set.media = said.media;
  if (said.length !== null && said.length !== cable.length) set.length = said.length;
  for (const [field, value] of Object.entries(set)) reading.changed.push(`sets ${field} to ${String(value)}`);
  return Object.keys(set).length === 0
    ? []
    : [{ operation: 'edit', input: { table: 'cable', id: cable.id, set } }];
}

/** Does a cell begin with the name of a device? */
const isEnd = (cell: string): boolean => /^[\w.-]+(\s+\d{1,3})?(\s+(front|rear))?$/i.test(cell);

export const cables: TableKind = {
  id: 'cables',
  title: 'cables',
  columns: [
    { id: 'label', title: 'label' },
    { id: 'from', title: 'from' },
    { id: 'fromPort', title: 'from port' },
    { id: 'to', title: 'to' },
    { id: 'toPort', title: 'to port' },
    { id: 'media', title: 'medium' },
    { id: 'length', title: 'length' },
  ],
  heads: ['Label', 'From', 'To', 'Medium', 'Length'],
  guess: (cells) =>
    columnsIn<Column>(cells, {
      heads,
      looks: [
        ['length', (cell) => /^\d{1,5}([.,]\d)?\s*m$/i.test(cell)],
        ['media', (cell) => !/\d$/.test(cell) && mediaNamed(cell) !== undefined],
        ['from', isEnd],
        ['to', isEnd],
      ],
      rest: ['label'],
      isRow: (cell) => /\s\d{1,3}$/.test(cell.trim()),
    }),
  *read(taking, cells, columns) {
    const rows: ReadRow[] = [];
    for (const { line, value } of rowsIn<string>(cells, columns)) {
      rows.push(readCable(taking, line, value));
      yield;
    }
    return rows;
  },
};
