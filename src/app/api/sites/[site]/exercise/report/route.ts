import { routes } from '@/contract';
import { application } from '@/server/application';
import { openExercise } from '../../../../_lib/exercises';
import { serve } from '../../../../_lib/serve';
import { now } from '../../../../_lib/sites';

/** Hands the exercise in as the plan is now, and judges it. */
export const POST = serve(routes.rehearsal.handIn, async ({ site, body: { revision }, hear }) => {
  await openExercise(site);
  // Who has gone meanwhile has handed it in all the same.
  return { exercise: await application().workers.run('handIn', { site, revision, at: now() }, { hear }) };
});
