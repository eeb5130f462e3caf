import { routes } from '@/contract';
import { ruleScheduleCsv } from '@/core/formats';
import { siteOf } from '@/core/plan';
import { today } from '@/today';
import { download } from '../../../_lib/download';
import { serve } from '../../../_lib/serve';
import { newestPlan } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

/** The rule schedule as CSV. */
export const GET = serve(routes.files.rules, async ({ site }) => {
  const { plan } = await newestPlan(site);
  return download(ruleScheduleCsv(plan, today()), 'text/csv; charset=utf-8', siteOf(plan).name, '-rules.csv');
});
