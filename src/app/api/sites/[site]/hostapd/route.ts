import { routes } from '@/contract';
import { application } from '@/server/application';
import { download } from '../../../_lib/download';
import { serve } from '../../../_lib/serve';

export const dynamic = 'force-dynamic';

/** A radio with its networks, or a port that asks who is there, for hostapd: ?of=… */
export const GET = serve(routes.files.hostapd, async ({ site, query: { of }, request }) => {
  const { bytes, name } = await application().workers.run('hostapd', { site, of }, request);
  return download(bytes, 'text/plain; charset=utf-8', name, '.conf');
});
