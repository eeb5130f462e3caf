'use client';

import { siblingsOf, unlikeInside } from '@/core/edit';
import type { Plan, Device } from '@/core/plan';
import { useSession } from '../../session/context';

const names = (devices: readonly Device[]) => devices.map(({ name }) => name).join(', ');

/** The boxes the same device configures: a change made there reaches all of them, so they are to be alike inside. */
export function Siblings({ plan, device }: { plan: Plan; device: Device }) {
  const session = useSession();
  const siblings = siblingsOf(plan, device);
  if (siblings.length === 0) return null;
  const unlike = unlikeInside(plan, device);
  return (
    <div className="border-b border-rule py-1 text-[14px]" aria-label="Configured together">
      <p>One change reaches {names(siblings)} too.</p>
      {unlike.length > 0 && (
        <button
          type="button"
          className="button mt-1"
          onClick={() => session.perform({ operation: 'likeInside', input: { device: device.id } })}
        >
          Make {names(unlike)} the same inside
        </button>
      )}
    </div>
  );
}
