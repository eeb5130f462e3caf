'use client';

import { useCallback, useState } from 'react';
import { INTERNET, type Point, positionsOf } from '@/core/model/map';
import type { Plan } from '@/core/plan';
import { useSession } from '../session/context';

type Moved = Readonly<Record<string, Point>>;
const NOTHING: Moved = {};

/**
 * The boxes of a plan that were moved by hand. What is on its way stays here until `letGo`, so that a drag is one change, and
 * so is an arrow key held down.
 */
export function useMoved(plan: Plan) {
  const session = useSession();
  const [moving, setMoving] = useState(NOTHING);
  const kept = positionsOf(plan);
  const move = useCallback(
    (id: string, { x, y }: Point) =>
      setMoving((before) => ({ ...before, [id]: { x: Math.round(x), y: Math.round(y) } })),
    [],
  );
  const letGo = useCallback(() => {
    if (moving === NOTHING) return;
    setMoving(NOTHING);
    for (const [id, where] of Object.entries(moving))
      session.perform({ operation: 'putOnMap', input: { device: id === INTERNET ? null : id, ...where } });
  }, [moving, session]);
  const reset = useCallback(() => session.perform({ operation: 'arrangeMap', input: {} }), [session]);
  return { moved: moving === NOTHING ? kept : { ...kept, ...moving }, move, letGo, reset };
}
