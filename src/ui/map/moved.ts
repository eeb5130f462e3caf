'use client';

import { useCallback, useState } from 'react';
import { remember, remembered } from '../session/stored';
import type { Point } from '@/core/model/map';

type Moved = Readonly<Record<string, Point>>;

function read(key: string): Moved {
  try {
    return JSON.parse(remembered(key) ?? '{}') as Moved;
  } catch {
    return {};
  }
}

/** The boxes of a site that were moved by hand, kept in this browser. */
export function useMoved(site: string) {
  const key = `dianome.map.${site}`;
  const [moved, setMoved] = useState<Moved>(() => read(key));
  const move = useCallback(
    (id: string, { x, y }: Point, done: boolean) =>
      setMoved((before) => {
        const next = { ...before, [id]: { x: Math.round(x), y: Math.round(y) } };
        if (done) remember(key, JSON.stringify(next));
        return next;
      }),
    [key],
  );
  const reset = useCallback(() => {
    remember(key, '{}');
    setMoved({});
  }, [key]);
  return { moved, move, reset };
}
