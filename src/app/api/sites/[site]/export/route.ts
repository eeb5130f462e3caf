import { writePlanFile } from '@/core/formats';
import { siteOf } from '@/core/plan';
import { download } from '../../../_lib/download';
import { handle } from '../../../_lib/handle';
import { type SiteParams, currentPlan } from '../../../_lib/plans';

export const dynamic = 'force-dynamic';

/** The whole plan as one file. */
export const GET = handle<SiteParams>(async (_request, { site }) => {
  const { plan } = await currentPlan(site);
  return download(writePlanFile(plan), 'application/json', siteOf(plan).name, '.dianome.json');
});
