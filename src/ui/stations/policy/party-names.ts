'use client';

import { useMemo } from 'react';
import { type Plan, vlansOf } from '@/core/plan';
import { deviceTyped } from '@/core/model/hosts';
import { allServices, partyTyped, zonesOf } from '@/core/model/policy';

/** What a rule may be from or to: zones, segments and devices, by name. */
export const usePartyNames = (plan: Plan): readonly string[] =>
  useMemo(
    () => [
      ...new Set([
        ...zonesOf(plan).map(({ id }) => partyTyped(plan, { zone: id })),
        ...vlansOf(plan).map(({ id }) => partyTyped(plan, { vlan: id })),
        ...[...plan.device.values()].map((device) => deviceTyped(plan, device)),
      ]),
    ],
    [plan],
  );

/** Services by name. */
export const useServiceNames = (plan: Plan): readonly string[] =>
  useMemo(() => allServices(plan).map(({ name }) => name), [plan]);
