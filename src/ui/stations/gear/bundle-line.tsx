'use client';

import type { Plan } from '@/core/plan';
import { useEdit } from '../../session/actions';
import { useSession } from '../../session/context';
import { Toggle } from '../../parts/tick';

/** What there is to say of the bundle a port is in. */
export function BundleLine({ plan, lag: id }: { plan: Plan; lag: string }) {
  const edit = useEdit();
  const session = useSession();
  const { name, lacp } = plan.lag.get(id)!;
  return (
    <div role="group" aria-label={`Bundle ${name}`} className="pt-2">
      <Toggle
        label={`${name} is made by LACP`}
        checked={lacp}
        onChange={(on) => edit('lag', id, 'lacp', on, lacp)}
      />
      <button
        type="button"
        className="button"
        onClick={() => session.perform({ operation: 'unbundle', input: { lag: id } })}
      >
        Take the bundle apart
      </button>
    </div>
  );
}
