'use client';

import { type ReactNode, useState } from 'react';
import { type Remedy, describeChange } from '@/core/plan';
import { attempt, problemOf } from '../session/attempt';
import { usePlan, useSession } from '../session/context';
import { useView } from '../session/view';
import { Problem } from '../parts/problem';

const SHOWN_LINES = 5;

/** What would mend something: previewed when pointed at, taken with one click. */
export function Remedies({
  remedies,
  above = false,
  children,
}: {
  remedies: readonly Remedy[];
  /** Show the preview over the buttons, where there is no room below. */
  above?: boolean;
  children?: ReactNode;
}) {
  const session = useSession();
  const [problem, setProblem] = useState('');
  const [previewed, setPreviewed] = useState<Remedy | null>(null);
  return (
    <>
      <div className="flex flex-wrap gap-2 pt-1">
        {remedies.map((remedy, i) => (
          <button
            key={remedy.label}
            type="button"
            className={`button text-left text-[14px] ${i === 0 ? 'button-primary' : ''}`}
            onClick={() => setProblem(problemOf(() => session.perform(remedy)))}
            onMouseEnter={() => setPreviewed(remedy)}
            onMouseLeave={() => setPreviewed(null)}
            onFocus={() => setPreviewed(remedy)}
            onBlur={() => setPreviewed(null)}
          >
            {remedy.label}
          </button>
        ))}
        {children}
      </div>
      {/* Over what follows, so that nothing moves away from under the pointer. */}
      {previewed && (
        <div className="relative">
          <Preview remedy={previewed} above={above} />
        </div>
      )}
      <Problem text={problem} className="text-[14px]" />
    </>
  );
}

function Preview({ remedy, above }: { remedy: Remedy; above: boolean }) {
  const plan = usePlan();
  const session = useSession();
  const set = useView((state) => state.set);
  const previewed = attempt(() => session.preview(remedy));
  const lines =
    'refusal' in previewed
      ? [previewed.refusal.message]
      : describeChange(plan, previewed.value).map((line) =>
          line.kind === 'changed'
            ? `${line.what}: ${line.field} ${line.before} → ${line.after}`
            : `${line.what} ${line.kind}`,
        );
  return (
    <div
      className={`absolute inset-x-0 z-20 border-2 border-l-4 border-ink bg-sheet px-2 py-1 text-[13px] ${above ? 'bottom-10' : 'top-1'}`}
      aria-live="polite"
    >
      {lines.slice(0, SHOWN_LINES).map((line, i) => (
        <p key={i}>{line}</p>
      ))}
      {lines.length > SHOWN_LINES && (
        <button
          type="button"
          className="link"
          onMouseDown={() => set({ review: { title: 'Remedy', call: remedy, accept: remedy.label } })}
        >
          and {lines.length - SHOWN_LINES} more
        </button>
      )}
    </div>
  );
}
