'use client';

import type { Plan } from '@/core/plan';
import { type Fault, faultKey, faultTitle } from '@/core/rehearse';

/** What is tried out of order, each with the way to put it right again. */
export function TriedFaults({
  plan,
  faults,
  onChange,
}: {
  plan: Plan;
  faults: readonly Fault[];
  onChange: (faults: readonly Fault[]) => void;
}) {
  if (faults.length === 0) return null;
  return (
    <ul className="flex flex-wrap gap-2" aria-label="Faults tried">
      {faults.map((fault) => (
        <li key={faultKey(fault)} className="flex items-center gap-2 border-2 border-stop bg-sheet px-2">
          {faultTitle(plan, fault)}
          <button
            type="button"
            className="link"
            aria-label={`undo ${faultTitle(plan, fault)}`}
            onClick={() => onChange(faults.filter((other) => other !== fault))}
          >
            undo
          </button>
        </li>
      ))}
    </ul>
  );
}
