'use client';

import { useMemo, useState } from 'react';
import { type NeedColumn, type NeedRow, needColumnsOf, readNeedRows, thingWords } from '@/core/edit';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { Choice } from '../../parts/choice';
import { cellsOf } from '../../parts/pasted';
import { PasteSheet, VerdictCell } from '../../parts/paste-sheet';

const columnWords: Readonly<Record<NeedColumn, string>> = {
  count: 'number',
  what: 'what',
  place: 'place',
  link: 'connected',
  growth: 'growth',
  power: 'power',
  group: 'apart as',
};
const LEFT_OUT = '';

/** A table of devices as somebody else wrote it; which column is what is guessed, shown, and can be put right. */
export function PasteNeeds({ onClose }: { onClose: () => void }) {
  const session = useSession();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState('');
  const [own, setOwn] = useState<ReadonlyMap<number, NeedColumn | null>>(new Map());
  const cells = useMemo(() => (text.trim() ? cellsOf(text) : []), [text]);
  const guess = useMemo(() => needColumnsOf(cells), [cells]);
  const order = guess.order.map((column, i) => (own.has(i) ? own.get(i)! : column));
  const rows = readNeedRows(cells, order);
  const good = rows.filter(({ verdict }) => verdict !== 'refused');
  const count = (verdict: NeedRow['verdict']) => rows.filter((row) => row.verdict === verdict).length;
  const choose = (at: number, column: NeedColumn | null) =>
    // A column is one thing, and a thing is in one column.
    setOwn(
      new Map([
        ...order.flatMap((other, i): [number, NeedColumn | null][] =>
          column !== null && other === column && i !== at ? [[i, null]] : [],
        ),
        ...[...own].filter(([i]) => i !== at && (column === null || order[i] !== column)),
        [at, column],
      ]),
    );
  const take = () =>
    setProblem(
      problemOf(() => {
        const input = good.map(({ thing, count: number, name, place, link, growth, power, apart }) => ({
          thing,
          count: number,
          name,
          place,
          link,
          growth,
          power,
          apart,
        }));
        session.perform({ operation: 'importNeeds', input: { rows: input } });
        onClose();
      }),
    );
  return (
    <PasteSheet
      title="Paste a table of devices"
      describe="Copy rows from a spreadsheet: tab or comma separated, with or without a head row."
      placeholder={
        'number, what, place, connected\n12, desks, Offices, wired\n70, guests, Reading room, wireless'
      }
      text={text}
      onText={setText}
      summary={
        <>
          <b>{count('good')}</b> good, <b>{count('repaired')}</b> repaired, <b>{count('refused')}</b> refused.{' '}
          <span className="text-muted">
            Columns {guess.header ? 'by the head row' : 'by what they hold'}; put right what is wrong:
          </span>
          <span className="flex flex-wrap gap-2 pt-1">
            {order.map((column, i) => (
              <span key={i} className="w-[130px] text-[14px]">
                <Choice
                  lined
                  label={`Column ${i + 1}`}
                  value={column ?? LEFT_OUT}
                  options={[
                    { value: LEFT_OUT, label: `${i + 1}: left out` },
                    ...(Object.keys(columnWords) as NeedColumn[]).map((value) => ({
                      value,
                      label: `${i + 1}: ${columnWords[value]}`,
                    })),
                  ]}
                  onChoose={(value) => choose(i, value === LEFT_OUT ? null : (value as NeedColumn))}
                />
              </span>
            ))}
          </span>
        </>
      }
      heads={['Number', 'Kind', 'Called', 'Place', 'Connected']}
      rows={rows.map((row) => ({
        line: row.line,
        cells: (
          <>
            <VerdictCell verdict={row.verdict} why={row.why} />
            <td className="mono">{row.count}</td>
            <td>{thingWords[row.thing]}</td>
            <td>{row.name}</td>
            <td>{row.place || 'main place'}</td>
            <td>{row.link}</td>
          </>
        ),
      }))}
      problem={problem}
      verb="Add"
      good={good.length}
      onTake={take}
      onClose={onClose}
    />
  );
}
