import { routes } from '@/contract';
import { application } from '@/server/application';
import { openExercise } from '../../../../_lib/exercises';
import { serve } from '../../../../_lib/serve';
import { now } from '../../../../_lib/sites';

/** Hands the exercise in as the plan is now, and judges it. */
export const POST = serve(routes.rehearsal.handIn, async ({ site, body: { revision } }) => {
  await openExercise(site);
  return { exercise: await application().workers.run('handIn', { site, revision, at: now() }) };
});
