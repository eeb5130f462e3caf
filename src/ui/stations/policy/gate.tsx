import type { Passing } from '@/core/model/policy';

/** A gate in a line: the line goes through, ends at it, or goes through in part. Told apart without colour. */
export function Gate({ decision }: { decision: Passing['decision'] }) {
  return (
    <svg width="40" height="18" viewBox="0 0 40 18" aria-hidden="true" className="shrink-0">
      {decision === 'deny' && <path d="M2 9h14M20 2v14" fill="none" stroke="var(--ink)" strokeWidth="3.4" />}
      {decision === 'allow' && (
        <>
          <path d="M2 9h30" fill="none" stroke="var(--ink)" strokeWidth="3.4" />
          <path d="M30 3l8 6-8 6z" fill="var(--ink)" />
        </>
      )}
      {decision === 'services' && (
        <>
          <path d="M2 9h5M10 9h5M25 9h6" fill="none" stroke="var(--ink)" strokeWidth="3.4" />
          <path d="M20 1v5M20 12v5" fill="none" stroke="var(--ink)" strokeWidth="3.4" />
          <path d="M30 3l8 6-8 6z" fill="var(--ink)" />
        </>
      )}
      {decision === 'wish' && (
        <>
          <path d="M2 5h30" fill="none" stroke="var(--ink)" strokeWidth="2.6" />
          <path d="M2 13h14M20 9v8" fill="none" stroke="var(--ink)" strokeWidth="2.6" />
          <path d="M30 0l7 5-7 5z" fill="var(--ink)" />
        </>
      )}
    </svg>
  );
}

export const decisionWords: Readonly<Record<Passing['decision'], string>> = {
  allow: 'everything passes',
  deny: 'nothing passes',
  services: 'only services pass',
  wish: 'as each segment wishes',
};
