'use client';

import { useMemo } from 'react';
import { create } from 'zustand';
import { type Worksheet, mayTurnBack, timedSteps } from '@/core/commission';
import { paceOf } from '@/core/log';
import { type Plan, SITE_ID, siteOf } from '@/core/plan';
import { useEdit, wholeNumber } from '../../session/actions';
import { useLog } from '../../session/log-context';
import { spanText } from '../../parts/dates';
import { Field } from '../../parts/field';
import { OneOf } from '../../parts/one-of';
import { Toggle } from '../../parts/tick';

/** How much time there is in minutes, and whether the way back is shown; as long as the window is open. */
export const useOrderLook = create<{ readonly minutes: number | null; readonly back: boolean }>(() => ({
  minutes: null,
  back: false,
}));

const schools = [
  { value: 'on-site' as const, shown: 'where they hang', title: 'cabled as planned, far boxes first' },
  {
    value: 'bench' as const,
    shown: 'on the bench',
    title: 'each by itself on a table, then mounted and cabled',
  },
];

/** How long the order takes, whether it fits into the time there is, and until when one can turn back. */
export function OrderTimes({ plan, sheet }: { plan: Plan; sheet: Worksheet }) {
  const edit = useEdit();
  const log = useLog((state) => state.log);
  const { minutes, back } = useOrderLook();
  const pace = useMemo(() => paceOf(log), [log]);
  const steps = useMemo(() => timedSteps(plan, sheet.seats, pace), [plan, sheet, pace]);
  const total = steps.at(-1)?.ends ?? 0;
  const typed = (text: string) =>
    useOrderLook.setState({ minutes: text === '' ? null : wholeNumber(text, 'The time') });
  return (
    <section aria-label="Time" className="no-print grid gap-1 pb-2 text-[14px]">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span>New boxes are set up</span>
        <OneOf
          label="New boxes are set up"
          look="bar"
          value={siteOf(plan).staging}
          of={schools}
          onChoose={(value) => edit('site', SITE_ID, 'staging', value)}
        />
        <Toggle
          label="show the way back"
          checked={back}
          onChange={(next) => useOrderLook.setState({ back: next })}
        />
      </div>
      <div className="flex flex-wrap items-baseline gap-x-3">
        <span>
          Takes about <strong>{spanText(total)}</strong>
          <span className="text-muted">
            {pace.size > 0 ? ', as measured in earlier runs' : ', by the models and what is assumed'}
          </span>
        </span>
        <span className="flex items-baseline gap-1">
          There are
          <span className="w-[64px] border-b border-rule">
            <Field
              label="Minutes there are"
              mono
              placeholder="any"
              value={minutes === null ? '' : String(minutes)}
              onCommit={typed}
            />
          </span>
          minutes
        </span>
        {back && (
          <span className="basis-full text-muted">
            Until a box is saved, a restart brings back what was before.
          </span>
        )}
        {minutes !== null && <Turning steps={steps} window={minutes * 60} />}
      </div>
    </section>
  );
}

function Turning({ steps, window }: { steps: ReturnType<typeof timedSteps>; window: number }) {
  const upTo = mayTurnBack(steps, window);
  const last = steps[upTo - 1];
  const total = steps.at(-1)?.ends ?? 0;
  if (total > window)
    return (
      <strong className="text-stop" role="status">
        It does not fit: {spanText(total - window)} too long.{' '}
        {last ? `You can turn back until step ${upTo}, ${spanText(last.ends)} after the start.` : ''}
      </strong>
    );
  if (upTo === steps.length) return <span role="status">It fits, and so does the whole way back.</span>;
  return (
    <span role="status">
      It fits.{' '}
      {last
        ? `Point of no return: after step ${upTo}, ${spanText(last.ends)} from the start; the way back from there takes ${spanText(last.back)}.`
        : 'There is no time to turn back from any step.'}
    </span>
  );
}
