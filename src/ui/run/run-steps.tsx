'use client';

import { useEffect, useState } from 'react';
import type { Body, Run } from '@/core/log';
import { type Plan, portTitle } from '@/core/plan';
import { useSite } from '../session/context';
import { useJob } from '../session/job';
import { useLogBook } from '../session/log-context';
import { NO_DRAFT } from '../log/draft-fields';
import { WorkCautions } from '../parts/cautions';
import { FormersAwaited } from '../parts/formers-awaited';
import { ProgressLine } from '../parts/progress-line';
import { EndOfRun } from './end-of-run';
import { Coming, SaidSoFar } from './run-lists';
import { SitCard } from './sit-card';
import { StepCard } from './step-card';
import { WindowLine } from './window-line';

const idsOf = (results: Run['results']): string => results.map((entry) => entry.id).join(' ');

/** What comes next of a run, what was said so far, and what is still to come. */
export function RunSteps({ plan, run }: { plan: Plan; run: Run }) {
  const book = useLogBook();
  // Kept over steps: what somebody types is not lost because somebody else ticks one.
  const [draft, setDraft] = useState(NO_DRAFT);
  const revision = useSite((state) => state.revision);
  const { start, running, result, stale, problem, job } = useJob();
  const { id, begun, results, done } = run;
  // What was moved by hand belongs to the plan it was moved in.
  const { edits } = begun.body;
  const own = begun.revision === revision;
  const asked = idsOf(results);
  useEffect(
    () => start({ kind: 'run', run: { id, results, edits: own ? edits : [] } }, true),
    // The results are told apart by their ids: an entry that was sent is the same one.
    [start, id, asked], // eslint-disable-line react-hooks/exhaustive-deps
  );
  const add = (body: Body) => book.add(body, revision);
  const left = result?.kind === 'run' ? result : null;
  const seat = left?.sheet.seats[0];
  const step = seat?.steps[0];
  // As soon as something is said, what is shown is the step before: nobody says it twice by pressing twice.
  const isOfThese = job?.kind === 'run' && idsOf(job.run.results) === asked;
  const busy = running !== null || stale || !isOfThese;
  return (
    <>
      {left && (
        <p className="pb-2">
          <ProgressLine label="Settings done" progress={{ done, of: done + left.sheet.settings }} />
        </p>
      )}
      {left && begun.body.until && !run.ended && (
        <WindowLine plan={plan} run={run} sheet={left.sheet} until={begun.body.until} />
      )}
      <WorkCautions plan={plan} />
      {begun.revision !== revision && (
        <p role="note" className="border-b border-rule bg-chosen px-2 py-1 text-[13px]">
          The plan has changed since the run began: what is left is worked out from the plan as it is now.
          What was done stays done.
        </p>
      )}
      {problem && <FormersAwaited problem={problem} />}
      {running && !left && (
        <p role="status">
          <ProgressLine label="What is left is worked out" progress={running} atMost />
        </p>
      )}
      {run.ended && (
        <p className="border-2 border-ink p-2">
          <strong>The run is ended.</strong> {run.ended.body.note}
        </p>
      )}
      {left && !run.ended && left.next?.kind === 'sit' && seat && (
        <SitCard
          key={left.next.socket}
          plan={plan}
          seat={seat}
          busy={busy}
          onSit={() => left.next?.kind === 'sit' && add({ kind: 'sit', run: id, socket: left.next.socket })}
        />
      )}
      {left && !run.ended && left.next?.kind === 'steps' && seat && step && (
        <StepCard
          key={JSON.stringify(left.next.steps)}
          plan={plan}
          run={run}
          seat={seat}
          step={step}
          settings={left.next.steps}
          draft={draft}
          onDraft={setDraft}
          busy={busy}
          onSay={add}
        />
      )}
      {left && !left.next && (
        <EndOfRun
          run={run}
          finished={left.finished}
          recorded={left.sheet.recorded.map((port) => portTitle(plan, plan.port.get(port)!))}
          onEnd={(note) => add({ kind: 'runEnd', run: id, note })}
        />
      )}
      <SaidSoFar plan={plan} run={run} />
      {left && <Coming plan={plan} sheet={left.sheet} />}
    </>
  );
}
