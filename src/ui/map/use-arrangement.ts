'use client';

import ELK, { type ELK as Elk } from 'elkjs/lib/elk-api';
import { useEffect, useState } from 'react';
import { type Arrangement, arrange } from './arrange';
import type { MapModel } from './map-model';

let elk: Elk | null = null;
/** One worker for every map of this page, made when the first is shown. */
const elkOfPage = (): Elk =>
  (elk ??= new ELK({
    workerFactory: () => new Worker(new URL('./elk.worker.ts', import.meta.url), { type: 'module' }),
  }));

interface Arranged {
  readonly model: MapModel;
  readonly unfolded: ReadonlySet<string>;
  readonly arrangement: Arrangement;
}

/** The arrangement of a map, worked out beside the page; the one before stays in view until the next is there. */
export function useArrangement(model: MapModel, unfolded: ReadonlySet<string>): Arranged | null {
  const [arranged, setArranged] = useState<Arranged | null>(null);
  useEffect(() => {
    let wanted = true;
    void arrange(model, unfolded, elkOfPage()).then((arrangement) => {
      if (wanted) setArranged({ model, unfolded, arrangement });
    });
    return () => {
      wanted = false;
    };
  }, [model, unfolded]);
  return arranged;
}
