'use client';

import { useEffect, useMemo, useState } from 'react';
import { type Worksheet, timedSteps, wayBackOf } from '@/core/commission';
import { type Run, paceOf } from '@/core/log';
import type { Plan } from '@/core/plan';
import { useLog } from '../session/log-context';
import { clockText, spanText } from '../parts/dates';

/** Until when the site must work again, how long the rest takes, and when to turn back at the latest. */
export function WindowLine({
  plan,
  run,
  sheet,
  until,
}: {
  plan: Plan;
  run: Run;
  sheet: Worksheet;
  until: string;
}) {
  const log = useLog((state) => state.log);
  const pace = useMemo(() => paceOf(log), [log]);
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 15_000);
    return () => clearInterval(timer);
  }, []);
  const rest = timedSteps(plan, sheet.seats, pace).at(-1)?.ends ?? 0;
  const back = useMemo(() => wayBackOf(plan, run.results.flatMap(stepsDone), pace), [plan, run, pace]);
  const end = Date.parse(until);
  const [free, turn] = [(end - now) / 1000, end - back * 1000];
  const late = free < rest;
  const gone = free < back;
  return (
    <p
      role="status"
      className={`border-b border-rule px-2 py-1 text-[14px] ${late ? 'border-l-4 border-l-stop' : 'bg-chosen'}`}
    >
      Must work again by <strong>{clockText(end)}</strong>. The rest takes about {spanText(rest)}
      {late ? <strong className="text-stop">, more than is left</strong> : ''}.{' '}
      {back === 0
        ? 'Nothing is to be taken back yet.'
        : gone
          ? `The way back takes ${spanText(back)}: that is past.`
          : `The way back takes ${spanText(back)}: turn back by ${clockText(turn)} at the latest.`}
    </p>
  );
}

/** What was done at once counts as one page. */
function stepsDone({ body }: Run['results'][number]) {
  if (body.kind !== 'result' || body.outcome !== 'done') return [];
  const { device, setting } = body.steps[0]!;
  const pages = setting.kind === 'pages' ? setting.pages.length : 1;
  return [{ device, kind: setting.kind, pages, count: body.steps.length }];
}
