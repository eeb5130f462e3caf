import { database } from '@/db/connection';
import { history } from '@/db/journal';
import { revisionOf } from '@/db/sites';
import { handle, json, queryNumber } from '../../../_lib/handle';
import type { SiteParams } from '../../../_lib/plans';
import { unknownSite } from '../../../_lib/problem';

export const dynamic = 'force-dynamic';

/** Who changed what and when, newest first; `below` pages backwards. */
export const GET = handle<SiteParams>(async (request, { site }) => {
  const revision = await revisionOf(database(), site);
  if (revision === null) throw unknownSite(site);
  const below = queryNumber(request, 'below', revision + 1);
  return json({ revision, entries: await history(database(), site, below, 100) });
});
