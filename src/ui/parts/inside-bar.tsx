import type { AddressUse, Layout } from '@/core/segments/layout';
import { countOf } from '@/core/address/range';

/** How much of a subnet each use takes, in order, as one small bar. */
export const useFill = (use: AddressUse, colour: string): string =>
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

export function InsideBar({ layout, colour, label }: { layout: Layout; colour: string; label: string }) {
  const total = layout.runs.reduce((sum, run) => sum + countOf(run), 0);
  let at = 0;
  return (
    <svg width="64" height="16" viewBox="0 0 64 16" role="img" aria-label={label}>
      <rect x="0.75" y="0.75" width="62.5" height="14.5" fill="var(--free-cell)" stroke="var(--ink)" strokeWidth="1.5" />
      {layout.runs.map((run, i) => {
        const x = 2 + (at / total) * 60;
        const width = Math.max(run.use === 'free' ? 0 : 0.7, (countOf(run) / total) * 60);
        at += countOf(run);
        return run.use === 'free' ? null : <rect key={i} x={x} y="2" width={width} height="12" fill={useFill(run.use, colour)} />;
      })}
    </svg>
  );
}
