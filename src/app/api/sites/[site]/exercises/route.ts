import { routes } from '@/contract';
import { exercisesMadeOf } from '@/db/exercises';
import { revisionOf } from '@/db/sites';
import { application } from '@/server/application';
import { serve } from '../../../_lib/serve';
import { found, newId, now } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

/** The exercises made of a site. */
export const GET = serve(routes.rehearsal.exercises, async ({ site }) => {
  const { pool } = application();
  found(site, await revisionOf(pool, site));
  return { exercises: await exercisesMadeOf(pool, site) };
});

/** Sets an exercise: a copy of the site with faults in it, as a site of its own. */
export const POST = serve(routes.rehearsal.setExercise, async ({ site, body, request, hear }) => {
  const { learner, ...order } = body;
  const id = newId();
  const set = { site, id, order, learner, at: now() };
  await application().workers.run('setExercise', set, { signal: request.signal, hear });
  return { id };
});
