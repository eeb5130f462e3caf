'use client';

import { useEffect, useState } from 'react';
import type { SiteTest, TestRound } from '@/core/commission';
import { type Body, type Of, testWords, writtenAt } from '@/core/log';
import type { Plan } from '@/core/plan';
import { useSite } from '../../session/context';
import { useJob } from '../../session/job';
import { useLog, useLogBook } from '../../session/log-context';
import { timeText } from '../../parts/dates';
import { ProgressLine } from '../../parts/progress-line';
import { type Draft, DraftFields, NO_DRAFT } from '../../log/draft-fields';
import { Photos } from '../../log/photos';
import { PortPicture } from '../../parts/port-picture';
import { SentLine } from '../../log/sent-line';

type Tested = Of<'test'>;

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
  readonly known: ReadonlyMap<string, Tested>;
  readonly onSay: (body: Body) => void;
}

function Round({ plan, round, known, onSay }: RoundProps) {
  const port = round.port === null ? undefined : plan.port.get(round.port);
  return (
    <li className="flex items-stretch gap-2 pt-2 max-[699px]:block" aria-label={`At ${round.at}`}>
      <div className="w-[170px] shrink-0 border-2 border-ink bg-chosen p-2 max-[699px]:w-auto">
        <div className="sticky top-2 max-[699px]:static">
          <strong className="mono block">{round.at}</strong>
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
          <TestLine key={test.key} test={test} at={round.at} came={known.get(test.key)} onSay={onSay} />
        ))}
      </ul>
    </li>
  );
}

function TestLine({
  test,
  at,
  came,
  onSay,
}: {
  test: SiteTest;
  at: string;
  came: Tested | undefined;
  onSay: (body: Body) => void;
}) {
  const [asking, setAsking] = useState(false);
  const [draft, setDraft] = useState<Draft>(NO_DRAFT);
  const { key, does, expects, why, amiss } = test;
  const say = (outcome: Tested['body']['outcome']) => {
    const { note, reading, photos } = draft;
    onSay({
      kind: 'test',
      key,
      at,
      does,
      expects,
      outcome,
      reading: reading.trim(),
      note: note.trim(),
      photos: [...photos],
    });
    setDraft(NO_DRAFT);
    setAsking(false);
  };
  return (
    <li className="border-b border-rule py-1 text-[14px]">
      <div className="flex flex-wrap items-start gap-x-3">
        <span className="min-w-[220px] flex-1">
          <strong>{does}.</strong> {expects}
          <span className="block text-[13px] text-muted">{why}</span>
          {amiss && (
            <span className="block text-[13px] text-stop">By the plan it comes out otherwise: {amiss}</span>
          )}
          {came && <Came entry={came} />}
        </span>
        <span className="flex shrink-0 items-center gap-2">
          {!asking && (
            <>
              <button
                type="button"
                className="button max-[699px]:min-h-11"
                aria-label={`As expected: ${does} at ${at}`}
                onClick={() => say('as-expected')}
              >
                as expected
              </button>
              <button
                type="button"
                className="button max-[699px]:min-h-11"
                aria-label={`Differs: ${does} at ${at}`}
                onClick={() => setAsking(true)}
              >
                differs…
              </button>
            </>
          )}
        </span>
      </div>
      {asking && (
        <form
          aria-label={`What differs: ${does}`}
          className="flex max-w-[560px] flex-col gap-2 py-2"
          onSubmit={(event) => {
            event.preventDefault();
            say('differs');
          }}
        >
          <DraftFields label="What comes of it?" draft={draft} onDraft={setDraft} focus />
          <span className="flex gap-2">
            <button type="submit" className="button button-primary max-[699px]:min-h-11">
              It differs
            </button>
            <button type="button" className="button max-[699px]:min-h-11" onClick={() => setAsking(false)}>
              Back
            </button>
          </span>
        </form>
      )}
    </li>
  );
}

/** What came of a test last. */
function Came({ entry }: { entry: Tested }) {
  const { outcome, note, reading, photos } = entry.body;
  return (
    <span className={`block border-l-4 pl-2 ${outcome === 'differs' ? 'border-stop' : 'border-ink'}`}>
      <strong>{testWords[outcome]}</strong>, {entry.author}, {timeText(writtenAt(entry))}
      {(note || reading) && (
        <span className="block">
          {note} <span className="mono">{reading}</span>
        </span>
      )}
      <Photos ids={photos} />
    </span>
  );
}
