'use client';

import { useEffect, useState } from 'react';
import { create } from 'zustand';
import {
  type BenchBox,
  type BenchView,
  type WireBenchAction,
  laptopTyped,
  socketTitle,
} from '@/core/commission';
import type { Plan } from '@/core/plan';
import { useJob } from '../../session/job';
import { Choice } from '../../parts/choice';
import { counted } from '../../parts/counted';
import { Field } from '../../parts/field';
import { FormersAwaited } from '../../parts/formers-awaited';
import { ProgressLine } from '../../parts/progress-line';
import { PracticeBox } from './practice-box';

/** What somebody did to the pretend boxes of a plan; another plan has other boxes. */
const useDone = create<{ readonly plan: Plan | null; readonly actions: readonly WireBenchAction[] }>(() => ({
  plan: null,
  actions: [],
}));
const NONE: readonly WireBenchAction[] = [];

/** Pretend boxes: they take settings, forget what was not saved, and cut off whoever deserves it. */
export function PracticeView({ plan }: { plan: Plan }) {
  const actions = useDone((state) => (state.plan === plan ? state.actions : NONE));
  const { start, running, result, problem } = useJob();
  useEffect(() => start({ kind: 'bench', actions }, true), [start, actions]);
  const act = (more: readonly WireBenchAction[]) =>
    useDone.setState({ plan, actions: [...actions, ...more] });
  const view = result?.kind === 'bench' ? result.view : null;
  if (problem) return <FormersAwaited problem={problem} />;
  if (!view)
    return (
      <p role="status">
        <ProgressLine label="The boxes start" progress={running ?? { done: 0, of: 0 }} atMost />
      </p>
    );
  if (view.boxes.length === 0) return <p>There is no box on this site that can be set up.</p>;
  return (
    <Bench
      plan={plan}
      view={view}
      busy={running !== null}
      onDo={act}
      onAnew={() => useDone.setState({ plan, actions: NONE })}
    />
  );
}

interface Props {
  readonly plan: Plan;
  readonly view: BenchView;
  readonly busy: boolean;
  readonly onDo: (actions: readonly WireBenchAction[]) => void;
  readonly onAnew: () => void;
}

function Bench({ plan, view, busy, onDo, onAnew }: Props) {
  const { next, boxes, finished } = view;
  const [chosen, setChosen] = useState<string | null>(null);
  const box = boxes.find(({ device }) => device === chosen) ?? boxes[0]!;
  const nameOf = (device: string) => plan.device.get(device)!.name;
  return (
    <>
      <p className="max-w-[760px] pb-2 text-[14px]">
        Nothing here touches a real box or the plan. Do what the order says, or anything else, and see whether
        you still get in.
      </p>
      <Laptop plan={plan} view={view} onDo={onDo} />
      <div className="flex flex-wrap items-center gap-2 py-2">
        {next && (
          <button
            type="button"
            className="button button-primary max-[699px]:min-h-touch"
            disabled={busy}
            onClick={() => onDo(next.actions)}
          >
            Next by the order: {next.says}
          </button>
        )}
        <button type="button" className="button max-[699px]:min-h-touch" onClick={onAnew}>
          Begin anew
        </button>
      </div>
      <div role="status" className="min-h-6" aria-busy={busy}>
        {finished && <strong>All boxes are as planned and saved.</strong>}
        {!finished && !next && <strong>Nothing is left to set.</strong>}
        {view.cut.length > 0 && (
          <strong className="text-stop">
            You cut yourself off: {view.cut.map(nameOf).join(', ')} no longer answer here.
          </strong>
        )}
        {view.refused !== '' && <span className="border-l-4 border-stop pl-2">{view.refused}</span>}
      </div>
      <div className="flex gap-4 pt-1 max-[899px]:block">
        <ul aria-label="Pretend boxes" className="w-[300px] shrink-0 max-[899px]:w-auto">
          {boxes.map((one) => (
            <li key={one.device}>
              <button
                type="button"
                aria-pressed={one.device === box.device}
                className={`flex min-h-9 w-full items-center gap-2 border-b border-rule px-1 text-left max-[699px]:min-h-touch ${one.device === box.device ? 'bg-chosen' : ''}`}
                onClick={() => setChosen(one.device)}
              >
                <span
                  aria-hidden
                  className={`h-3 w-3 shrink-0 border-2 border-ink ${one.shut === '' ? 'bg-hivis' : 'bg-sheet'}`}
                />
                <span className="mono min-w-0 flex-1 truncate font-bold">{nameOf(one.device)}</span>
                <span className="text-[13px] text-muted">{stateText(one)}</span>
              </button>
            </li>
          ))}
        </ul>
        <PracticeBox plan={plan} box={box} busy={busy} onDo={onDo} />
      </div>
    </>
  );
}

const stateText = ({ shut, left, unsaved, apart }: BenchBox): string =>
  [
    shut === '' ? 'answers' : 'no answer',
    left.length > 0 ? counted(left.length, 'setting') : 'as planned',
    unsaved ? 'not saved' : '',
    apart ? 'apart' : '',
  ]
    .filter(Boolean)
    .join(', ');

/** Where the laptop is plugged in, and what address it has. */
function Laptop({ plan, view, onDo }: Pick<Props, 'plan' | 'view' | 'onDo'>) {
  const { seat, sockets, laptop } = view;
  const all = seat !== null && !sockets.includes(seat) ? [seat, ...sockets] : sockets;
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <span>The laptop is at</span>
      <span className="w-[170px] border-b border-ink">
        <Choice
          label="Socket of the laptop"
          value={seat}
          placeholder="nowhere"
          options={all.map((id) => ({ value: id, label: socketTitle(plan, id) }))}
          onChoose={(socket) => onDo([{ kind: 'sit', socket }])}
        />
      </span>
      <span>with</span>
      <span className="w-[280px] border-b border-ink">
        <Field
          label="Address of the laptop"
          mono
          placeholder="the address it is given"
          value={laptop}
          onCommit={(text) => onDo([laptopTyped(text)])}
        />
      </span>
    </div>
  );
}
