'use client';

import { useState } from 'react';
import { type Body, type Defect, type DefectState, aboutText, defectWords, writtenAt } from '@/core/log';
import type { Plan } from '@/core/plan';
import { ColumnHeads } from '../parts/column-heads';
import { timeText } from '../parts/dates';
import { type Draft, DraftFields, NO_DRAFT } from './draft-fields';
import { Photos } from './photos';

interface Props {
  readonly plan: Plan;
  readonly defects: readonly Defect[];
  readonly onSay: (body: Body) => void;
}

/** What is wrong on the site, the open ones first. */
export function Defects({ plan, defects, onSay }: Props) {
  const open = defects.filter(({ state }) => state === 'open');
  const shown = [...open, ...defects.filter(({ state }) => state !== 'open')];
  if (shown.length === 0) return null;
  return (
    <section aria-labelledby="log-defects">
      <h2 id="log-defects" className="pt-5 pb-1 font-bold">
        Defects: {open.length} open
      </h2>
      <table className="schedule max-w-[1000px] text-[14px]" aria-label="Defects">
        <ColumnHeads columns={['At', 'What', 'Since', 'State']} />
        <tbody>
          {shown.map((defect) => (
            <DefectRow key={defect.id} plan={plan} defect={defect} onSay={onSay} />
          ))}
        </tbody>
      </table>
    </section>
  );
}

function DefectRow({ plan, defect, onSay }: Omit<Props, 'defects'> & { defect: Defect }) {
  const [asking, setAsking] = useState<DefectState | null>(null);
  const [draft, setDraft] = useState<Draft>(NO_DRAFT);
  const { id, opened, state, since } = defect;
  const last = since.at(-1);
  const others: readonly DefectState[] = state === 'open' ? ['mended', 'accepted'] : ['open'];
  return (
    <tr className={state === 'open' ? '' : 'text-muted'}>
      <th scope="row" className="mono text-left">
        {aboutText(plan, opened.body.about)}
      </th>
      <td className="px-1">
        {opened.body.text}
        <Photos ids={opened.body.photos} />
        {last && (
          <span className="block text-[13px]">
            {defectWords[last.body.state]} {timeText(writtenAt(last))}, {last.author}
            {last.body.note && `: ${last.body.note}`}
          </span>
        )}
        {asking && (
          <form
            aria-label={`Say that it is ${defectWords[asking]}`}
            className="flex flex-col gap-2 py-2"
            onSubmit={(event) => {
              event.preventDefault();
              const { note, reading, photos } = draft;
              const text = [note.trim(), reading.trim()].filter(Boolean).join(' · ');
              onSay({ kind: 'defectState', defect: id, state: asking, note: text, photos: [...photos] });
              setAsking(null);
              setDraft(NO_DRAFT);
            }}
          >
            <DraftFields label="How?" draft={draft} onDraft={setDraft} focus />
            <span className="flex gap-2">
              <button type="submit" className="button button-primary">
                It is {defectWords[asking]}
              </button>
              <button type="button" className="button" onClick={() => setAsking(null)}>
                Back
              </button>
            </span>
          </form>
        )}
      </td>
      <td className="px-1 whitespace-nowrap max-[699px]:whitespace-normal">
        {timeText(writtenAt(opened))}
        <span className="block text-[13px]">{opened.author}</span>
      </td>
      <td className="px-1">
        <span className="flex flex-wrap gap-2">
          {!asking &&
            others.map((other) => (
              <button
                key={other}
                type="button"
                className="button max-[699px]:min-h-touch"
                aria-label={`${defectWords[other]}: ${opened.body.text}`}
                onClick={() => setAsking(other)}
              >
                {defectWords[other]}
              </button>
            ))}
        </span>
      </td>
    </tr>
  );
}
