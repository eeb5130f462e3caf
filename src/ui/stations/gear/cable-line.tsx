'use client';

import { type FormEvent, useState } from 'react';
import { typedCables } from '@/core/edit';
import type { Call } from '@/core/plan';
import { problemOf } from '../../session/attempt';
import { usePlan, useSession } from '../../session/context';

/** Cables typed one after the other: SW-A 25 = SW-B 9, Enter. Esc closes the line. */
export function CableLine({ onClose }: { onClose: () => void }) {
  const plan = usePlan();
  const session = useSession();
  const [line, setLine] = useState('');
  const [problem, setProblem] = useState('');
  const [laid, setLaid] = useState('');
  const lay = (event: FormEvent) => {
    event.preventDefault();
    let label = '';
    const found = problemOf(() => {
      const [first, ...others] = typedCables(plan, line);
      const calls = [first!, ...others].map((input): Call => ({ operation: 'connect', input }));
      const all = { label: `${calls.length} cables: ${line.trim()}`, calls };
      label = session.perform(others.length === 0 ? calls[0]! : { operation: 'several', input: all }).label;
    });
    setProblem(found);
    if (found) return;
    setLaid(label);
    setLine('');
  };
  return (
    <form
      onSubmit={lay}
      className="mb-3 border-2 border-ink p-2"
      onKeyDown={(event) => {
        if (event.key === 'Escape') onClose();
      }}
    >
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex min-w-60 flex-1 items-center gap-2">
          <span className="font-bold">Cable</span>
          <input
            className="field field-line mono"
            placeholder="sw-a 25 = sw-b 9"
            value={line}
            autoFocus
            autoComplete="off"
            spellCheck={false}
            onChange={(event) => setLine(event.target.value)}
          />
        </label>
        <button type="submit" className="button button-primary" disabled={line.trim() === ''}>
          Lay it
        </button>
        <button type="button" className="button" onClick={onClose}>
          Close <span className="key">Esc</span>
        </button>
      </div>
      {problem ? (
        <p role="alert" className="mt-1 border-l-4 border-stop px-2 text-stop">
          {problem}
        </p>
      ) : (
        <p role="status" className="min-h-5 text-[14px] text-muted">
          {laid
            ? `Laid: ${laid}`
            : 'A panel’s port may be followed by front or rear; a camera or computer needs no number. Several at once: sw-a 1-12 = phone-01..12.'}
        </p>
      )}
    </form>
  );
}
