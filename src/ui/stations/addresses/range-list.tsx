import { formatAddress, countOf } from '@/core/address';
import type { Vlan } from '@/core/plan';
import type { Layout } from '@/core/model/segments';
import { fillOf } from '../../parts/inside-bar';
import { countText } from '../../parts/count-text';

const SHOWN = 400;

/** A subnet too large for cells: its runs of equal use, in order. */
export function RangeList({ layout, vlan }: { layout: Layout; vlan: Vlan }) {
  return (
    <div
      className="max-h-[300px] overflow-y-auto border-2 border-ink"
      tabIndex={0}
      role="region"
      aria-label="Ranges"
    >
      <ul>
        {layout.runs.slice(0, SHOWN).map((run) => (
          <li
            key={String(run.start)}
            className="mono flex items-center gap-3 border-b border-rule px-2 text-[14px]"
          >
            <span
              className="inline-block h-4 w-6 border border-ink"
              style={{ background: fillOf(run.use, vlan.colour) }}
            />
            <span className="flex-1">
              {formatAddress(run.start)}
              {run.end !== run.start && ` – ${formatAddress(run.end)}`}
            </span>
            <span>{countText(countOf(run))}</span>
            <span className="w-24">{run.use}</span>
          </li>
        ))}
      </ul>
      {layout.runs.length > SHOWN && <p className="px-2">and {layout.runs.length - SHOWN} more runs</p>}
    </div>
  );
}
