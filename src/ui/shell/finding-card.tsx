'use client';

import { useState } from 'react';
import { problemOf } from '../session/attempt';
import { focusStation } from '../parts/focus';
import { authorName } from '../session/author';
import { useSession } from '../session/context';
import type { JudgedFinding } from '../session/open-findings';
import { SeverityMark } from '../parts/marks';
import { Remedies } from './remedies';

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
  const [accepting, setAccepting] = useState(false);
  const accepted = finding.accepted;
  return (
    <article
      data-finding={finding.key}
      aria-label={finding.what}
      className={`flex gap-2 border-b border-rule py-2 ${current ? 'bg-chosen outline-2 outline-ink' : ''}`}
    >
      <span className="max-[699px]:pt-[14px]">
        <SeverityMark severity={finding.severity} />
      </span>
      <div className="min-w-0 flex-1">
        <button
          type="button"
          className="text-left font-bold max-[699px]:min-h-touch hover:underline"
          onClick={onGo}
        >
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
          <Remedies remedies={finding.remedies}>
            <button
              type="button"
              className="button text-[14px]"
              aria-expanded={accepting}
              onClick={() => setAccepting(!accepting)}
            >
              Accept…
            </button>
          </Remedies>
        )}
        {accepting && !accepted && <AcceptForm finding={finding} onDone={() => setAccepting(false)} />}
      </div>
    </article>
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
    if (message) return;
    onDone();
    focusStation();
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
