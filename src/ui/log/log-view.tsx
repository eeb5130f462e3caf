'use client';

import Link from 'next/link';
import { type Body, type Run, aboutText, entryText, logCsv, writtenAt } from '@/core/log';
import type { Plan } from '@/core/plan';
import { useSession, useSite } from '../session/context';
import { useLog, useLogBook } from '../session/log-context';
import { ColumnHeads } from '../parts/column-heads';
import { saveFile } from '../parts/save-file';
import { readersZone, timeText } from '../parts/dates';
import { Photos } from './photos';
import { SentLine } from './sent-line';
import { AddEntry } from './add-entry';
import { Defects } from './defects';
import { SignOffs } from './sign-offs';
import { StartRun } from './start-run';
import { Visits } from './visits';

/** Everything that was done, measured and left open; nothing in it is ever changed or taken away. */
export function LogView({ plan }: { plan: Plan }) {
  const book = useLogBook();
  const { siteId } = useSession();
  const revision = useSite((state) => state.revision);
  const log = useLog((state) => state.log);
  const ready = useLog((state) => state.ready);
  const add = (body: Body) => book.add(body, revision);
  if (!ready) return <p role="status">Reading the log…</p>;
  return (
    <>
      <SentLine />
      <Visits log={log} onSay={add} />
      <section aria-labelledby="log-runs">
        <h2 id="log-runs" className="flex flex-wrap items-center gap-3 pt-2 pb-1 font-bold">
          Runs <StartRun />
        </h2>
        {log.runs.length > 0 && <Runs runs={log.runs} />}
      </section>
      <Defects plan={plan} defects={log.defects} onSay={add} />
      <SignOffs log={log} revision={revision} onSay={add} />
      <section aria-labelledby="log-entries">
        <h2 id="log-entries" className="flex flex-wrap items-center gap-3 pt-5 pb-1 font-bold">
          Logbook
          {log.entries.length > 0 && (
            <>
              <button
                type="button"
                className="button"
                onClick={() =>
                  saveFile(new Blob([logCsv(plan, log)], { type: 'text/csv' }), `${siteId}-logbook.csv`)
                }
              >
                Download as CSV
              </button>
              <button
                type="button"
                className="button"
                onClick={() =>
                  saveFile(
                    new Blob([JSON.stringify(log.entries, null, 2)], { type: 'application/json' }),
                    `${siteId}-logbook.json`,
                  )
                }
              >
                Download as JSON
              </button>
            </>
          )}
        </h2>
        <AddEntry plan={plan} onSay={add} />
        {log.entries.length > 0 && (
          <table className="schedule max-w-[1000px] text-[14px]" aria-label="Logbook">
            <ColumnHeads columns={[`When (${readersZone()})`, 'Who', 'What']} />
            <tbody>
              {log.entries.toReversed().map((entry) => {
                const { body } = entry;
                const about =
                  body.kind === 'note' || body.kind === 'defect' ? aboutText(plan, body.about) : '';
                return (
                  <tr
                    key={entry.id}
                    className={log.corrections.has(entry.id) ? 'text-muted line-through' : ''}
                  >
                    <td className="px-1 whitespace-nowrap max-[699px]:whitespace-normal">
                      {timeText(writtenAt(entry))}
                      {entry.seq === undefined && <span className="block text-[13px]">not sent yet</span>}
                    </td>
                    <td className="px-1">{entry.author}</td>
                    <td className="px-1">
                      {about && <strong className="mono">{about}: </strong>}
                      {entryText(plan, log, entry)}
                      {'reading' in body && body.reading && (
                        <span className="mono block">{body.reading}</span>
                      )}
                      {body.kind === 'result' && body.note && <span className="block">{body.note}</span>}
                      {'photos' in body && <Photos ids={body.photos} />}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
      </section>
    </>
  );
}

function Runs({ runs }: { runs: readonly Run[] }) {
  const { siteId } = useSession();
  return (
    <table className="schedule max-w-[1000px] text-[14px]" aria-label="Runs">
      <ColumnHeads columns={['Run', 'Begun', 'Who', 'Settings done', 'State']} />
      <tbody>
        {runs.toReversed().map(({ id, begun, results, done, ended }) => {
          const who = new Set([begun, ...results].map(({ author }) => author));
          return (
            <tr key={id}>
              <th scope="row" className="text-left">
                <Link className="link" href={`/site/${siteId}/run?run=${id}`}>
                  {begun.body.name}
                </Link>
              </th>
              <td className="px-1 whitespace-nowrap">{timeText(writtenAt(begun))}</td>
              <td className="px-1">{[...who].join(', ')}</td>
              <td className="mono px-1 text-right">{done}</td>
              <td className="px-1">{ended ? 'ended' : 'under way'}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
