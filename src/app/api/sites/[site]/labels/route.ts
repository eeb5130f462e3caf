import { routes } from '@/contract';
import { application } from '@/server/application';
import { download } from '../../../_lib/download';
import { serve } from '../../../_lib/serve';

export const dynamic = 'force-dynamic';

/** Sheets of labels: ?what=ports&grid=a4-24&skip=0&base=… */
export const GET = serve(routes.files.labels, async ({ site, query, request }) => {
  const { what, grid, device = null, skip = 0, base } = query;
  const { bytes, siteName } = await application().workers.run(
    'labels',
    { site, what, grid, device, skip, base },
    request,
  );
  return download(bytes, 'application/pdf', siteName, `-labels-${what}.pdf`);
});
