import { routes } from '@/contract';
import { portScheduleCsv } from '@/core/formats';
import { siteOf } from '@/core/plan';
import { download } from '../../../_lib/download';
import { serve } from '../../../_lib/serve';
import { newestPlan } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

/** The port schedule as CSV. */
export const GET = serve(routes.files.ports, async ({ site }) => {
  const { plan } = await newestPlan(site);
  return download(portScheduleCsv(plan), 'text/csv; charset=utf-8', siteOf(plan).name, '-ports.csv');
});
