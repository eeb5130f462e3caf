import { routes } from '@/contract';
import { application } from '@/server/application';
import { download } from '../../../_lib/download';
import { serve } from '../../../_lib/serve';

export const dynamic = 'force-dynamic';

/** A file that another program reads as it is: ?path=… */
export const GET = serve(routes.files.open, async ({ site, query: { path }, request }) => {
  const { bytes, siteName } = await application().workers.run('openFile', { site, path }, request);
  const [, folder = '', name = ''] = /^(?:(.*)\/)?(.*)$/.exec(path)!;
  const dot = name.lastIndexOf('.') < 0 ? name.length : name.lastIndexOf('.');
  const base = [siteName, folder, name.slice(0, dot)].join(' ');
  return download(bytes, 'text/plain; charset=utf-8', base, name.slice(dot));
});
