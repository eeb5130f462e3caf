import { routes } from '@/contract';
import { encodeStep } from '@/core/plan';
import { stepsBack } from '@/db/journal';
import { application } from '@/server/application';
import { Problem } from '@/server/problems';
import { serve } from '../../../_lib/serve';
import { newestPlan } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

/** The steps that lead from the newest plan back to an earlier revision. */
export const GET = serve(routes.journal.back, async ({ site, query: { revision } }) => {
  const { revision: from, plan } = await newestPlan(site);
  if (revision > from)
    throw new Problem(422, 'Unknown revision', `There is no change ${revision}; the newest is ${from}.`, {
      path: ['revision'],
    });
  return { from, steps: (await stepsBack(application().pool, site, plan, revision)).map(encodeStep) };
});
