'use client';

import { useMemo } from 'react';
import { type Plan, vlansOf } from '@/core/plan';
import { allServices, zonesOf } from '@/core/model/policy';

/** What a rule may be from or to: zones, segments and devices, by name. */
export const usePartyNames = (plan: Plan): readonly string[] =>
  useMemo(
    () => [...new Set([...zonesOf(plan), ...vlansOf(plan), ...plan.device.values()].map(({ name }) => name))],
    [plan],
  );

/** Services by name. */
export const useServiceNames = (plan: Plan): readonly string[] =>
  useMemo(() => allServices(plan).map(({ name }) => name), [plan]);
