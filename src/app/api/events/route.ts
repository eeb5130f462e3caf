import { routes } from '@/contract';
import { application } from '@/server/application';
import { onlySite } from '@/server/lan/limits';
import { isAbout } from '@/server/streams';
import { serve } from '../_lib/serve';

export const dynamic = 'force-dynamic';

/** One stream of server-sent events for all sites: which is at which revision. */
export const GET = serve(routes.journal.events, async ({ request }) => {
  const encoder = new TextEncoder();
  let remove = () => {};
  const site = onlySite(request);
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const end = () => {
        remove();
        controller.close();
      };
      remove = application().streams.add((line) => {
        if (site === null || isAbout(line, site)) controller.enqueue(encoder.encode(line));
      }, end);
      request.signal.addEventListener('abort', () => remove());
    },
    cancel: () => remove(),
  });
  // Who hears that the stream is open asks once for what came before; from then on all is told.
  await application().streams.looked();
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
});
