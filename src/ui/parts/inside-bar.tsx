import type { AddressUse, Layout } from '@/core/model/segments';
import { countOf } from '@/core/address';

/** How much of a subnet each use takes, in order, as one small bar. */
export const fillOf = (use: AddressUse, colour: string): string =>
  ({
    network: 'var(--ink)',
    broadcast: 'var(--ink)',
    gateway: 'var(--hivis)',
    virtual: 'var(--hivis)',
    fixed: 'var(--fixed-cell)',
    reserved: 'var(--fixed-cell)',
    excluded: 'var(--rule)',
    pool: colour,
    free: 'var(--free-cell)',
  })[use];

/** Where each run begins and how wide it is, as shares of the whole. */
function shares(
  layout: Layout,
): { readonly use: AddressUse; readonly from: number; readonly width: number }[] {
  const total = layout.runs.reduce((sum, run) => sum + countOf(run), 0);
  let at = 0;
  return layout.runs.map((run) => {
    const from = at / total;
    at += countOf(run);
    return { use: run.use, from, width: countOf(run) / total };
  });
}

export function InsideBar({ layout, colour, label }: { layout: Layout; colour: string; label: string }) {
  return (
    <svg width="64" height="16" viewBox="0 0 64 16" role="img" aria-label={label}>
      <rect
        x="0.75"
        y="0.75"
        width="62.5"
        height="14.5"
        fill="var(--free-cell)"
        stroke="var(--ink)"
        strokeWidth="1.5"
      />
      {shares(layout)
        .filter((run) => run.use !== 'free')
        .map((run) => (
          <rect
            key={run.from}
            x={2 + run.from * 60}
            y="2"
            width={Math.max(0.7, run.width * 60)}
            height="12"
            fill={fillOf(run.use, colour)}
          />
        ))}
    </svg>
  );
}
