'use client';

import { useState } from 'react';
import { type Body, type Log, type Visit, type VisitSum, sumOf, writtenAt } from '@/core/log';
import { counted } from '../parts/counted';
import { ColumnHeads } from '../parts/column-heads';
import { timeText } from '../parts/dates';
import { Form, FormLine, useTypedForm } from '../parts/form';

interface Props {
  readonly log: Log;
  readonly onSay: (body: Body) => void;
}

/** Who was on site when, and what became of it. */
export function Visits({ log, onSay }: Props) {
  const [coming, setComing] = useState(false);
  const { visits, defects, runs } = log;
  const open = defects.filter(({ state }) => state === 'open').length;
  const left = [
    ...(open > 0 ? [counted(open, 'open defect')] : []),
    ...runs.filter(({ ended }) => !ended).map(({ begun }) => `the run “${begun.body.name}”`),
  ].join(', ');
  return (
    <section aria-labelledby="log-visits">
      <h2 id="log-visits" className="flex flex-wrap items-center gap-3 pt-2 pb-1 font-bold">
        Visits
        {!coming && (
          <button type="button" className="button" onClick={() => setComing(true)}>
            I am on site
          </button>
        )}
      </h2>
      {coming && <Coming onSay={onSay} onClose={() => setComing(false)} />}
      {visits.length > 0 && (
        <table className="schedule max-w-[1000px] text-[14px]" aria-label="Visits">
          <ColumnHeads columns={['From', 'Until', 'Who', 'What for', 'What became of it']} />
          <tbody>
            {visits.toReversed().map((visit) => (
              <VisitRow key={visit.id} visit={visit} left={left} onSay={onSay} />
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Coming({ onSay, onClose }: { onSay: Props['onSay']; onClose: () => void }) {
  const form = useTypedForm({ who: '', why: '' }, ({ who, why }) => {
    onSay({ kind: 'visit', with: who.trim(), note: why.trim() });
    onClose();
  });
  return (
    <Form form={form} label="I am on site">
      <FormLine name="why" label="What for" autoFocus />
      <FormLine name="who" label="Who else is there" />
      <button type="submit" className="button button-primary">
        Write it down
      </button>
      <button type="button" className="button" onClick={onClose}>
        Back
      </button>
    </Form>
  );
}

function Leaving({
  visit,
  left,
  onSay,
  onClose,
}: {
  visit: string;
  left: string;
  onSay: Props['onSay'];
  onClose: () => void;
}) {
  const form = useTypedForm({ note: left === '' ? '' : `Left open: ${left}.` }, ({ note }) => {
    onSay({ kind: 'visitEnd', visit, note: note.trim() });
    onClose();
  });
  return (
    <Form form={form} label="I leave the site">
      <FormLine name="note" label="What is left open" autoFocus />
      <button type="submit" className="button button-primary">
        I leave
      </button>
      <button type="button" className="button" onClick={onClose}>
        Back
      </button>
    </Form>
  );
}

function VisitRow({ visit, left, onSay }: { visit: Visit; left: string; onSay: Props['onSay'] }) {
  const [leaving, setLeaving] = useState(false);
  const { id, begun, ended } = visit;
  const who = [...new Set([begun, ...visit.entries].map(({ author }) => author)), begun.body.with];
  return (
    <tr>
      <td className="px-1 whitespace-nowrap max-[699px]:whitespace-normal">{timeText(writtenAt(begun))}</td>
      <td className="px-1 whitespace-nowrap max-[699px]:whitespace-normal">
        {ended
          ? timeText(writtenAt(ended))
          : !leaving && (
              <button
                type="button"
                className="button max-[699px]:min-h-touch"
                onClick={() => setLeaving(true)}
              >
                I leave
              </button>
            )}
      </td>
      <td className="px-1">{who.filter(Boolean).join(', ')}</td>
      <td className="px-1">{begun.body.note}</td>
      <td className="px-1">
        {sumText(sumOf(visit))}
        {ended && ended.body.note !== '' && <span className="block">{ended.body.note}</span>}
        {leaving && <Leaving visit={id} left={left} onSay={onSay} onClose={() => setLeaving(false)} />}
      </td>
    </tr>
  );
}

function sumText({ settings, tests, differing, measured, opened, mended, from, to }: VisitSum): string {
  const parts = [
    settings > 0 ? `${counted(settings, 'setting')} done` : '',
    tests > 0 ? `${counted(tests, 'test')}${differing > 0 ? `, ${differing} otherwise` : ''}` : '',
    measured > 0 ? counted(measured, 'reading') : '',
    opened > 0 ? `${counted(opened, 'defect')} opened` : '',
    mended > 0 ? `${mended} mended` : '',
    to > from ? `the plan went from change ${from} to ${to}` : '',
  ];
  return parts.filter(Boolean).join('; ') || 'nothing written yet';
}
