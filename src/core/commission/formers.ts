import { type Plan, boxOf, derive, presentOf } from '../plan';

/** Boxes that were set up some time ago: what of the plan has changed for them since. */

/** Plans of this site as they were at earlier changes. */
export type Formers = ReadonlyMap<number, Plan>;
export const NO_FORMERS: Formers = new Map();

/** The changes that boxes are recorded to be planned at. */
export const formersOf = derive((plan): readonly number[] => {
  const found = new Set<number>();
  for (const { state, asOf } of plan.present.values())
    if (state === 'as-planned' && asOf !== null) found.add(asOf);
  return [...found].sort((a, b) => a - b);
});

/** The plan of the change that a box is recorded at; undefined where it is recorded otherwise, or nobody knows that change. */
function formerOf(plan: Plan, device: string, formers: Formers): Plan | undefined {
  const { state, asOf } = presentOf(plan, device);
  return state === 'as-planned' && asOf !== null ? formers.get(asOf) : undefined;
}
const isSameBox = (plan: Plan, former: Plan, device: string): boolean =>
  boxOf(former, device)?.model === boxOf(plan, device)?.model;

/** The plan that a box was set up by; null where it is another by now, or nobody knows that plan. */
export function formerBox(plan: Plan, device: string, formers: Formers): Plan | null {
  const former = formerOf(plan, device, formers);
  return former && isSameBox(plan, former, device) ? former : null;
}

/** Is a box set up already, by this plan or an earlier one? One in the place of another is not. */
export function isSetUp(plan: Plan, device: string, formers: Formers): boolean {
  const former = formerOf(plan, device, formers);
  return presentOf(plan, device).state === 'as-planned' && (!former || isSameBox(plan, former, device));
}
