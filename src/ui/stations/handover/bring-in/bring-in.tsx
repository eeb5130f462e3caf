'use client';

import { useEffect, useState } from 'react';
import { type AskedTable, type FileKind, fileKinds, tooManyRows } from '@/core/imports';
import { Refusal } from '@/core/plan';
import { newSeed } from '../../../session/author';
import { useJob } from '../../../session/job';
import { useView } from '../../../session/view';
import { Choice } from '../../../parts/choice';
import { counted } from '../../../parts/counted';
import { Dialog } from '../../../parts/dialog';
import { Fold } from '../../../parts/fold';
import { Problem } from '../../../parts/problem';
import { ProgressLine } from '../../../parts/progress-line';
import { type ChosenFile, readTextAs } from './read-tables';
import { TableView } from './table-view';

const askedOf = ({ found }: ChosenFile): readonly AskedTable[] =>
  found.tables.map(({ notes, ...table }) => ({
    ...table,
    notes: [...(notes ?? [])],
    order: null,
    leftOut: false,
  }));

/** The tables of a file with what becomes of every row, before anything is changed. */
export function BringIn({ chosen, onClose }: { chosen: ChosenFile; onClose: () => void }) {
  const set = useView((state) => state.set);
  const [file, setFile] = useState(chosen);
  const [tables, setTables] = useState(() => askedOf(chosen));
  const [problem, setProblem] = useState('');
  const { start, running, result, problem: failed, stale } = useJob();
  const tooMany = tooManyRows(tables);
  useEffect(() => {
    if (tooMany === '') start({ kind: 'import', tables, seed: newSeed() }, true);
  }, [start, tables, tooMany]);
  const read = result?.kind === 'import' ? result.read : null;
  const takeAs = (kind: FileKind) => {
    try {
      const next = { ...file, kind, found: readTextAs(kind, file.text!) };
      setFile(next);
      setTables(askedOf(next));
      setProblem('');
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      setProblem(error.message);
    }
  };
  const change = (at: number, fields: Partial<AskedTable>) =>
    setTables(tables.map((table, i) => (i === at ? { ...table, ...fields } : table)));
  const rows = (read?.tables ?? []).flatMap((table, i) => (tables[i]?.leftOut ? [] : table.rows));
  const taken = rows.filter(({ verdict }) => verdict === 'good' || verdict === 'repaired').length;
  const review = () => {
    const label = `${counted(taken, 'row')} of ${file.name}`.slice(0, 200);
    const call = { operation: 'bringInRows' as const, input: { label, steps: [...read!.steps] } };
    onClose();
    set({ review: { title: `Bring in ${file.name}`.slice(0, 80), call, accept: 'Take these changes' } });
  };
  const { leftOut } = file.found;
  return (
    <Dialog
      title="Bring in a table"
      open
      wide
      onClose={onClose}
      describe={`${file.name}. Nothing is changed before you have seen it.`}
    >
      {file.text !== null && (
        <p className="flex items-center gap-2 pb-2">
          Read as
          <span className="border-b border-ink">
            <Choice
              label="Read as"
              value={file.kind}
              options={fileKinds.map(({ id, title }) => ({ value: id, label: title }))}
              onChoose={(kind) => takeAs(kind as FileKind)}
            />
          </span>
        </p>
      )}
      {tables.length === 0 && <p>Nothing of this file can be brought in.</p>}
      {tables.map((table, i) => (
        <TableView
          key={`${file.kind} ${i} ${table.title}`}
          asked={table}
          read={read?.tables[i] ?? null}
          onChange={(fields) => change(i, fields)}
        />
      ))}
      {leftOut.length > 0 && (
        <Fold
          id="not-understood"
          title={`${counted(leftOut.length, 'line')} not taken`}
          told="what a plan does not say, or what was not understood"
        >
          <ul
            aria-label="Lines not taken"
            className="mono max-h-[30vh] overflow-auto text-[13px]"
            tabIndex={0}
          >
            {leftOut.map(({ line, text }, i) => (
              <li key={i}>
                {line !== null && <b>{line}</b>} {text}
              </li>
            ))}
          </ul>
        </Fold>
      )}
      <Problem text={problem || tooMany || failed} />
      <div className="sticky -bottom-3 -mb-3 flex flex-wrap items-center gap-2 bg-paper py-3">
        <button
          type="button"
          className="button button-primary"
          disabled={!read || running !== null || stale || taken === 0}
          onClick={review}
        >
          Review {counted(taken, 'row')}
        </button>
        <button type="button" className="button" onClick={onClose}>
          Bring in nothing
        </button>
        {running && <ProgressLine label="Rows read" progress={running} />}
        {stale && (
          <button
            type="button"
            className="button"
            onClick={() => start({ kind: 'import', tables, seed: newSeed() }, true)}
          >
            The plan has changed; read again
          </button>
        )}
      </div>
    </Dialog>
  );
}
