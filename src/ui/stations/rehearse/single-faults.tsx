'use client';

import { useState } from 'react';
import { ColumnHeads } from '../../parts/column-heads';
import { ProgressLine } from '../../parts/progress-line';
import type { Plan } from '@/core/plan';
import { type Fault, faultKey, faultTitle } from '@/core/rehearse';
import { useJob } from '../../session/job';
import { Stale } from './stale';

const SHOWN = 12;

/** Every failure that can happen alone, the worst first, with what would make it harmless. */
export function SingleFaults({ plan, onTry }: { plan: Plan; onTry: (fault: Fault) => void }) {
  const job = useJob();
  const [all, setAll] = useState(false);
  const ranked = job.result?.kind === 'single-faults' ? job.result.ranked : null;
  const run = () => job.start({ kind: 'single-faults' });
  const harmful = ranked?.filter(({ cure }) => cure !== '') ?? [];
  const shown = all ? harmful : harmful.slice(0, SHOWN);
  return (
    <section aria-label="Single faults" className="mb-5">
      <div className="flex flex-wrap items-center gap-3 border-b-2 border-ink pb-1">
        <h3 className="font-bold">Every single fault</h3>
        {job.running ? (
          <>
            <ProgressLine label="Faults run" progress={job.running} />
            <button type="button" className="button" onClick={job.cancel}>
              Stop
            </button>
          </>
        ) : (
          <button type="button" className="button" onClick={run}>
            Run all of them
          </button>
        )}
      </div>
      {!ranked && !job.running && (
        <p className="text-muted">
          Each link between boxes, each box and each uplink fails alone; what that takes away is ranked.
        </p>
      )}
      {ranked && (
        <>
          <p role="status">
            {harmful.length === 0
              ? `None of ${ranked.length} single faults takes anything away.`
              : `${harmful.length} of ${ranked.length} single faults take something away.`}
          </p>
          {harmful.length > 0 && (
            <table className="schedule schedule-stacked text-[14px]" aria-label="Single points of failure">
              <ColumnHeads columns={['Fault', 'Cut off', 'Answers changed', 'What would remove it']} />
              <tbody>
                {shown.map(({ fault, cutOff, answers, lost, cure }) => (
                  <tr key={faultKey(fault)}>
                    <th scope="row" className="text-left font-normal">
                      <button
                        type="button"
                        className="min-h-[26px] max-[699px]:min-h-touch text-left font-bold hover:underline"
                        onClick={() => onTry(fault)}
                      >
                        {faultTitle(plan, fault)}
                      </button>
                    </th>
                    <td>
                      <span className="mono">{cutOff.length}</span>{' '}
                      <span className="line-clamp-1 text-[13px] text-muted">
                        {[...cutOff.slice(0, 4), ...(cutOff.length > 4 ? ['…'] : [])].join(', ')}
                      </span>
                    </td>
                    <td>
                      <span className="mono">{answers}</span>
                      {lost.length > 0 && (
                        <span className="block text-[13px] text-muted">{lost.join(', ')}</span>
                      )}
                    </td>
                    <td>{cure}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {harmful.length > SHOWN && (
            <button type="button" className="link" onClick={() => setAll(!all)}>
              {all ? 'only the worst' : `and ${harmful.length - SHOWN} more`}
            </button>
          )}
          <Stale revision={job.revision} stale={job.stale} onAgain={run} />
        </>
      )}
    </section>
  );
}
