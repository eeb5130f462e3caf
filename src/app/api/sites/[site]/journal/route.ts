import { routes } from '@/contract';
import { history } from '@/db/journal';
import { revisionOf } from '@/db/sites';
import { application } from '@/server/application';
import { serve } from '../../../_lib/serve';
import { found } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

/** Who changed what and when, newest first; `below` pages backwards. */
export const GET = serve(routes.journal.history, async ({ site, query }) => {
  const { pool } = application();
  const revision = found(site, await revisionOf(pool, site));
  return { revision, entries: await history(pool, site, query.below ?? revision + 1, 100) };
});
