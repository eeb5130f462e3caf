import { database } from '@/db/connection';
import { exerciseOf } from '@/db/exercises';
import { handle, json } from '../../../_lib/handle';
import { type SiteParams, currentPlan } from '../../../_lib/plans';
import { viewOf } from '../../../_lib/exercises';

export const dynamic = 'force-dynamic';

/** The exercise this site is, as far as its solver may see it; null for a site that is none. */
export const GET = handle<SiteParams>(async (_, { site }) => {
  await currentPlan(site);
  const kept = await exerciseOf(database(), site);
  return json({ exercise: kept && (await viewOf(site, kept)) });
});
