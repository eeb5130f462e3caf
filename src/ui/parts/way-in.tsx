import { wayInto } from '@/core/commission';
import type { Plan } from '@/core/plan';
import { Fold } from './fold';

/** What is known of getting into a box, in front of it. */
export function WayInto({ plan, device }: { plan: Plan; device: string }) {
  const lines = wayInto(plan, device);
  if (lines.length === 0) return null;
  const { name } = plan.device.get(device)!;
  const told = lines.map(({ what, value }) => `${what.toLowerCase()}: ${value}`).join('; ');
  return (
    <Fold id="run-way-in" title={`Getting into ${name}`} told={told}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 text-[14px]">
        {lines.map(({ what, value }) => (
          <div key={what} className="contents">
            <dt className="text-muted">{what}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
    </Fold>
  );
}
