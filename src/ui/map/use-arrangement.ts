'use client';

import { useEffect, useState } from 'react';
import { type Arrangement, arrange, type MapModel } from '@/core/model/map';
import { elkOfPage } from './elk-of-page';

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
