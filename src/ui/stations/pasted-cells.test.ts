import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { formatPrefix } from '@/core/address';
import { readPlanFile } from '@/core/formats';
import { type Plan, Refusal } from '@/core/plan';
import { buildGear, damagedGear, soundGear } from '@/core/testing/gear';
import { takenCall } from '@/core/testing/inputs';
import { done } from '@/core/testing/plans';
import { moreThan, runs } from '@/core/testing/runs';
import { soundWireless } from '@/core/testing/wireless';
import type { DataColumn } from '../parts/data-table';
import { columnsOf as hostColumns } from './addresses/hosts-table';
import { columnsOf as portColumns } from './gear/port-table';
import { columnsOf as radioColumns } from './wireless/air-panel';

interface Row {
  readonly id: string;
}
interface Table {
  readonly name: string;
  readonly columns: readonly DataColumn<Row>[];
  readonly rows: readonly Row[];
}

/** Editing in place goes another way; what a cell says and what a paste does needs neither. */
const unused = undefined as never;
/** The tables that take a paste, each with the rows it would have of the whole site. */
function tablesOf(plan: Plan): readonly Table[] {
  const subnet = [...plan.subnet.values()].find(({ prefix }) => formatPrefix(prefix).includes('.'))!;
  const named = (port: { readonly device: string; readonly number: number }) =>
    `${plan.device.get(port.device)!.name} ${port.number || 'inside'}`;
  const ports = [...plan.port.values()].map((port) => ({
    id: port.id,
    port,
    device: plan.device.get(port.device)!,
    name: named(port),
  }));
  const table = (name: string, columns: readonly never[], rows: readonly Row[]): Table => ({
    name,
    columns,
    rows,
  });
  return [
    table('hosts', hostColumns(plan, subnet, unused, unused) as never, [...plan.address.values()]),
    table('ports', portColumns(plan, unused, unused) as never, ports),
    table('radios', radioColumns(plan, new Set(), unused) as never, [...plan.radio.values()]),
  ];
}
const said = (table: Table, column: string, id: string) =>
  table.columns.find((one) => one.id === column)!.text(table.rows.find((row) => row.id === id)!);

const clinic = readPlanFile(readFileSync('demo/2-clinic.json', 'utf8'));

test('a cell that was copied says the same where it is pasted, or is refused', () => {
  const pasted = new Map<string, number>();
  fc.assert(
    fc.property(
      fc.constantFrom(soundGear(), soundWireless(), clinic),
      damagedGear,
      fc.array(fc.nat(), { maxLength: 4 }),
      fc.infiniteStream(fc.nat()),
      (sound, damage, changes, draws) => {
        let plan = sound === clinic ? sound : buildGear(damage, sound);
        for (const seed of changes) {
          const call = takenCall(plan, seed);
          if (call) plan = done(plan, call.operation, call.input);
        }
        const row = (table: Table) => table.rows[draws.next().value! % table.rows.length]!;
        tablesOf(plan).forEach((table, index) => {
          if (table.rows.length === 0) return;
          for (const { id, text, paste } of table.columns) {
            const copied = text(row(table));
            const over = row(table);
            if (!paste || text(over) === copied) continue;
            let after: Plan;
            try {
              const { operation, input } = paste(over, copied);
              after = done(plan, operation, input);
            } catch (error) {
              if (!(error instanceof Refusal)) throw error;
              continue;
            }
            const cell = `${table.name} ${id}`;
            pasted.set(cell, (pasted.get(cell) ?? 0) + 1);
            expect([cell, said(tablesOf(after)[index]!, id, over.id)]).toEqual([cell, copied]);
          }
        });
      },
    ),
    { numRuns: runs(600) },
  );
  for (const cell of [
    'hosts Host name',
    'hosts Kind',
    'hosts MAC',
    'hosts Fixed by',
    'ports Carries',
    'ports Leads to',
    'radios Channel',
    'radios Width',
  ])
    expect([cell, (pasted.get(cell) ?? 0) > moreThan(0)]).toEqual([cell, true]);
});
