'use client';

import { useMemo, useState } from 'react';
import { type NeedColumn, type NeedRow, needColumnsOf, readNeedRows, thingWords } from '@/core/edit';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { ColumnChoices } from '../../parts/column-choices';
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

/** A table of devices as somebody else wrote it; which column is what is guessed, shown, and can be put right. */
export function PasteNeeds({ onClose }: { onClose: () => void }) {
  const session = useSession();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState('');
  const [own, setOwn] = useState<readonly (NeedColumn | null)[] | null>(null);
  const cells = useMemo(() => (text.trim() ? cellsOf(text) : []), [text]);
  const guess = useMemo(() => needColumnsOf(cells), [cells]);
  const order = own?.length === guess.order.length ? own : guess.order;
  const rows = readNeedRows(cells, order);
  const good = rows.filter(({ verdict }) => verdict !== 'refused');
  const count = (verdict: NeedRow['verdict']) => rows.filter((row) => row.verdict === verdict).length;
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
          <ColumnChoices
            order={order}
            columns={Object.entries(columnWords).map(([id, title]) => ({ id: id as NeedColumn, title }))}
            onChoose={setOwn}
          />
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
