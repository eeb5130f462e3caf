'use client';

import { useEffect, useMemo } from 'react';
import type { Cause, Observed, TestPlan } from '@/core/commission';
import { type Body, type Log, testWords } from '@/core/log';
import type { Plan } from '@/core/plan';
import { useJob } from '../../session/job';
import { ProgressLine } from '../../parts/progress-line';
import { LIKELY_CAUSES, TestLine } from './test-line';

/** What came of the tests that still say what they said when they were made; what is no test of the site is passed on as it is. */
function observedIn(tests: TestPlan, known: Log['tests']): readonly Observed[] {
  const expected = new Map(
    tests.rounds.flatMap((round) => round.tests.map(({ key, expects }) => [key, expects])),
  );
  return [...known.values()].flatMap(({ body }): Observed[] => {
    const { key, expects, outcome, landed } = body;
    if ((expected.get(key) ?? expects) !== expects) return [];
    return [{ key, asExpected: outcome === 'as-expected', landed: landed ?? null }];
  });
}

/** What would explain what differs, likeliest first, and the test that tells most of it apart. */
export function LikelyCauses({
  plan,
  tests,
  known,
  ready,
  onSay,
}: {
  plan: Plan;
  tests: TestPlan;
  known: Log['tests'];
  /** The tests are those of the plan as it is. */
  ready: boolean;
  onSay: (body: Body) => void;
}) {
  const { start, running, result, stale } = useJob();
  const observed = useMemo(() => observedIn(tests, known), [tests, known]);
  useEffect(() => {
    if (ready) start({ kind: 'diagnosis', observed }, true);
  }, [start, ready, observed]);
  const found = result?.kind === 'diagnosis' ? result.diagnosis : null;
  const best = found?.causes[0];
  const own = new Set(tests.rounds.flatMap((round) => round.tests.map(({ key }) => key)));
  const besides = [...known.values()].filter(({ body }) => !own.has(body.key));
  return (
    <section
      id={LIKELY_CAUSES}
      aria-label="Likely causes"
      aria-busy={running !== null || stale}
      className="mb-3 border-2 border-ink p-3"
    >
      <h2 className="text-[17px]">What would explain it</h2>
      {running && !found && (
        <p role="status">
          <ProgressLine label="What may be wrong is rehearsed" progress={running} atMost />
        </p>
      )}
      {found?.differing === 0 && (
        <p>By the plan as it is, exactly this comes of the tests: change the plan.</p>
      )}
      {found && found.differing > 0 && !best && (
        <p>
          No single thing that is otherwise than planned gives exactly this. Look for two at once, make the
          tests that differ again, and take back what was ticked by mistake.
        </p>
      )}
      {best && best.explains < found.differing && (
        <p>
          No single thing explains all {found.differing} tests that differ; there are two at once at least.
        </p>
      )}
      {best && (
        <ol aria-label="What may be wrong, likeliest first">
          {found.causes.map((cause) => (
            <CauseLine
              key={`${cause.place.key} ${cause.explains}`}
              cause={cause}
              differing={found.differing}
            />
          ))}
        </ol>
      )}
      {besides.length > 0 && (
        <ul aria-label="Tests made besides" className="pt-1 text-[14px] text-muted">
          {besides.map(({ id, body }) => (
            <li key={id}>
              At <span className="mono">{body.at}</span>: {body.does}. {testWords[body.outcome]}.
            </li>
          ))}
        </ul>
      )}
      {found?.next && (
        <div className="mt-2 border-t-2 border-ink pt-2">
          <p>
            <strong>Try this next, it tells most apart.</strong> At{' '}
            <strong className="mono">{found.next.at}</strong>:
          </p>
          <ul aria-label="The next test">
            <TestLine
              key={found.next.test.key}
              plan={plan}
              test={found.next.test}
              at={found.next.at}
              came={known.get(found.next.test.key)}
              onSay={onSay}
            />
          </ul>
        </div>
      )}
    </section>
  );
}

/** A place to look at, how likely it is, and what may have been done there. */
function CauseLine({ cause, differing }: { cause: Cause; differing: number }) {
  const { place, told, explains, share } = cause;
  const percent = Math.round(share * 100);
  return (
    <li className="flex items-start gap-3 border-b border-rule py-1 last:border-b-0">
      <span className="w-[64px] shrink-0 pt-1">
        <span className="mono block text-right leading-none">{percent === 0 ? '<1' : percent} %</span>
        <span className="block h-[5px] border border-ink" aria-hidden="true">
          <span className="block h-full bg-ink" style={{ width: `${percent}%` }} />
        </span>
      </span>
      <span className="min-w-0 flex-1">
        <strong>Look at {place.title}.</strong>
        {explains < differing && (
          <span className="text-muted">
            {' '}
            It explains {explains} of {differing}.
          </span>
        )}
        {told.map(({ text, more }) => (
          <span key={text} className="block text-[14px]">
            {text}{' '}
            {more > 0 && (
              <span className="text-muted">
                {more === 1 ? 'Or one more like it.' : `Or ${more} more like it.`}
              </span>
            )}
          </span>
        ))}
      </span>
    </li>
  );
}
