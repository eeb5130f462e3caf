'use client';

import type { ReactNode } from 'react';
import { useSite } from '../session/context';

/** What shows a plan, once it is there; until then how far it is, or why there is none. */
export function Loaded({ children }: { children: ReactNode }) {
  const { status, problem } = useSite((state) => state);
  if (status === 'ready') return children;
  return (
    <main className="p-6">
      {status === 'loading' ? (
        <p role="status">Loading the plan…</p>
      ) : (
        <>
          <p role="alert" className="border-l-4 border-stop px-3 font-bold">
            {problem}
          </p>
          <p className="pt-3">
            <a className="link" href="/">
              All sites
            </a>
          </p>
        </>
      )}
    </main>
  );
}
