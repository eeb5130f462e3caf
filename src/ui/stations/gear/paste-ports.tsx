'use client';

import { useMemo, useState } from 'react';
import { readPortRows } from '@/core/gear/port-rows';
import type { Plan } from '@/core/plan/plan';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { Dialog } from '../../parts/dialog';
import { cellsOf } from '../../parts/pasted';

const SHOWN = 200;

/** Rows about ports from a spreadsheet, each marked good or refused before anything is set. */
export function PastePorts({ plan, onClose }: { plan: Plan; onClose: () => void }) {
  const session = useSession();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState('');
  const rows = useMemo(() => (text.trim() ? readPortRows(plan, cellsOf(text)) : []), [plan, text]);
  const good = rows.flatMap(({ assign, label }) => (assign ? [{ assign, label }] : []));
  const set = () =>
    setProblem(
      problemOf(() => {
        session.perform({ operation: 'importPorts', input: { rows: good } }, { reviewed: true });
        onClose();
      }),
    );
  return (
    <Dialog
      title="Paste ports"
      open
      wide
      onClose={onClose}
      describe="Copy rows of box, ports, what they carry and a label: tab or comma separated, with or without a head row."
    >
      <label className="block">
        Rows
        <textarea
          autoFocus
          className="field field-line mono border-2 border-ink"
          rows={6}
          placeholder={
            'box, ports, carries, label\nsw-a, 5-7, access 20, desks\nsw-a, 25, trunk 10+20 untagged 30'
          }
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      {rows.length > 0 && (
        <>
          <p className="py-2">
            <b>{good.length}</b> good, <b>{rows.length - good.length}</b> refused.
          </p>
          <table className="schedule text-[14px]">
            <thead>
              <tr>
                {['Line', 'Verdict', 'Box', 'Ports', 'Carries', 'Label'].map((head) => (
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
                  <td className={row.why === null ? '' : 'font-bold text-stop'}>
                    {row.why === null ? 'good' : 'refused'}
                    <span className="block text-[13px] font-normal">{row.why ?? row.meaning}</span>
                  </td>
                  <td className="mono">{row.box}</td>
                  <td className="mono">{row.ports}</td>
                  <td>{row.carries}</td>
                  <td>{row.label}</td>
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
        <button type="button" className="button button-primary" disabled={good.length === 0} onClick={set}>
          Set {good.length} row{good.length === 1 ? '' : 's'}
        </button>
        <button type="button" className="button" onClick={onClose}>
          Set nothing
        </button>
      </div>
    </Dialog>
  );
}
