import { routes } from '@/contract';
import { application } from '@/server/application';
import { serve } from '../../../_lib/serve';

export const dynamic = 'force-dynamic';

/** The plan with the revision it is. */
export const GET = serve(routes.sites.plan, async ({ site, request }) => {
  const text = await application().workers.run('planText', { site }, request);
  return new Response(text, { headers: { 'content-type': 'application/json', 'cache-control': 'no-store' } });
});
