import { routes } from '@/contract';
import { savedSeeds } from '@/db/journal';
import { revisionOf } from '@/db/sites';
import { application } from '@/server/application';
import { serve } from '../../../../_lib/serve';
import { found } from '../../../../_lib/sites';

/** Which seeds are saved already. */
export const POST = serve(routes.journal.saved, async ({ site, body }) => {
  const { pool } = application();
  found(site, await revisionOf(pool, site));
  return { saved: await savedSeeds(pool, site, body.seeds) };
});
