import { routes } from '@/contract';
import { application } from '@/server/application';
import { download } from '../../../_lib/download';
import { serve } from '../../../_lib/serve';

export const dynamic = 'force-dynamic';

/** The as-built book: ?paper=a4&without=map,trees */
export const GET = serve(routes.files.book, async ({ site, query, request, hear }) => {
  const { paper = 'a4', without = '' } = query;
  const { bytes, siteName } = await application().workers.run(
    'book',
    { site, paper, without: without.split(',').filter(Boolean) },
    { signal: request.signal, hear },
  );
  return download(bytes, 'application/pdf', siteName, '-book.pdf');
});
