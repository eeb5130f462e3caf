'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import {
  levelWords,
  type FaultReport,
  type ExerciseReport,
  type Telling,
  type ExerciseView,
} from '@/core/exercises';
import { setExercise } from '../../session/exercise';
import { ColumnHeads } from '../../parts/column-heads';
import { Problem } from '../../parts/problem';
import { WorksMark } from '../../parts/works-mark';

const mendedWords: Readonly<Record<FaultReport['mended'], string>> = {
  back: 'mended: it is as it was',
  otherwise: 'mended in another way: everything works again',
  no: 'not mended',
};

const minutes = (from: string, to: string) =>
  Math.max(1, Math.round((Date.parse(to) - Date.parse(from)) / 60_000));

/** What became of an exercise: what was done, what each test could have told, and what the mending broke. */
export function ExerciseReport({ exercise, report }: { exercise: ExerciseView; report: ExerciseReport }) {
  const { seed, level, original, startedAt, endedAt, learner } = exercise;
  const router = useRouter();
  const [problem, setProblem] = useState('');
  const again = async () => {
    try {
      const id = await setExercise(original.id, { seed, level, count: report.faults.length });
      router.push(`/site/${id}/rehearse?view=exercise`);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <section aria-label="Report" className="max-w-[1080px]">
      <div className="flex flex-wrap items-baseline gap-x-4 border-b-2 border-ink pb-1">
        <h3 className="text-[17px] font-bold">Exercise {seed}: the report</h3>
        <p className="text-muted">
          {levelWords[level]}, {learner}, {endedAt && minutes(startedAt, endedAt)} min, copied from{' '}
          <Link className="underline" href={`/site/${original.id}/rehearse?view=exercise`}>
            {original.name}
          </Link>{' '}
          at change {original.revision}
        </p>
        <p className="ml-auto text-[17px] whitespace-nowrap">
          <span className="mono font-bold">
            {report.points} of {report.of}
          </span>{' '}
          points
        </p>
      </div>
      <div className="flex flex-wrap items-center gap-3 pt-2">
        <button type="button" className="button" onClick={() => void again()}>
          Set it again
        </button>
        <span className="text-[13px] text-muted">the same number, in {original.name} as it is now</span>
        <Problem text={problem} />
      </div>
      <ol>
        {report.faults.map((fault, at) => (
          <li key={at} className="border-b border-ink py-3">
            <FaultSection fault={fault} number={at + 1} />
          </li>
        ))}
      </ol>
      {report.harm.length > 0 && (
        <section aria-label="What the mending changed" className="py-3">
          <h4 className="font-bold">What the mending changed besides, 2 points each</h4>
          <Tellings tellings={report.harm} now="now" meant="before" label="What the mending changed" />
        </section>
      )}
      {report.left.length > 0 && (
        <p className="py-2">
          Not as it was before the faults: {report.left.join(', ')}
          {report.left.length === 12 ? ' and others' : ''}.
        </p>
      )}
    </section>
  );
}

function FaultSection({ fault, number }: { fault: FaultReport; number: number }) {
  const { complaint, told, mended, hints, points, tellings, findings } = fault;
  return (
    <>
      <p className="flex items-start gap-2">
        <span className="mono w-5 shrink-0 text-right font-bold">{number}</span>
        <span className="text-muted">“{complaint}”</span>
      </p>
      <p className="pl-7 text-[17px] font-bold">{told}</p>
      <p className="flex flex-wrap items-center gap-2 pl-7">
        <WorksMark works={mended !== 'no'} />
        {mendedWords[mended]}
        <span className="text-muted">
          {points} points{hints > 0 && `, ${hints === 1 ? 'one hint' : `${hints} hints`} taken`}
        </span>
      </p>
      <div className="pt-1 pl-7">
        <Tellings
          tellings={tellings}
          now="said"
          meant="without the fault"
          label={`What could have told of fault ${number}`}
        />
        {findings.length > 0 && (
          <p className="pt-1 text-[14px]">
            <b>Findings</b> would have said: {findings.join(' ')}
          </p>
        )}
      </div>
    </>
  );
}

function Tellings({
  tellings,
  now,
  meant,
  label,
}: {
  tellings: readonly Telling[];
  now: string;
  meant: string;
  label: string;
}) {
  return (
    <table className="schedule schedule-stacked text-[14px]" aria-label={label}>
      <ColumnHeads columns={['Test', now, meant]} />
      <tbody>
        {tellings.map((telling) => (
          <tr key={telling.by}>
            <th scope="row" className="w-[26%] text-left font-normal">
              {telling.by}
            </th>
            <td className="w-[37%]">
              <Head text={now} />
              {telling.now}
            </td>
            <td>
              <Head text={meant} />
              {telling.meant}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The head of a column, where the rows of a table stand as cards. */
const Head = ({ text }: { text: string }) => <b className="min-[700px]:hidden">{text}: </b>;
