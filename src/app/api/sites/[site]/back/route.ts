import { routes } from '@/contract';
import { application } from '@/server/application';
import { jsonBytes, serve } from '../../../_lib/serve';

export const dynamic = 'force-dynamic';

/** The steps that lead from the newest plan back to an earlier revision. */
export const GET = serve(routes.journal.back, async ({ site, query: { revision }, request }) =>
  jsonBytes(await application().workers.run('back', { site, revision }, request)),
);
