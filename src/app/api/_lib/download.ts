import type { Route } from '@/contract';
import { application } from '@/server/application';
import type { FileName } from '@/server/documents';
import { serve } from './serve';

/** A file to save under a name made of the site's own; names are reduced to plain ASCII for the header. */
export const download = (
  bytes: Uint8Array<ArrayBuffer>,
  type: string,
  siteName: string,
  ending: string,
): Response => {
  const base =
    siteName
      .normalize('NFKD')
      .replace(/[^A-Za-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .toLowerCase() || 'site';
  return new Response(bytes, {
    headers: {
      'content-type': type,
      'content-disposition': `attachment; filename="${base}${ending}"`,
      'cache-control': 'no-store',
    },
  });
};

/** The handler of a route that makes a file of the plan. */
export const serveFile = (route: Route, name: FileName, type: string, ending: string) =>
  serve(route, async ({ site, request }) => {
    const { bytes, siteName } = await application().workers.run('file', { site, name }, request);
    return download(bytes, type, siteName, ending);
  });
