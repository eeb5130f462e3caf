'use client';

import type { Worksheet } from '@/core/commission';
import { socketTitle } from '@/core/commission';
import { type Run, outcomeWords, writtenAt } from '@/core/log';
import type { Plan } from '@/core/plan';
import { useSite } from '../session/context';
import { useLogBook } from '../session/log-context';
import { timeText } from '../parts/dates';
import { Fold } from '../parts/fold';
import { Photos } from '../log/photos';

/** What was said of the steps, newest first; the newest entry can be taken back. */
export function SaidSoFar({ plan, run }: { plan: Plan; run: Run }) {
  const book = useLogBook();
  const revision = useSite((state) => state.revision);
  const newest = run.results.toReversed();
  if (newest.length === 0) return null;
  const [last] = newest;
  return (
    <section aria-label="Said so far" className="pt-4">
      <h2 className="flex items-center justify-between gap-2 border-b-2 border-ink pb-1 font-bold">
        So far
        {!run.ended && (
          <button
            type="button"
            className="button min-h-touch"
            onClick={() =>
              book.add({ kind: 'correction', of: last!.id, text: 'Taken back: said by mistake.' }, revision)
            }
          >
            Take the last one back
          </button>
        )}
      </h2>
      <ol className="max-h-[340px] overflow-auto" tabIndex={0} aria-label="Entries, newest first">
        {newest.map((entry) => (
          <li key={entry.id} className="border-b border-rule py-1">
            <span className="block text-[13px] text-muted">
              {timeText(writtenAt(entry))}, {entry.author}
              {entry.seq === undefined && ', not sent yet'}
            </span>
            {entry.body.kind === 'sit' ? (
              <span>sat down at {socketTitle(plan, entry.body.socket)}</span>
            ) : (
              <>
                <span className={entry.body.outcome === 'done' ? '' : 'font-bold'}>
                  {outcomeWords[entry.body.outcome]}: {entry.body.does}
                </span>
                {entry.body.reading && <span className="mono block">{entry.body.reading}</span>}
                {entry.body.note && <span className="block">{entry.body.note}</span>}
                <Photos ids={entry.body.photos} />
              </>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}

/** What is still to come, in short. */
export function Coming({ plan, sheet }: { plan: Plan; sheet: Worksheet }) {
  if (sheet.steps < 2) return null;
  return (
    <section aria-label="Still to come" className="pt-4">
      <Fold id="run-coming" title={`Still to come: ${sheet.steps}`} told="steps with where to sit">
        <ol className="max-h-[400px] overflow-auto" tabIndex={0} aria-label="Steps to come">
          {sheet.seats.map((seat, at) => (
            <li key={at} className="pt-2">
              <strong className="mono">
                {seat.socket === null
                  ? `${plan.device.get(seat.device)!.name}, console`
                  : socketTitle(plan, seat.socket)}
              </strong>
              <ul>
                {seat.steps.map((step, i) => (
                  <li key={i} className="border-b border-rule py-1">
                    <span className="mono">{plan.device.get(step.device)!.name}</span> {step.does}
                  </li>
                ))}
              </ul>
            </li>
          ))}
        </ol>
      </Fold>
    </section>
  );
}
