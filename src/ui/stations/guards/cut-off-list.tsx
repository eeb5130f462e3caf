'use client';

import type { Plan } from '@/core/plan';
import { cutOffBy } from '@/core/rehearse';

/** So many names stand in one line; of more, their number does. */
const NAMED = 8;

/** Whom the guards of boxes keep from the network, by name, and by what. */
export function CutOffList({ plan, devices }: { plan: Plan; devices: readonly string[] }) {
  const cut = cutOffBy(plan, devices);
  if (cut.length === 0)
    return (
      <p role="status" className="py-2">
        Nobody who belongs there is cut off.
      </p>
    );
  const names = [...new Set(cut.map(({ device }) => plan.device.get(device)!.name))];
  const causes = new Map<string, string[]>();
  for (const { device, says, why } of cut) {
    const cause = `${says}: ${why}`;
    causes.set(cause, [...(causes.get(cause) ?? []), plan.device.get(device)!.name]);
  }
  return (
    <div role="status" className="py-2">
      <p className="font-bold text-stop">
        Cut off: {names.length <= NAMED ? names.join(', ') : `${names.length} devices`}
      </p>
      <ul tabIndex={0} aria-label="Who is cut off" className="max-h-[220px] overflow-y-auto text-[14px]">
        {[...causes].map(([cause, who]) => (
          <li key={cause} className="border-b border-l-4 border-rule border-l-stop pl-2">
            <span className="mono">{who.join(', ')}</span>, {cause}
          </li>
        ))}
      </ul>
    </div>
  );
}
