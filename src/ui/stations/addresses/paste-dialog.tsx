'use client';

import { useMemo, useState } from 'react';
import { type ImportRow, columnsOf, readRows } from '@/core/edit';
import type { Plan, Subnet } from '@/core/plan';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { PasteSheet, VerdictCell } from '../../parts/paste-sheet';
import { cellsOf } from '../../parts/pasted';

const verdicts: readonly ImportRow['verdict'][] = ['refused', 'repaired', 'good'];

/** Rows from a spreadsheet, each marked good, repaired or refused before anything is added. */
export function PasteDialog({ plan, subnet, onClose }: { plan: Plan; subnet: Subnet; onClose: () => void }) {
  const session = useSession();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState('');
  const cells = useMemo(() => (text.trim() ? cellsOf(text) : []), [text]);
  const rows = useMemo(() => readRows(plan, subnet, cells), [plan, subnet, cells]);
  const order = useMemo(() => columnsOf(cells), [cells]);
  // Two refusals under thirty harmless repairs would not be seen.
  const worstFirst = useMemo(
    () => [...rows].sort((a, b) => verdicts.indexOf(a.verdict) - verdicts.indexOf(b.verdict)),
    [rows],
  );
  const taken = rows.filter((row) => row.verdict !== 'refused');
  const count = (verdict: ImportRow['verdict']) => rows.filter((row) => row.verdict === verdict).length;
  const add = () => {
    setProblem(
      problemOf(() => {
        const input = taken.map((row) => ({
          subnet: row.subnet!,
          name: row.name,
          kind: row.kind,
          address: row.address,
          mac: row.mac || null,
          note: row.note,
          assignment: row.assignment,
        }));
        session.perform({ operation: 'importHosts', input: { rows: input } }, { reviewed: true });
        onClose();
      }),
    );
  };
  return (
    <PasteSheet
      title="Paste rows"
      describe="Copy rows from a spreadsheet: tab or comma separated, with or without a head row."
      placeholder={'name, address, MAC, kind, note\npump 1, .31, 00-00-5e-00-53-21, controller, filler'}
      text={text}
      onText={setText}
      summary={
        <>
          <b>{count('good')}</b> good, <b>{count('repaired')}</b> repaired, <b>{count('refused')}</b> refused.{' '}
          <span className="text-muted">
            Columns {order.header ? 'by the head row' : 'by what they hold'}:{' '}
            {order.order.map((column) => column ?? 'left out').join(', ')}.
          </span>
        </>
      }
      heads={['Address', 'Host name', 'MAC', 'Kind', 'Note']}
      rows={worstFirst.map((row) => ({
        line: row.line,
        cells: (
          <>
            <VerdictCell verdict={row.verdict} why={row.why} />
            <td className="mono">{row.address}</td>
            <td>{row.name}</td>
            <td className="mono">{row.mac}</td>
            <td>{row.kind}</td>
            <td>{row.note}</td>
          </>
        ),
      }))}
      problem={problem}
      verb="Add"
      good={taken.length}
      onTake={add}
      onClose={onClose}
    />
  );
}
