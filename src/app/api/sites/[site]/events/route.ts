import { database } from '@/db/connection';
import { entriesSince } from '@/db/journal';
import { revisionOf } from '@/db/sites';
import { handle, queryNumber } from '../../../_lib/handle';
import type { SiteParams } from '../../../_lib/plans';
import { unknownSite } from '../../../_lib/problem';
import { trackStream } from '../../../_lib/streams';

export const dynamic = 'force-dynamic';

/** How often the journal is asked for news, in milliseconds. It is the only bus, so any process may have written. */
const POLL = 300;
/** Polls between two comments that keep the connection from being taken for dead. */
const KEEP_ALIVE = 50;

/** Server-sent events: every journal entry after `since`, as it is written. */
export const GET = handle<SiteParams>(async (request, { site }) => {
  let last = queryNumber(request, 'since', 0);
  if ((await revisionOf(database(), site)) === null) throw unknownSite(site);
  const encoder = new TextEncoder();
  let timer: NodeJS.Timeout | undefined;
  let closed = false;
  let untrack = () => {};
  const stop = () => {
    closed = true;
    clearTimeout(timer);
    untrack();
  };
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const end = () => {
        if (closed) return;
        stop();
        controller.close();
      };
      untrack = trackStream(end);
      request.signal.addEventListener('abort', end);
      let polls = 0;
      const poll = async () => {
        try {
          const revision = await revisionOf(database(), site);
          if (closed) return;
          if (revision === null) {
            controller.enqueue(encoder.encode('event: deleted\ndata: {}\n\n'));
            return end();
          }
          if (revision > last)
            for (const entry of await entriesSince(database(), site, last, 50)) {
              if (closed) return;
              last = entry.revision;
              controller.enqueue(encoder.encode(`data: ${JSON.stringify(entry)}\n\n`));
            }
          else if (polls++ % KEEP_ALIVE === 0) controller.enqueue(encoder.encode(': here\n\n'));
        } catch {
          // The database is away for a moment; the next poll asks again and nothing is skipped.
        }
        if (!closed) timer = setTimeout(poll, POLL);
      };
      void poll();
    },
    cancel: stop,
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
});
