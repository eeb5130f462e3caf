import { routes } from '@/contract';
import { writePlanFile } from '@/core/formats';
import { siteOf } from '@/core/plan';
import { download } from '../../../_lib/download';
import { serve } from '../../../_lib/serve';
import { newestPlan } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

/** The whole plan as one file. */
export const GET = serve(routes.files.plan, async ({ site }) => {
  const { plan } = await newestPlan(site);
  return download(writePlanFile(plan), 'application/json', siteOf(plan).name, '.dianome.json');
});
