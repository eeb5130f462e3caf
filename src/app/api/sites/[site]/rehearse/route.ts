import { routes } from '@/contract';
import { application } from '@/server/application';
import { serve } from '../../../_lib/serve';

/** The rehearsal without a browser: the same core, asked in the words that are typed on the page. */
export const POST = serve(routes.rehearsal.rehearse, ({ site, body: asked, request, hear }) =>
  application().workers.run('rehearse', { site, asked }, { signal: request.signal, hear }),
);
