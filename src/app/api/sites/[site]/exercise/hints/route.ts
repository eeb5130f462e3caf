import { routes } from '@/contract';
import { withHint } from '@/core/exercises';
import { keepHints } from '@/db/exercises';
import { application } from '@/server/application';
import { Problem } from '@/server/problems';
import { openExercise } from '../../../../_lib/exercises';
import { serve } from '../../../../_lib/serve';
import { found } from '../../../../_lib/sites';

/** Takes the next hint of a complaint, counted from 0; it costs points. */
export const POST = serve(routes.rehearsal.takeHint, async ({ site, body }) => {
  const { pool, workers } = application();
  const kept = await openExercise(site);
  if (!(await keepHints(pool, site, kept.hints, withHint(kept, body.fault))))
    throw new Problem(409, 'Changed meanwhile', 'Another hint was taken at this moment; look again.');
  return { exercise: found(site, await workers.run('exercise', { site })) };
});
