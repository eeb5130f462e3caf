import { encodePlan } from '@/core/plan';
import { handle, json } from '../../../_lib/handle';
import { type SiteParams, currentPlan } from '../../../_lib/plans';

export const dynamic = 'force-dynamic';

/** The plan with the revision it is. */
export const GET = handle<SiteParams>(async (_request, { site }) => {
  const { revision, plan } = await currentPlan(site);
  return json({ revision, plan: encodePlan(plan) });
});
