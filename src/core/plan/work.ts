/** Long work is a generator that yields between its parts, so that whoever runs it can answer others meanwhile, or stop. */
export type Work<T, P = void> = Generator<P, T, void>;

/** How far work has come. */
export interface Progress {
  readonly done: number;
  readonly of: number;
}

/** Runs work to its end at once, and says how far it has come where somebody wants to hear it. */
export function finish<T, P>(work: Work<T, P>, hear?: (progress: P) => void): T {
  for (;;) {
    const next = work.next();
    if (next.done) return next.value;
    hear?.(next.value);
  }
}

/** Work of so many parts at most, counted. */
export function* counted<T>(work: Work<T, unknown>, of: number): Work<T, Progress> {
  for (let done = 1; ; done++) {
    const next = work.next();
    if (next.done) return next.value;
    yield { done: Math.min(done, of), of };
  }
}
