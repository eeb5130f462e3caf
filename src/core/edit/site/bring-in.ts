import * as z from 'zod';
import { type Plan, operation, planOfLists, stepsBetween, withRecord } from '../../plan';

/** What a file says of a change of this site counts where this site says the same: it may be the file of another. */
function ofThisSite(here: Plan, plan: Plan): Plan {
  let made = plan;
  for (const present of plan.present.values())
    if (present.asOf !== null && here.present.get(present.id)?.asOf !== present.asOf)
      made = withRecord(made, 'present', present.id, { ...present, asOf: null });
  return made;
}

/** The plan of a file in place of the one there is, record by record. Refused where the lists make no plan. */
export const bringInPlan = operation(
  'bringInPlan',
  z.strictObject({ file: z.string().trim().min(1).max(200), plan: z.unknown() }),
  (draft, { file, plan }) => {
    draft.putAll(stepsBetween(draft.plan, ofThisSite(draft.plan, planOfLists(plan))));
    return `Plan file ${file} brought in`;
  },
);
