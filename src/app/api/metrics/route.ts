import { routes } from '@/contract';
import { application } from '@/server/application';
import { metricsText } from '@/server/metrics';
import { serve } from '../_lib/serve';

export const dynamic = 'force-dynamic';

/** A few counters in the Prometheus text format. */
export const GET = serve(routes.machine.metrics, async () => {
  const { workers, streams } = application();
  return new Response(metricsText({ ...workers.load, streams: streams.size }), {
    headers: { 'content-type': 'text/plain; version=0.0.4; charset=utf-8', 'cache-control': 'no-store' },
  });
});
