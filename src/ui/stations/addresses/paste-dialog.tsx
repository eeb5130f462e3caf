'use client';

import { useMemo, useState } from 'react';
import { type ImportRow, columnsOf, readRows } from '@/core/hosts/import';
import type { Plan } from '@/core/plan/plan';
import type { Subnet } from '@/core/plan/records';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { Dialog } from '../../parts/dialog';
import { cellsOf } from '../../parts/pasted';

const SHOWN = 200;
const verdictStyle = { good: '', repaired: 'font-bold text-note', refused: 'font-bold text-stop' } as const;

/** Rows from a spreadsheet, each marked good, repaired or refused before anything is added. */
export function PasteDialog({ plan, subnet, onClose }: { plan: Plan; subnet: Subnet; onClose: () => void }) {
  const session = useSession();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState('');
  const cells = useMemo(() => (text.trim() ? cellsOf(text) : []), [text]);
  const rows = useMemo(() => readRows(plan, subnet, cells), [plan, subnet, cells]);
  const order = useMemo(() => columnsOf(cells), [cells]);
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
    <Dialog
      title="Paste rows"
      open
      wide
      onClose={onClose}
      describe="Copy rows from a spreadsheet: tab or comma separated, with or without a head row."
    >
      <label className="block">
        Rows
        <textarea
          autoFocus
          className="field field-line mono border-2 border-ink"
          rows={6}
          placeholder={'name, address, MAC, kind, note\npump 1, .31, 00-00-5e-00-53-21, controller, filler'}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      {rows.length > 0 && (
        <>
          <p className="py-2">
            <b>{count('good')}</b> good, <b>{count('repaired')}</b> repaired, <b>{count('refused')}</b>{' '}
            refused.{' '}
            <span className="text-muted">
              Columns {order.header ? 'by the head row' : 'by what they hold'}:{' '}
              {order.order.map((column) => column ?? 'left out').join(', ')}.
            </span>
          </p>
          <table className="schedule text-[14px]">
            <thead>
              <tr>
                {['Line', 'Verdict', 'Address', 'Host name', 'MAC', 'Kind', 'Note'].map((head) => (
                  <th key={head} scope="col">
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.slice(0, SHOWN).map((row) => (
                <tr key={row.line}>
                  <td className="mono">{row.line}</td>
                  <td className={verdictStyle[row.verdict]}>
                    {row.verdict}
                    {row.why.length > 0 && (
                      <span className="block text-[13px] font-normal">{row.why.join('; ')}</span>
                    )}
                  </td>
                  <td className="mono">{row.address}</td>
                  <td>{row.name}</td>
                  <td className="mono">{row.mac}</td>
                  <td>{row.kind}</td>
                  <td>{row.note}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {rows.length > SHOWN && <p>and {rows.length - SHOWN} more rows</p>}
        </>
      )}
      {problem && (
        <p role="alert" className="border-l-4 border-stop px-2 text-stop">
          {problem}
        </p>
      )}
      <div className="sticky bottom-0 flex gap-2 bg-paper pt-3">
        <button type="button" className="button button-primary" disabled={taken.length === 0} onClick={add}>
          Add {taken.length} row{taken.length === 1 ? '' : 's'}
        </button>
        <button type="button" className="button" onClick={onClose}>
          Add nothing
        </button>
      </div>
    </Dialog>
  );
}
