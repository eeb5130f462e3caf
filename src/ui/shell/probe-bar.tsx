'use client';

import { type RefObject, useId, useMemo } from 'react';
import {
  type Answer,
  probe,
  type PacketStep,
  suggestedEnds,
  suggestedServices,
  typedReceiver,
  typedSender,
  typedWanted,
} from '@/core/rehearse';
import type { Plan } from '@/core/plan';
import { attempt } from '../session/attempt';
import { usePlan } from '../session/context';
import { type ProbeText, useView } from '../session/view';
import { Problem } from '../parts/problem';
import { today } from '@/today';
import { WorksMark } from '../parts/works-mark';
import { Remedies } from './remedies';
import { useGoToRecord } from './findings-panel';

/** The answer to what is typed; nothing while nothing is, a refusal while it cannot be read. */
export function useAnswer(plan: Plan, text: ProbeText) {
  return useMemo(() => {
    if (text.from.trim() === '' || text.to.trim() === '') return null;
    return attempt(() =>
      probe(
        plan,
        {
          from: typedSender(plan, text.from),
          to: typedReceiver(plan, text.to),
          wanted: typedWanted(plan, text.service),
        },
        today(),
      ),
    );
  }, [plan, text]);
}

/** Always there: from, to and for what; the answer is worked out again at every change of the plan. */
export function ProbeBar({ fromRef }: { fromRef?: RefObject<HTMLInputElement | null> }) {
  const plan = usePlan();
  const { probe: text, probeOpen, set } = useView();
  const services = useMemo(() => suggestedServices(plan), [plan]);
  const answer = useAnswer(plan, text);
  const type = (field: keyof ProbeText) => (value: string) => set({ probe: { ...text, [field]: value } });
  const found = answer && 'value' in answer ? answer.value : null;
  return (
    <section aria-label="Probe" className="no-print border-t-[3px] border-ink bg-paper">
      <form
        className="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 py-1.5"
        onSubmit={(event) => event.preventDefault()}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && event.target instanceof HTMLInputElement) set({ probeOpen: true });
          if (event.key === 'Escape') set({ probeOpen: false });
        }}
      >
        <h2 className="tape text-[13px]">Probe</h2>
        <End
          label="from"
          value={text.from}
          known={suggestedEnds(plan, text.from)}
          onType={type('from')}
          inputRef={fromRef}
          hint="sw-a 7"
        />
        <End
          label="to"
          value={text.to}
          known={suggestedEnds(plan, text.to)}
          onType={type('to')}
          hint="internet"
        />
        <End label="for" value={text.service} known={services} onType={type('service')} hint="ping" narrow />
        <div className="flex min-w-[220px] flex-1 basis-[260px] items-center gap-2" aria-live="polite">
          {!answer && (
            <p className="text-muted">
              Name two ends: a port, a device, an address, a segment, a VPN, internet.
            </p>
          )}
          {answer && 'refusal' in answer && <Problem text={answer.refusal.message} className="text-[14px]" />}
          {found && (
            <>
              <WorksMark works={found.works} />
              <p className={`min-w-0 ${probeOpen ? '' : 'line-clamp-2'}`}>
                {found.summary}
                {found.caution !== null && <span className="text-muted">. {found.caution}</span>}
              </p>
            </>
          )}
        </div>
        {found && (
          <button
            type="button"
            className="button"
            aria-expanded={probeOpen}
            onClick={() => set({ probeOpen: !probeOpen })}
          >
            {probeOpen ? 'Hide the way' : 'Show the way'}
          </button>
        )}
      </form>
      {found && probeOpen && <Ways answer={found} />}
    </section>
  );
}

function End({
  label,
  value,
  known,
  hint,
  narrow = false,
  onType,
  inputRef,
}: {
  label: string;
  value: string;
  known: readonly string[];
  hint: string;
  narrow?: boolean;
  onType: (value: string) => void;
  inputRef?: RefObject<HTMLInputElement | null>;
}) {
  const list = useId();
  return (
    <label className="flex items-center gap-1.5 text-[14px] max-[699px]:w-full">
      <span className="max-[699px]:w-10">{label}</span>
      <input
        ref={inputRef}
        className={`field field-line mono max-[699px]:min-h-touch max-[699px]:flex-1 ${narrow ? 'w-[118px]' : 'w-[150px]'}`}
        value={value}
        list={list}
        placeholder={hint}
        autoComplete="off"
        spellCheck={false}
        onChange={(event) => onType(event.target.value)}
      />
      <datalist id={list}>
        {known.map((item) => (
          <option key={item} value={item} />
        ))}
      </datalist>
    </label>
  );
}

/** The hops forth and back, and what would let a stopped one through. */
function Ways({ answer }: { answer: Answer }) {
  return (
    <div className="max-h-[38vh] max-[699px]:max-h-none overflow-y-auto border-t border-rule bg-sheet px-3 py-2">
      {answer.remedies.length > 0 && (
        <div className="pb-2">
          <h3 className="font-bold">What would let it through</h3>
          <Remedies remedies={answer.remedies} />
        </div>
      )}
      <div className="grid gap-x-6 gap-y-2 min-[900px]:grid-cols-2">
        <PacketWay title="Forth" steps={answer.forth} />
        {answer.back.length > 0 && <PacketWay title="And back" steps={answer.back} />}
      </div>
    </div>
  );
}

const marks = { passes: '', stops: 'border-stop bg-chosen font-bold', assumed: 'border-fix border-dashed' };

export function PacketWay({ title, steps }: { title: string; steps: readonly PacketStep[] }) {
  const go = useGoToRecord();
  return (
    <section aria-label={title}>
      <h3 className="border-b-2 border-ink font-bold">{title}</h3>
      <ol>
        {steps.map((step, i) => (
          <li
            key={i}
            className={`grid grid-cols-[24px_minmax(84px,120px)_1fr] items-baseline gap-x-2 border-b border-l-4 border-rule py-0.5 pl-1 text-[14px] ${marks[step.result] || 'border-l-transparent'}`}
          >
            <span className="mono text-[12px] text-muted">{i + 1}</span>
            {step.on ? (
              <button
                type="button"
                className="min-h-[26px] max-[699px]:min-h-touch truncate text-left font-bold hover:underline"
                onClick={() => go(step.on!)}
              >
                {step.what}
              </button>
            ) : (
              <b className="truncate">{step.what}</b>
            )}
            <span className="flex flex-wrap items-baseline gap-x-3">
              <span>
                {step.result === 'stops' && 'stopped: '}
                {step.decision}
              </span>
              {(step.came || step.left) && (
                <span className="mono text-[12px] text-muted">
                  {[step.came, step.left].filter(Boolean).join('  →  ')}
                </span>
              )}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
