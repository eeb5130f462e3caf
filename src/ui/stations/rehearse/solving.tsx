'use client';

import Link from 'next/link';
import { useState } from 'react';
import { levelWords, type ExerciseView } from '@/core/exercises';
import type { Progress } from '@/core/plan';
import { AskDialog } from '../../sites/ask-dialog';
import { routes } from '@/contract';
import { ask } from '../../session/api';
import { useSession, useSite } from '../../session/context';
import { Problem } from '../../parts/problem';
import { WorksMark } from '../../parts/works-mark';

/** An exercise on its way: the complaints, whether they still stand, the hints taken, and handing in. */
export function Solving({ exercise }: { exercise: ExerciseView }) {
  const session = useSession();
  const revision = useSite((state) => state.revision);
  const [asked, setAsked] = useState(revision);
  const [problem, setProblem] = useState('');
  const [handing, setHanding] = useState(false);
  const { complaints, points, of, seed, level, original } = exercise;
  const open = complaints.filter(({ stands }) => stands).length;
  const attempt = async (work: () => Promise<void>) => {
    setProblem('');
    try {
      await work();
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const show = (next: { exercise: ExerciseView }) => session.store.setState(next);
  const again = () =>
    attempt(async () => {
      await session.settled();
      const at = session.store.getState().revision;
      await session.loadExercise();
      setAsked(at);
    });
  const hint = (fault: number) =>
    attempt(async () =>
      show(await ask(routes.rehearsal.takeHint, { site: session.siteId, body: { fault } })),
    );
  const handIn = async (hear: (progress: Progress) => void) => {
    await session.settled();
    show(
      await ask(routes.rehearsal.handIn, {
        site: session.siteId,
        body: { revision: session.store.getState().revision },
        hear,
      }),
    );
  };
  return (
    <section aria-label="Exercise" className="max-w-[980px]">
      <div className="flex flex-wrap items-baseline gap-x-4 border-b-2 border-ink pb-1">
        <h3 className="text-[17px] font-bold">Exercise {seed}</h3>
        <p className="text-muted">
          {levelWords[level]}, {complaints.length === 1 ? 'one fault' : `${complaints.length} faults`}, in a
          copy of{' '}
          <Link className="underline" href={`/site/${original.id}/rehearse?view=exercise`}>
            {original.name}
          </Link>{' '}
          as of change {original.revision}
        </p>
        <p className="ml-auto">
          <span className="mono font-bold">
            {points} of {of}
          </span>{' '}
          points left
        </p>
      </div>
      <ol aria-label="Complaints">
        {complaints.map(({ text, stands, hints, nextCost }, at) => (
          <li key={at} className="border-b border-rule py-2">
            <p className="flex items-start gap-2 text-[18px]">
              <span className="mono w-5 shrink-0 text-right font-bold">{at + 1}</span>
              <span>“{text}”</span>
            </p>
            <p className="flex flex-wrap items-center gap-x-2 gap-y-1 pl-7">
              <WorksMark works={!stands} />
              <span>{stands ? 'still so' : 'no longer so'}</span>
              {nextCost !== null && (
                <button type="button" className="button ml-3" onClick={() => void hint(at)}>
                  A hint for {nextCost} {nextCost === 1 ? 'point' : 'points'}
                  <span className="sr-only"> on complaint {at + 1}</span>
                </button>
              )}
            </p>
            {hints.length > 0 && (
              <ul
                className="mt-1 ml-7 border-l-4 border-hivis pl-2"
                aria-label={`Hints on complaint ${at + 1}`}
              >
                {hints.map((words) => (
                  <li key={words} className="py-0.5">
                    {words}
                  </li>
                ))}
              </ul>
            )}
          </li>
        ))}
      </ol>
      <Problem text={problem} className="mt-2" />
      <div className="flex flex-wrap items-center gap-3 py-3">
        <button type="button" className="button button-primary" onClick={() => void again()}>
          Ask them again
        </button>
        <span className="text-[13px] text-muted" role="status">
          asked at change {asked}
          {asked !== revision && `; the plan is at change ${revision} now`}
        </span>
        <button type="button" className="button ml-auto" onClick={() => setHanding(true)}>
          Hand in
        </button>
      </div>
      <p className="max-w-[74ch] text-muted">
        Look with the probe below, under DHCP, Gear & ports, Addresses and Spanning trees, and mend what you
        find in the plan. What the mending breaks costs points too.
      </p>
      {handing && (
        <AskDialog
          title="Hand in"
          act="Hand it in"
          initial={{}}
          onAct={(_nothing, hear) => handIn(hear)}
          onClose={() => setHanding(false)}
        >
          <p>
            {open === 0
              ? 'Nobody complained any more when last asked.'
              : `When last asked, ${open === 1 ? 'one complaint' : `${open} complaints`} still stood.`}{' '}
            The report shows every fault, and the exercise is over.
          </p>
        </AskDialog>
      )}
    </section>
  );
}
