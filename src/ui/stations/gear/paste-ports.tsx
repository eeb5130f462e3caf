'use client';

import { useMemo, useState } from 'react';
import { readPortRows } from '@/core/edit';
import type { Plan } from '@/core/plan';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { PasteSheet } from '../../parts/paste-sheet';
import { cellsOf } from '../../parts/pasted';

/** Rows about ports from a spreadsheet, each marked good or refused before anything is set. */
export function PastePorts({ plan, onClose }: { plan: Plan; onClose: () => void }) {
  const session = useSession();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState('');
  const rows = useMemo(() => (text.trim() ? readPortRows(plan, cellsOf(text)) : []), [plan, text]);
  const refused = rows.filter(({ why }) => why !== null);
  const good = rows.filter(({ sets }) => sets.length > 0);
  const asTheyAre = rows.filter(({ why, sets }) => why === null && sets.length === 0);
  const set = () =>
    setProblem(
      problemOf(() => {
        session.perform(
          { operation: 'importPorts', input: { rows: good.flatMap(({ sets }) => sets) } },
          { reviewed: true },
        );
        onClose();
      }),
    );
  return (
    <PasteSheet
      title="Paste ports"
      describe="Copy rows of box, ports, what they carry and a label: tab or comma separated, with or without a head row."
      placeholder={
        'box, ports, carries, label\nsw-a, 5-7, access 20, desks\nsw-a, 25, trunk 10+20 untagged 30'
      }
      text={text}
      onText={setText}
      summary={
        <>
          <b>{good.length}</b> good, <b>{refused.length}</b> refused
          {asTheyAre.length > 0 && `, ${asTheyAre.length} as they are`}.
        </>
      }
      heads={['Box', 'Ports', 'Carries', 'Label']}
      rows={[...refused, ...good, ...asTheyAre].map((row) => ({
        line: row.line,
        cells: (
          <>
            <td className={row.why === null ? '' : 'font-bold text-stop'}>
              {row.why !== null ? 'refused' : row.sets.length > 0 ? 'good' : 'as it is'}
              <span className="block text-[13px] font-normal">{row.why ?? row.meaning}</span>
            </td>
            <td className="mono">{row.box}</td>
            <td className="mono">{row.ports}</td>
            <td>{row.carries}</td>
            <td>{row.label}</td>
          </>
        ),
      }))}
      problem={problem}
      verb="Set"
      good={good.length}
      onTake={set}
      onClose={onClose}
    />
  );
}
