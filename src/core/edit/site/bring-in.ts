import * as z from 'zod';
import { operation, planOfLists, stepsBetween } from '../../plan';

/** The plan of a file in place of the one there is, record by record. Refused where the lists make no plan. */
export const bringInPlan = operation(
  'bringInPlan',
  z.strictObject({ file: z.string().trim().min(1).max(200), plan: z.unknown() }),
  (draft, { file, plan }) => {
    draft.putAll(stepsBetween(draft.plan, planOfLists(plan)));
    return `Plan file ${file} brought in`;
  },
);
