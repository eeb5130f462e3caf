'use client';

import { useMemo } from 'react';
import { type Plan, byName } from '@/core/plan';

/** The devices that have an address, by name. */
export function useHostNames(plan: Plan): readonly string[] {
  return useMemo(() => {
    const devices = new Set(
      [...plan.address.values()].map((address) => plan.interface.get(address.interface)!.device),
    );
    return [...devices].map((id) => plan.device.get(id)!.name).sort(byName);
  }, [plan]);
}
