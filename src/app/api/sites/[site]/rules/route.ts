import { today } from '@/today';
import { ruleScheduleCsv } from '@/core/formats';
import { siteOf } from '@/core/plan';
import { download } from '../../../_lib/download';
import { handle } from '../../../_lib/handle';
import { type SiteParams, currentPlan } from '../../../_lib/plans';

export const dynamic = 'force-dynamic';

/** The rule schedule as CSV. */
export const GET = handle<SiteParams>(async (_request, { site }) => {
  const { plan } = await currentPlan(site);
  return download(ruleScheduleCsv(plan, today()), 'text/csv; charset=utf-8', siteOf(plan).name, '-rules.csv');
});
