import ELK, { type ELK as Elk } from 'elkjs/lib/elk-api';

let elk: Elk | null = null;
/** One worker for every map of this page, made when the first is shown. */
export const elkOfPage = (): Elk =>
  (elk ??= new ELK({
    workerFactory: () => new Worker(new URL('./elk.worker.ts', import.meta.url), { type: 'module' }),
  }));
