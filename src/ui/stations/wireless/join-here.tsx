'use client';

import { useMemo } from 'react';
import type { Plan } from '@/core/plan';
import { plugIn } from '@/core/rehearse';
import { today } from '@/today';
import { WorksMark } from '../../parts/works-mark';

/** What somebody finds who joins a network at an access point. */
export function JoinHere({ plan, ssid, at }: { plan: Plan; ssid: string; at: string }) {
  const { works, sentence } = useMemo(() => plugIn(plan, { ssid, at }, today()), [plan, ssid, at]);
  return (
    <p className="flex items-start gap-2 border-b border-rule py-1 text-[14px]">
      <span className="pt-0.5">
        <WorksMark works={works} />
      </span>
      <span>
        <b>
          Join {plan.ssid.get(ssid)!.name} at {plan.device.get(at)!.name} and
        </b>{' '}
        {sentence}.
      </span>
    </p>
  );
}
