'use client';

import { type ComponentProps, useMemo } from 'react';
import type { Plan } from '@/core/plan';
import { suggestedEnds } from '@/core/rehearse';
import { TypedLine } from '../../parts/typed-line';

/** A line to type an end into: a port, a device, an address, a segment, a zone. */
export function EndLine({ plan, ...line }: { plan: Plan } & Omit<ComponentProps<typeof TypedLine>, 'known'>) {
  const { value } = line;
  const known = useMemo(() => suggestedEnds(plan, value), [plan, value]);
  return <TypedLine {...line} known={known} />;
}
