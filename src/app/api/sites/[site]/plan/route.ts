import { routes } from '@/contract';
import { encodePlan } from '@/core/plan';
import { serve } from '../../../_lib/serve';
import { newestPlan } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

/** The plan with the revision it is. */
export const GET = serve(routes.sites.plan, async ({ site }) => {
  const { revision, plan } = await newestPlan(site);
  return { revision, plan: encodePlan(plan) as Record<string, Record<string, unknown>[]> };
});
