'use client';

import { useLog } from '../session/log-context';

/** Whether what was written is at the server; nothing where it is. */
export function SentLine() {
  const { unsent, away, trouble } = useLog((state) => state);
  if (trouble)
    return (
      <p role="alert" className="border-b-2 border-stop px-3 py-1 text-stop">
        {trouble}
      </p>
    );
  if (unsent === 0 && !away)
    return (
      <p role="status" className="sr-only">
        Everything is sent.
      </p>
    );
  return (
    <p role="status" className="border-b-2 border-ink bg-chosen px-3 py-1">
      {away ? 'No network. Go on: ' : ''}
      {unsent === 0
        ? 'everything is sent so far.'
        : `${unsent} ${unsent === 1 ? 'entry is' : 'entries are'} kept here${away ? ' and sent later' : ', being sent'}.`}
    </p>
  );
}
