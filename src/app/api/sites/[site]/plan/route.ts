import { routes } from '@/contract';
import { application } from '@/server/application';
import { jsonBytes, serve } from '../../../_lib/serve';

export const dynamic = 'force-dynamic';

/** The plan with the revision it is, the newest or an earlier one. */
export const GET = serve(routes.sites.plan, async ({ site, query: { at }, request }) =>
  jsonBytes(await application().workers.run('planText', { site, at }, request)),
);
