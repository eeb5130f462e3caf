import { routes } from '@/contract';
import { application } from '@/server/application';
import { download } from '../../../_lib/download';
import { serve } from '../../../_lib/serve';

export const dynamic = 'force-dynamic';

const types: Readonly<Record<string, string>> = {
  '.svg': 'image/svg+xml',
  '.xlsx': 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  '.zip': 'application/zip',
};

/** A file that another program reads as it is: ?path=… */
export const GET = serve(routes.files.open, async ({ site, query: { path }, request }) => {
  const { bytes, siteName } = await application().workers.run('openFile', { site, path }, request);
  const [, folder = '', name = ''] = /^(?:(.*)\/)?(.*)$/.exec(path)!;
  const dot = name.lastIndexOf('.') < 0 ? name.length : name.lastIndexOf('.');
  const base = [siteName, folder, name.slice(0, dot)].join(' ');
  const ending = name.slice(dot);
  return download(bytes, types[ending] ?? 'text/plain; charset=utf-8', base, ending);
});
