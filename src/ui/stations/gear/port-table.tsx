'use client';

import { useMemo, useState } from 'react';
import { typedCable, typedCarried } from '@/core/edit';
import { cablesAt, carriedText, isPassive, leadsTo } from '@/core/model/wiring';
import { type Call, type Device, type Plan, type Port, badInput } from '@/core/plan';
import { editCall, useEdit } from '../../session/actions';
import { useSession } from '../../session/context';
import type { SiteSession } from '../../session/session';
import { useView } from '../../session/view';
import { useCommands } from '../../shell/commands';
import { useColumns } from '../../parts/columns';
import { type DataColumn, DataTable } from '../../parts/data-table';
import { Field } from '../../parts/field';
import { useRecordTable } from '../../parts/record-table';
import { ChoosePorts } from './choose-ports';
import type { Gear } from './gear-list';
import { PastePorts } from './paste-ports';

interface Row {
  readonly id: string;
  readonly port: Port;
  readonly device: Device;
  readonly name: string;
}

const OPTIONAL = ['Carries', 'Leads to', 'Label', 'Config'] as const;

/** Every port of every box as a row, for those who think in rows: what is marked is set at the right. */
export function PortTable({ plan, gear }: { plan: Plan; gear: readonly Gear[] }) {
  const session = useSession();
  const edit = useEdit();
  const { ports: chosen, set } = useView();
  const [pasting, setPasting] = useState(false);
  const commands = useMemo(
    () => [{ key: 'p', name: 'paste ports from a spreadsheet', run: () => setPasting(true) }],
    [],
  );
  useCommands(commands);
  const choice = useColumns<string>('ports', OPTIONAL);
  const all = useMemo<Row[]>(
    () =>
      gear.flatMap(({ device, ports }) =>
        ports.map((port) => ({ id: port.id, port, device, name: `${device.name} ${port.number}` })),
      ),
    [gear],
  );
  // The way to edit is the same at every drawing; only the plan makes other columns.
  const columns = useMemo(() => columnsOf(plan, session, edit), [plan, session]); // eslint-disable-line react-hooks/exhaustive-deps
  const marks = useMemo(
    () => ({ ids: chosen, set: (ports: readonly string[]) => set({ ports, asking: null }) }),
    [chosen, set],
  );
  const records = useRecordTable('ports', all, columns, marks);
  const [shownFirst, setShownFirst] = useState<string | null>(null);
  return (
    <section aria-label="All ports">
      {pasting && <PastePorts plan={plan} onClose={() => setPasting(false)} />}
      <DataTable
        tall
        words={['port', 'ports']}
        records={records}
        columns={columns}
        nameOf={({ name }) => name}
        of={all.length}
        choice={choice}
        selected={shownFirst}
        placeholder="trunk, sw-a, camera"
        tools={
          <>
            <ChoosePorts gear={gear} onChosen={([first]) => setShownFirst(first?.id ?? null)} />
            <button type="button" className="button" onClick={() => setPasting(true)}>
              Paste rows… <span className="key">p</span>
            </button>
            {chosen.length > 0 && (
              <span role="status" className="text-[14px]">
                {chosen.length} marked
              </span>
            )}
          </>
        }
        testId="ports"
      />
    </section>
  );
}

/** What a port is to carry, as typed; the same for a paste. */
const carryCall = (plan: Plan, { port }: Row, text: string): Call => ({
  operation: 'assignPorts',
  input: { ports: [port.id], ...typedCarried(plan, text) },
});

/** The cable of a port, as typed: the other end, or nothing to take it out. */
function cableCall(plan: Plan, { port, name }: Row, text: string): Call {
  const [cable, ...others] = cablesAt(plan, { port: port.id, side: 'front' });
  if (text.trim() === '' || /^none$/i.test(text.trim())) {
    if (!cable) throw badInput(`${name} has no cable to take out.`, 'to');
    // By mistake there may be several; each is taken out by itself.
    if (others.length > 0)
      throw badInput(
        `${name} has ${others.length + 1} cables; choose the port and take out the wrong one.`,
        'to',
      );
    return { operation: 'disconnect', input: { cable: cable.id } };
  }
  if (cable)
    throw badInput(`${name} leads to ${leadsTo(plan, port)}; empty this first to take that cable out.`, 'to');
  return { operation: 'connect', input: typedCable(plan, `${name} = ${text}`) };
}

/** What stands in each column, and what text pasted over a cell of it does. */
export function columnsOf(
  plan: Plan,
  session: SiteSession,
  edit: ReturnType<typeof useEdit>,
): readonly DataColumn<Row>[] {
  return [
    {
      id: 'Box',
      width: 90,
      grow: 1,
      text: ({ device }) => device.name,
      cell: ({ device }) => <span className="mono block truncate px-1">{device.name}</span>,
    },
    {
      id: 'Port',
      width: 74,
      text: ({ port }) => (port.number === 0 ? 'inside' : String(port.number)),
      order: ({ port }) => port.number,
      cell: ({ port }) => (
        <span className={`px-1 ${port.number === 0 ? 'text-[13px]' : 'mono'}`}>
          {port.number === 0 ? 'inside' : port.number}
        </span>
      ),
    },
    {
      id: 'Carries',
      width: 170,
      grow: 2.2,
      text: ({ port, device }) => (isPassive(device.kind) ? '' : carriedText(plan, port)),
      paste: (row, text) => carryCall(plan, row, text),
      cell: (row) =>
        isPassive(row.device.kind) ? null : (
          <Field
            label={`What ${row.name} carries`}
            value={carriedText(plan, row.port)}
            onCommit={(text) => session.perform(carryCall(plan, row, text))}
          />
        ),
    },
    {
      id: 'Leads to',
      width: 120,
      grow: 1.6,
      text: ({ port }) => leadsTo(plan, port),
      paste: (row, text) => cableCall(plan, row, text),
      cell: (row) =>
        row.port.number === 0 ? null : (
          <Field
            mono
            label={`Where ${row.name} leads`}
            value={leadsTo(plan, row.port)}
            placeholder="no cable"
            onCommit={(text) => session.perform(cableCall(plan, row, text))}
          />
        ),
    },
    {
      id: 'Label',
      width: 90,
      grow: 1,
      text: ({ port }) => port.label,
      paste: ({ id }, text) => editCall('port', id, 'label', text),
      cell: ({ id, port, name }) => (
        <Field
          label={`Label of ${name}`}
          value={port.label}
          onCommit={(text, seen) => edit('port', id, 'label', text, seen)}
        />
      ),
    },
    {
      id: 'Config',
      width: 84,
      text: ({ port }) => port.name,
      paste: ({ id }, text) => editCall('port', id, 'name', text),
      cell: ({ port }) => <span className="mono block truncate px-1 text-[13px]">{port.name}</span>,
    },
  ];
}
