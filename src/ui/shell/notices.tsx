'use client';

import { useEffect } from 'react';
import { Refusal } from '@/core/plan';
import { ApiProblem, Offline } from '../session/api';
import { useNotices } from '../session/notices';

/** Expected trouble: it has words of its own. Anything else is a defect. */
const isPlain = (error: unknown): error is Error =>
  error instanceof Refusal || error instanceof ApiProblem || error instanceof Offline;

/**
 * The one place for refusals that no field shows: whatever is thrown and caught by nobody comes here, so that nothing a user does
 * ends in silence.
 */
export function Notices() {
  const { notices, tell, dismiss } = useNotices();
  useEffect(() => {
    const hear = (error: unknown, event: Event) => {
      if (isPlain(error)) {
        event.preventDefault();
        tell(error.message);
      } else if (error instanceof Error && error.name !== 'AbortError')
        tell(
          `This page made a mistake of its own (${error.name}). What you typed is kept; load the page again.`,
          true,
        );
    };
    const onError = (event: ErrorEvent) => hear(event.error, event);
    const onRejection = (event: PromiseRejectionEvent) => hear(event.reason, event);
    window.addEventListener('error', onError);
    window.addEventListener('unhandledrejection', onRejection);
    return () => {
      window.removeEventListener('error', onError);
      window.removeEventListener('unhandledrejection', onRejection);
    };
  }, [tell]);
  if (notices.length === 0) return null;
  return (
    <section aria-label="Refused" className="no-print border-b-[3px] border-ink bg-sheet px-4 py-1">
      {notices.map(({ id, text, severe }) => (
        <div key={id} role="alert" className="flex flex-wrap items-center gap-x-3 py-1">
          <p className={`border-l-4 px-2 ${severe ? 'border-stop text-stop' : 'border-fix'}`}>{text}</p>
          {severe && (
            <button type="button" className="button" onClick={() => window.location.reload()}>
              Load again
            </button>
          )}
          <button type="button" className="link" onClick={() => dismiss(id)}>
            dismiss
          </button>
        </div>
      ))}
    </section>
  );
}
