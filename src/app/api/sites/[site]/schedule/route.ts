import { scheduleCsv } from '@/core/formats';
import { siteOf } from '@/core/plan';
import { download } from '../../../_lib/download';
import { handle } from '../../../_lib/handle';
import { type SiteParams, currentPlan } from '../../../_lib/plans';

export const dynamic = 'force-dynamic';

/** The address schedule as CSV. */
export const GET = handle<SiteParams>(async (_request, { site }) => {
  const { plan } = await currentPlan(site);
  return download(scheduleCsv(plan), 'text/csv; charset=utf-8', siteOf(plan).name, '-addresses.csv');
});
