import { routes } from '@/contract';
import { rows } from '@/db/connection';
import { application } from '@/server/application';
import { serve } from '../_lib/serve';

export const dynamic = 'force-dynamic';

/** Answers once the database does. */
export const GET = serve(routes.machine.ready, async () => {
  await rows(application().pool, 'SELECT 1');
  return { ok: true as const };
});
