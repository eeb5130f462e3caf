import { monitorEventLoopDelay } from 'node:perf_hooks';

/** A few counters, shared by whatever part of the process counts. */

interface Counted {
  readonly requests: Map<string, number>;
  readonly seconds: { sum: number; count: number };
  readonly delay: ReturnType<typeof monitorEventLoopDelay>;
}
const holder = globalThis as typeof globalThis & { dianomeMetrics?: Counted };
const counted = (): Counted => {
  if (!holder.dianomeMetrics) {
    const delay = monitorEventLoopDelay({ resolution: 10 });
    delay.enable();
    holder.dianomeMetrics = { requests: new Map(), seconds: { sum: 0, count: 0 }, delay };
  }
  return holder.dianomeMetrics;
};

export function countRequest(route: string, method: string, status: number, seconds: number): void {
  const { requests, seconds: all } = counted();
  const key = `method="${method}",route="${route}",status="${status}"`;
  requests.set(key, (requests.get(key) ?? 0) + 1);
  all.sum += seconds;
  all.count++;
}

/** The Prometheus text format, version 0.0.4. */
export function metricsText(load: {
  readonly running: number;
  readonly waiting: number;
  readonly streams: number;
}): string {
  const { requests, seconds, delay } = counted();
  const memory = process.memoryUsage();
  const lines = [
    '# HELP dianome_requests_total Answered requests.',
    '# TYPE dianome_requests_total counter',
    ...[...requests].map(([labels, count]) => `dianome_requests_total{${labels}} ${count}`),
    '# HELP dianome_request_seconds Time to answer.',
    '# TYPE dianome_request_seconds summary',
    `dianome_request_seconds_sum ${seconds.sum.toFixed(3)}`,
    `dianome_request_seconds_count ${seconds.count}`,
    '# HELP dianome_event_loop_delay_seconds_max The longest that others were held since the last look.',
    '# TYPE dianome_event_loop_delay_seconds_max gauge',
    `dianome_event_loop_delay_seconds_max ${(delay.max / 1e9).toFixed(4)}`,
    '# HELP dianome_jobs Long jobs in threads of their own.',
    '# TYPE dianome_jobs gauge',
    `dianome_jobs{state="running"} ${load.running}`,
    `dianome_jobs{state="waiting"} ${load.waiting}`,
    '# HELP dianome_streams Open event streams.',
    '# TYPE dianome_streams gauge',
    `dianome_streams ${load.streams}`,
    '# HELP dianome_memory_bytes Memory of the process.',
    '# TYPE dianome_memory_bytes gauge',
    `dianome_memory_bytes ${memory.rss}`,
  ];
  delay.reset();
  return `${lines.join('\n')}\n`;
}
