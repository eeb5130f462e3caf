import type { Work } from '@/core/plan';

/** Runs work to its end; others are answered between its parts. */
export async function inSlices<T>(work: Work<T, unknown>): Promise<T> {
  for (;;) {
    const next = work.next();
    if (next.done) return next.value;
    await new Promise((resolve) => setImmediate(resolve));
  }
}
