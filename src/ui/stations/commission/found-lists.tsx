'use client';

import { useState } from 'react';
import { type FoundAt, readFound, sourceWords } from '@/core/commission';
import { type Plan, byName, boxOf } from '@/core/plan';
import { problemOf } from '../../session/attempt';
import { Choice } from '../../parts/choice';
import { FileButton } from '../../parts/file-button';
import { Problem } from '../../parts/problem';

interface Props {
  readonly plan: Plan;
  readonly lists: readonly FoundAt[];
  readonly onLists: (lists: readonly FoundAt[]) => void;
}

/** Where lists from the site are pasted or opened, and what was understood of each. */
export function FoundLists({ plan, lists, onLists }: Props) {
  const [text, setText] = useState('');
  const [box, setBox] = useState('');
  const [problem, setProblem] = useState('');
  const boxes = [...plan.device.values()]
    .filter(({ id }) => boxOf(plan, id) !== undefined)
    .sort((a, b) => byName(a.name, b.name));
  const add = () =>
    setProblem(
      problemOf(() => {
        onLists([...lists, { ...readFound(text), box: box === '' ? null : box }]);
        setText('');
      }),
    );
  return (
    <>
      <form
        aria-label="What the site shows"
        className="no-print mb-3 flex max-w-[860px] flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <label className="block">
          Leases, neighbours, MAC table or scan, as the box or tool prints it; or a table with a head row
          <textarea
            className="field field-line mono border-2 border-ink"
            rows={5}
            placeholder={'192.168.20.31 dev lan0 lladdr 00:00:5e:00:53:31 REACHABLE'}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <span className="flex flex-wrap items-center gap-2">
          <label className="flex items-center gap-2 whitespace-nowrap">
            Read at
            <Choice
              lined
              label="Read at"
              value={box}
              options={[
                { value: '', label: 'no box, or it stands in the list' },
                ...boxes.map(({ id, name }) => ({ value: id, label: name })),
              ]}
              onChoose={setBox}
            />
          </label>
          <button type="submit" className="button button-primary" disabled={text.trim() === ''}>
            Put it beside the plan
          </button>
          <FileButton
            label="Open a file"
            accept=".txt,.csv,.tsv,.json,.leases,.log,text/*"
            onChoose={(file) => void file.text().then(setText)}
          />
        </span>
        <Problem text={problem} />
      </form>
      {lists.length > 0 && (
        <ul aria-label="Lists that were read" className="pb-2 text-[14px]">
          {lists.map((list, at) => (
            <ListLine
              key={at}
              plan={plan}
              list={list}
              at={at + 1}
              onDrop={() => onLists(lists.toSpliced(at, 1))}
            />
          ))}
        </ul>
      )}
    </>
  );
}

/** What a list was understood as, with the lines that say nothing. */
function ListLine({ plan, list, at, onDrop }: { plan: Plan; list: FoundAt; at: number; onDrop: () => void }) {
  const { kind, sightings, skipped, box } = list;
  const where = box === null ? '' : ` at ${plan.device.get(box)?.name ?? 'a box that is no longer planned'}`;
  return (
    <li className="flex flex-wrap items-baseline gap-x-3">
      <span>
        Read as <strong>{sourceWords[kind]}</strong>
        {where}: {sightings.length} {sightings.length === 1 ? 'row' : 'rows'}
      </span>
      {skipped.length > 0 && (
        <details>
          <summary className="cursor-pointer">{skipped.length} passed over</summary>
          <ul>
            {skipped.slice(0, 50).map(({ line, why }) => (
              <li key={line}>
                Line {line}: {why}.
              </li>
            ))}
          </ul>
        </details>
      )}
      <button type="button" className="link" aria-label={`drop it: list ${at}`} onClick={onDrop}>
        drop it
      </button>
    </li>
  );
}
