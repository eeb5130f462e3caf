import { parseAddress } from '../../address';
import { type ImportRow, columnsOf, readRows, rowsIn } from '../../edit';
import { type Plan, Refusal, type Subnet } from '../../plan';
import { type Cells, type ReadRow, Reading, type TableKind, type Taking } from '../row';
import { type Value, knownIn, readKnown } from './known-addresses';
import { rangeIn, readRange, subnetsWith } from './ranges';

/** Fixed addresses, with the ranges that stand among them in an address schedule. */

/** The subnet most addresses of a table are in: the home of short forms. */
function homeOf(plan: Plan, addresses: readonly string[]): Subnet | undefined {
  const hits = new Map<Subnet, number>();
  for (const text of addresses) {
    const address = parseAddress(text);
    const [subnet] = address === null ? [] : subnetsWith(plan, address);
    if (subnet) hits.set(subnet, (hits.get(subnet) ?? 0) + 1);
  }
  const [first] = [...hits].sort(([, a], [, b]) => b - a);
  return first?.[0] ?? [...plan.subnet.values()][0];
}

const refusedRow = (line: number, value: Value, why: string): ReadRow => ({
  line,
  verdict: 'refused',
  why: [why],
  cells: [value('name'), value('address'), value('mac'), value('kind')],
});

/** New ones all at once: there may be thousands. Why none of them can be taken; null where they are. */
function takeNew(taking: Taking, rows: readonly ImportRow[]): string | null {
  if (rows.length === 0) return null;
  const input = rows.map(({ subnet, name, kind, address, mac, note, assignment }) => ({
    subnet: subnet!,
    name,
    kind,
    address,
    mac: mac || null,
    note,
    assignment,
  }));
  try {
    taking.take({ operation: 'importHosts', input: { rows: input } });
    return null;
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    return error.message;
  }
}

export const addresses: TableKind = {
  id: 'addresses',
  title: 'fixed addresses',
  columns: [
    { id: 'name', title: 'name' },
    { id: 'address', title: 'address' },
    { id: 'mac', title: 'MAC address' },
    { id: 'kind', title: 'kind' },
    { id: 'assignment', title: 'fixed by' },
    { id: 'note', title: 'note' },
  ],
  heads: ['Name', 'Address', 'MAC', 'Kind'],
  guess: columnsOf,
  *read(taking, cells, columns, ofProgram) {
    const typed = columns as ReturnType<typeof columnsOf>;
    const all = rowsIn(cells, typed);
    const home = homeOf(
      taking.plan,
      all.map(({ value }) => value('address')),
    );
    // Columns that are guessed, and what another program was told, are no reason to change a host that is there.
    const changes = columns.header && !ofProgram;
    const known = knownIn(taking.plan, all, changes);
    const read = new Map<number, ReadRow>();
    const fresh = new Set<number>();
    for (const row of all) {
      const { line, value } = row;
      const held = known.get(line);
      const [address, assignment] = [value('address'), value('assignment').toLowerCase()];
      // Our own schedule has such a row for a subnet in which nothing stands.
      if (address === '' && value('name') === '' && value('mac') === '')
        read.set(line, new Reading().row(line, ['', '', '', ''], true));
      else if (address === '') read.set(line, refusedRow(line, value, 'it has no address; write one'));
      else if (parseAddress(address) === null && rangeIn(address) !== null)
        read.set(
          line,
          readRange(taking, line, {
            range: address,
            lease: '',
            excluded: assignment === 'excluded',
            why: value('note'),
          }),
        );
      else if (held) read.set(line, readKnown(taking, row, held, changes));
      else if (!home) read.set(line, refusedRow(line, value, 'this site has no subnet yet'));
      else fresh.add(line);
      yield;
    }
    if (home && fresh.size > 0) {
      const rest: Cells = cells.map((row, i) => (fresh.has(i + 1) || (i === 0 && columns.header) ? row : []));
      const rows = readRows(taking.plan, home, rest, typed);
      const good = rows.filter(({ verdict }) => verdict !== 'refused');
      const wrong = takeNew(taking, good);
      for (const row of rows) {
        const { line, name, address, mac, kind } = row;
        const { verdict, why } =
          wrong !== null && row.verdict !== 'refused' ? { verdict: 'refused' as const, why: [wrong] } : row;
        read.set(line, { line, verdict, why, cells: [name, address, mac, kind] });
      }
    }
    return all.map(({ line }) => read.get(line)!);
  },
};
