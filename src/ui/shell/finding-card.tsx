'use client';

import { useState } from 'react';
import type { Remedy } from '@/core/findings/finding';
import { describeChange } from '@/core/plan/describe';
import { attempt, problemOf } from '../session/attempt';
import { authorName } from '../session/author';
import { usePlan, useSession } from '../session/context';
import type { JudgedFinding } from '../session/open-findings';
import { useView } from '../session/view';
import { SeverityMark } from '../parts/marks';
import { Problem } from '../parts/problem';

const SHOWN_LINES = 5;

/** One finding: evidence, remedies (previewed when pointed at, taken with one click), or acceptance with a reason. */
export function FindingCard({
  finding,
  current,
  onGo,
}: {
  finding: JudgedFinding;
  current: boolean;
  onGo: () => void;
}) {
  const session = useSession();
  const [problem, setProblem] = useState('');
  const [previewed, setPreviewed] = useState<Remedy | null>(null);
  const [accepting, setAccepting] = useState(false);

  const take = (remedy: Remedy) => {
    setProblem(problemOf(() => session.perform(remedy)));
  };
  const accepted = finding.accepted;
  return (
    <article
      data-finding={finding.key}
      aria-label={finding.what}
      className={`flex gap-2 border-b border-rule py-2 ${current ? 'bg-chosen outline-2 outline-ink' : ''}`}
    >
      <SeverityMark severity={finding.severity} />
      <div className="min-w-0 flex-1">
        <button type="button" className="text-left font-bold hover:underline" onClick={onGo}>
          {finding.what}
        </button>
        <p className="text-[14px] text-muted">{finding.because}</p>
        {accepted ? (
          <p className="text-[14px]">
            Accepted by {accepted.who}: {accepted.reason}{' '}
            <button
              type="button"
              className="link"
              onClick={() => session.perform({ operation: 'withdrawAcceptance', input: { id: accepted.id } })}
            >
              Withdraw
            </button>
          </p>
        ) : (
          <div className="flex flex-wrap gap-2 pt-1">
            {finding.remedies.map((remedy, i) => (
              <button
                key={remedy.label}
                type="button"
                className={`button text-left text-[14px] ${i === 0 ? 'button-primary' : ''}`}
                onClick={() => take(remedy)}
                onMouseEnter={() => setPreviewed(remedy)}
                onMouseLeave={() => setPreviewed(null)}
                onFocus={() => setPreviewed(remedy)}
                onBlur={() => setPreviewed(null)}
              >
                {remedy.label}
              </button>
            ))}
            <button
              type="button"
              className="button text-[14px]"
              aria-expanded={accepting}
              onClick={() => setAccepting(!accepting)}
            >
              Accept…
            </button>
          </div>
        )}
        {/* Over what follows, so that nothing moves away from under the pointer. */}
        {previewed && (
          <div className="relative">
            <Preview remedy={previewed} />
          </div>
        )}
        <Problem text={problem} className="text-[14px]" />
        {accepting && !accepted && <AcceptForm finding={finding} onDone={() => setAccepting(false)} />}
      </div>
    </article>
  );
}

function Preview({ remedy }: { remedy: Remedy }) {
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
      className="absolute inset-x-0 top-1 z-20 border-2 border-l-4 border-ink bg-sheet px-2 py-1 text-[13px]"
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

function AcceptForm({ finding, onDone }: { finding: JudgedFinding; onDone: () => void }) {
  const session = useSession();
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState('');
  const accept = () => {
    const { key: id, what, because } = finding;
    const at = new Date().toISOString();
    const input = { finding: id, what, evidence: because, reason, who: authorName(), at };
    const message = problemOf(() => session.perform({ operation: 'acceptFinding', input }));
    setProblem(message);
    if (!message) onDone();
  };
  return (
    <form
      className="flex flex-wrap items-end gap-2 pt-2"
      onSubmit={(event) => {
        event.preventDefault();
        accept();
      }}
    >
      <label className="min-w-0 flex-1 text-[14px]">
        Why is this all right here?
        <input
          autoFocus
          className="field field-line"
          value={reason}
          aria-invalid={problem !== ''}
          onChange={(event) => setReason(event.target.value)}
          onKeyDown={(event) => event.key === 'Escape' && onDone()}
        />
      </label>
      <button type="submit" className="button button-primary">
        Accept
      </button>
      {problem && (
        <p role="alert" className="text-[13px] text-stop">
          {problem}
        </p>
      )}
    </form>
  );
}
