import { routes } from '@/contract';
import { application } from '@/server/application';
import { download } from '../../../_lib/download';
import { serve } from '../../../_lib/serve';

export const dynamic = 'force-dynamic';

/** The nftables ruleset of one gateway, ?device=… */
export const GET = serve(routes.files.ruleset, async ({ site, query: { device }, request }) => {
  const { bytes, name } = await application().workers.run('ruleset', { site, device }, request);
  return download(bytes, 'text/plain; charset=utf-8', name, '.nft');
});
