'use client';

import { useEffect } from 'react';
import { useSite } from '../session/context';

/** How long the mark stays, in milliseconds. */
const MOMENT = 1600;

/** For a moment, what the last change touched is framed wherever it is in view: each thing that shows records names them. */
export function useChangedMark(): void {
  const outcome = useSite((state) => state.outcome);
  useEffect(() => {
    if (!outcome) return;
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    const marked = 'inset 0 0 0 3px var(--mark)';
    const frames = still
      ? [{ boxShadow: marked }, { boxShadow: marked }]
      : [
          { boxShadow: marked },
          { boxShadow: marked, offset: 0.6 },
          { boxShadow: 'inset 0 0 0 3px transparent' },
        ];
    // What the change itself adds to the page is there after the next frame.
    const frame = requestAnimationFrame(() => {
      for (const id of outcome.touched)
        for (const element of document.querySelectorAll(`[data-record~="${CSS.escape(id)}"]`))
          element.animate(frames, { duration: MOMENT });
    });
    return () => cancelAnimationFrame(frame);
  }, [outcome]);
}
