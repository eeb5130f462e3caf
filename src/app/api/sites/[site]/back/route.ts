import { database } from '@/db/connection';
import { stepsBack } from '@/db/journal';
import { handle, json, queryNumber } from '../../../_lib/handle';
import type { SiteParams } from '../../../_lib/plans';
import { Problem, unknownSite } from '../../../_lib/problem';

export const dynamic = 'force-dynamic';

/** The steps that lead from the newest plan back to an earlier revision. */
export const GET = handle<SiteParams>(async (request, { site }) => {
  const revision = queryNumber(request, 'revision', 0);
  const back = await stepsBack(database(), site, revision);
  if (!back) throw unknownSite(site);
  if (revision > back.from)
    throw new Problem(
      422,
      'Unknown revision',
      `There is no change ${revision}; the newest is ${back.from}.`,
      { path: ['revision'] },
    );
  return json(back);
});
