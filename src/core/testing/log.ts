import { type WireSetting, encodeSetting, orderOf, plannedState, presentState } from '../commission';
import type { Plan } from '../plan';

/** All steps of the order of a site, in wire form. */
export const leftAtFirst = (plan: Plan): WireSetting[] =>
  orderOf(presentState(plan), plannedState(plan)).entries.flatMap((entry) =>
    entry.kind === 'step' ? [encodeSetting(entry.step)] : [],
  );
