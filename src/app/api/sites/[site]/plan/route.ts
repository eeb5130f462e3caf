import { routes } from '@/contract';
import { application } from '@/server/application';
import { jsonBytes, serve } from '../../../_lib/serve';

export const dynamic = 'force-dynamic';

/** The plan with the revision it is. */
export const GET = serve(routes.sites.plan, async ({ site, request }) =>
  jsonBytes(await application().workers.run('planText', { site }, request)),
);
