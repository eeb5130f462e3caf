import { routes } from '@/contract';
import { acceptedSteps } from '@/db/journal';
import { revisionOf } from '@/db/sites';
import { application } from '@/server/application';
import { serve } from '../../../_lib/serve';
import { found } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

/** What was accepted of proposals and is not undone. */
export const GET = serve(routes.journal.accepted, async ({ site }) => {
  const { pool } = application();
  found(site, await revisionOf(pool, site));
  return { steps: await acceptedSteps(pool, site) };
});
