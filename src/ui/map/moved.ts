'use client';

import { useCallback, useRef, useState } from 'react';
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
  // Letting go may come before what was moved last is painted.
  const latest = useRef(NOTHING);
  const kept = positionsOf(plan);
  const hold = useCallback((now: Moved) => {
    latest.current = now;
    setMoving(now);
  }, []);
  const move = useCallback(
    (id: string, { x, y }: Point) =>
      hold({ ...latest.current, [id]: { x: Math.round(x), y: Math.round(y) } }),
    [hold],
  );
  const letGo = useCallback(() => {
    const moved = latest.current;
    if (moved === NOTHING) return;
    hold(NOTHING);
    for (const [id, where] of Object.entries(moved))
      session.perform({ operation: 'putOnMap', input: { device: id === INTERNET ? null : id, ...where } });
  }, [hold, session]);
  const reset = useCallback(() => session.perform({ operation: 'arrangeMap', input: {} }), [session]);
  return { moved: moving === NOTHING ? kept : { ...kept, ...moving }, move, letGo, reset };
}
