'use client';

import { useEffect } from 'react';
import type { TestRound } from '@/core/commission';
import type { Body, Log } from '@/core/log';
import type { Plan } from '@/core/plan';
import { useSite } from '../../session/context';
import { useJob } from '../../session/job';
import { useLog, useLogBook } from '../../session/log-context';
import { ProgressLine } from '../../parts/progress-line';
import { PortPicture } from '../../parts/port-picture';
import { SentLine } from '../../log/sent-line';
import { LikelyCauses } from './likely-causes';
import { TestLine } from './test-line';

/** What is tried when the site is set up, place by place, with what came of it. */
export function TestsView({ plan }: { plan: Plan }) {
  const book = useLogBook();
  const revision = useSite((state) => state.revision);
  const known = useLog((state) => state.log.tests);
  const { start, running, result, stale } = useJob();
  useEffect(() => start({ kind: 'tests' }, true), [start]);
  const made = result?.kind === 'tests' ? result.tests : null;
  if (!made)
    return (
      running && (
        <p role="status">
          <ProgressLine label="The tests are made up" progress={running} />
        </p>
      )
    );
  const all = made.rounds.flatMap(({ tests }) => tests);
  const came = all.flatMap(({ key }) => known.get(key) ?? []);
  const differs = came.filter(({ body }) => body.outcome === 'differs').length;
  const say = (body: Body) => book.add(body, revision);
  return (
    <div aria-busy={stale}>
      <SentLine />
      <p className="pb-2" role="status">
        <strong>
          {all.length} tests, {made.rounds.length} places:
        </strong>{' '}
        {came.length - differs} as expected,{' '}
        <span className={differs > 0 ? 'font-bold text-stop' : ''}>{differs} otherwise</span>,{' '}
        {all.length - came.length} open
      </p>
      {differs > 0 && <LikelyCauses plan={plan} tests={made} known={known} ready={!stale} onSay={say} />}
      <ol aria-label="The tests">
        {made.rounds.map((round) => (
          <Round key={`${round.at} ${round.how}`} plan={plan} round={round} known={known} onSay={say} />
        ))}
      </ol>
      {made.assumed.length > 0 && (
        <p className="pt-4 text-[14px]">
          <strong>Not tried, taken to be alike:</strong>{' '}
          <span className="mono">{made.assumed.join('; ')}</span>
        </p>
      )}
    </div>
  );
}

interface RoundProps {
  readonly plan: Plan;
  readonly round: TestRound;
  readonly known: Log['tests'];
  readonly onSay: (body: Body) => void;
}

function Round({ plan, round, known, onSay }: RoundProps) {
  const port = round.port === null ? undefined : plan.port.get(round.port);
  return (
    <li className="flex items-stretch gap-2 pt-2 max-[699px]:block" aria-label={`At ${round.at}`}>
      <div className="w-[170px] shrink-0 border-2 border-ink bg-chosen p-2 max-[699px]:w-auto">
        <div className="sticky top-2 max-[699px]:static">
          <strong className="mono block">{round.at}</strong>
          {round.place !== '' && <span className="block text-[13px] font-bold">{round.place}</span>}
          <span className="block text-[13px]">{round.how}</span>
          {port && (
            <span className="hidden pt-1 max-[699px]:block">
              <PortPicture plan={plan} device={port.device} marked={[port.id]} />
            </span>
          )}
        </div>
      </div>
      <ul className="min-w-0 flex-1" aria-label={`Tests at ${round.at}`}>
        {round.tests.map((test) => (
          <TestLine
            key={test.key}
            plan={plan}
            test={test}
            at={round.at}
            came={known.get(test.key)}
            onSay={onSay}
          />
        ))}
      </ul>
    </li>
  );
}
