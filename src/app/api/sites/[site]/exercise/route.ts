import { routes } from '@/contract';
import { exerciseOf } from '@/db/exercises';
import { revisionOf } from '@/db/sites';
import { application } from '@/server/application';
import { serve } from '../../../_lib/serve';
import { found } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

/** The exercise this site is, as far as its solver may see it; null for a site that is none. */
export const GET = serve(routes.rehearsal.exercise, async ({ site, request }) => {
  const { pool, workers } = application();
  found(site, await revisionOf(pool, site));
  // Most sites are none, and need nothing worked out.
  if (!(await exerciseOf(pool, site))) return { exercise: null };
  return { exercise: await workers.run('exercise', { site }, request) };
});
