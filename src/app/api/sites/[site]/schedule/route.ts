import { routes } from '@/contract';
import { scheduleCsv } from '@/core/formats';
import { siteOf } from '@/core/plan';
import { download } from '../../../_lib/download';
import { serve } from '../../../_lib/serve';
import { newestPlan } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

/** The address schedule as CSV. */
export const GET = serve(routes.files.addresses, async ({ site }) => {
  const { plan } = await newestPlan(site);
  return download(scheduleCsv(plan), 'text/csv; charset=utf-8', siteOf(plan).name, '-addresses.csv');
});
