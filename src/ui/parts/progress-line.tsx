'use client';

import { Progress as Radix } from 'radix-ui';
import type { Progress } from '@/core/plan';

/** How far long work has come, as a bar and in figures; `atMost` where it may end sooner. */
export function ProgressLine({
  label,
  progress: { done, of },
  atMost = false,
}: {
  label: string;
  progress: Progress;
  atMost?: boolean;
}) {
  const known = of > 0;
  return (
    <span className="inline-flex items-center gap-3">
      <Radix.Root
        aria-label={label}
        max={known ? of : 1}
        value={known ? done : null}
        className="h-3 w-[180px] border border-ink"
      >
        <Radix.Indicator
          className="block h-full bg-ink"
          style={{ width: `${known ? (100 * done) / of : 0}%` }}
        />
      </Radix.Root>
      <span className="mono text-[13px]">
        {done} of {atMost && 'at most '}
        {known ? of : '…'}
      </span>
    </span>
  );
}
