/** Long work is a generator that yields between its parts, so that whoever runs it can answer others meanwhile, or stop. */
export type Work<T, P = void> = Generator<P, T, void>;

/** Runs work to its end at once. */
export function finish<T>(work: Work<T, unknown>): T {
  for (;;) {
    const next = work.next();
    if (next.done) return next.value;
  }
}
