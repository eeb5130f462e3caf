import { routes } from '@/contract';
import { application } from '@/server/application';
import { download } from '../../../_lib/download';
import { serve } from '../../../_lib/serve';

export const dynamic = 'force-dynamic';

/** All files of a plan in one archive. */
export const GET = serve(routes.files.archive, async ({ site, request }) => {
  const { bytes, siteName } = await application().workers.run('archive', { site }, request);
  return download(bytes, 'application/zip', siteName, '.zip');
});
