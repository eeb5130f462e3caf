'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type FormEvent, useEffect, useRef, useState } from 'react';
import { type AnswerOf, routes } from '@/contract';
import { type Level, levelWords, levels } from '@/core/exercises';
import type { Progress } from '@/core/plan';
import { ask } from '../../session/api';
import { setExercise } from '../../session/exercise';
import { useSession } from '../../session/context';
import { ColumnHeads } from '../../parts/column-heads';
import { dayText } from '../../parts/dates';
import { OneOf } from '../../parts/one-of';
import { Problem } from '../../parts/problem';
import { ProgressLine } from '../../parts/progress-line';

const SEEDS = 9999;
const anyNumber = () => String(1 + Math.floor(Math.random() * SEEDS));

const levelNotes: Readonly<Record<Level, string>> = {
  1: 'seen by looking at the right place',
  2: 'found by asking the right question',
  3: 'found by putting two answers side by side; nobody knows what was done before',
};

type Listed = AnswerOf<typeof routes.rehearsal.exercises>['exercises'][number];

/** Puts faults into a copy of this site, and lists the exercises made of it. */
export function SetExercise() {
  const { siteId } = useSession();
  const router = useRouter();
  const [level, setLevel] = useState<Level>(1);
  const [count, setCount] = useState(1);
  const [seed, setSeed] = useState(anyNumber);
  const [problem, setProblem] = useState('');
  /** How many places for a fault were tried; null while nothing is drawn. */
  const [tried, setTried] = useState<Progress | null>(null);
  const busy = tried !== null;
  const asked = useRef<AbortController>(null);
  const [listed, setListed] = useState<readonly Listed[]>([]);
  useEffect(() => {
    ask(routes.rehearsal.exercises, { site: siteId })
      .then(({ exercises }) => setListed(exercises))
      .catch((error: Error) => setProblem(error.message));
  }, [siteId]);
  const set = async (event: FormEvent) => {
    event.preventDefault();
    const number = Number(seed.trim());
    if (!/^\d{1,6}$/.test(seed.trim()) || number < 1) {
      setProblem(`The number is “${seed.trim()}”; write a whole number from 1 to 999999.`);
      return;
    }
    setTried({ done: 0, of: 0 });
    const { signal } = (asked.current = new AbortController());
    setProblem('');
    try {
      const id = await setExercise(siteId, { seed: number, level, count }, { signal, hear: setTried });
      router.push(`/site/${id}/rehearse?view=exercise`);
    } catch (error) {
      if (!signal.aborted) setProblem((error as Error).message);
      setTried(null);
    }
  };
  return (
    <section aria-label="Faults to find" className="max-w-[980px]">
      <p className="max-w-[74ch] pb-2">
        Faults are put into a copy of this site, and you are told only what people complain of. Probe, DHCP,
        ports, addresses and trees work there as here; findings are put away. This site is not touched.
      </p>
      <form
        className="flex flex-wrap items-end gap-x-5 gap-y-3 border-y-2 border-ink py-2"
        onSubmit={(event) => void set(event)}
      >
        <fieldset className="flex flex-wrap items-center gap-2">
          <legend className="text-[13px]">Difficulty</legend>
          <OneOf
            label="Difficulty"
            look="buttons"
            value={String(level)}
            of={levels.map((each) => ({ value: String(each), shown: levelWords[each] }))}
            onChoose={(each) => setLevel(Number(each) as Level)}
          />
        </fieldset>
        <fieldset className="flex flex-wrap items-center gap-2">
          <legend className="text-[13px]">Faults</legend>
          <OneOf
            label="How many faults"
            look="buttons"
            value={String(count)}
            of={[1, 2, 3].map((each) => ({
              value: String(each),
              shown: <span className="mono">{each}</span>,
              name: `${each} ${each === 1 ? 'fault' : 'faults'}`,
            }))}
            onChoose={(each) => setCount(Number(each))}
          />
        </fieldset>
        <label className="w-[120px] text-[13px]">
          Number
          <input
            className="field field-line mono max-[699px]:min-h-touch"
            inputMode="numeric"
            value={seed}
            autoComplete="off"
            onChange={(event) => setSeed(event.target.value)}
          />
        </label>
        <button type="submit" className="button button-primary" disabled={busy}>
          {busy ? 'Putting faults in…' : 'Set the exercise'}
        </button>
        {tried && (
          <>
            <ProgressLine label="Places for a fault tried" progress={tried} atMost />
            <button type="button" className="button" onClick={() => asked.current?.abort()}>
              Stop
            </button>
          </>
        )}
      </form>
      <p className="pt-1 text-[13px] text-muted">
        {levelWords[level]}: {levelNotes[level]}. The same number on the same plan gives the same faults.
      </p>
      <Problem text={problem} className="mt-2" />
      {listed.length > 0 && (
        <table className="schedule schedule-stacked mt-4 text-[14px]" aria-label="Exercises of this site">
          <ColumnHeads columns={['Exercise', 'Difficulty', 'Faults', 'Whose', 'Begun', 'Result']} />
          <tbody>
            {listed.map(({ site, seed: number, level: its, hints, learner, startedAt, report }) => (
              <tr key={site}>
                <th scope="row" className="text-left font-normal">
                  <Link className="mono font-bold underline" href={`/site/${site}/rehearse?view=exercise`}>
                    {number}
                  </Link>
                </th>
                <td>{levelWords[its]}</td>
                <td className="mono">{hints.length}</td>
                <td>{learner}</td>
                <td>{dayText(startedAt)}</td>
                <td>{report ? `${report.points} of ${report.of} points` : 'being solved'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
