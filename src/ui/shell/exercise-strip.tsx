'use client';

import Link from 'next/link';
import { useSession, useSite } from '../session/context';
import { isSolving } from '../session/state';
import { useView } from '../session/view';

/** On every page of an exercise: what people complain of, and the way back to it. */
export function ExerciseStrip() {
  const exercise = useSite((state) => state.exercise);
  const solving = useSite(isSolving);
  const { siteId } = useSession();
  const { rehearsal, set } = useView();
  if (!exercise || !solving) return null;
  const [first, ...more] = exercise.complaints;
  return (
    <Link
      href={`/site/${siteId}/rehearse`}
      className="no-print flex items-center gap-3 border-b-2 border-ink bg-sheet px-3 py-1 hover:bg-chosen"
      aria-current={rehearsal === 'exercise' ? 'true' : undefined}
      onClick={() => set({ rehearsal: 'exercise' })}
    >
      <span className="tape text-[13px] whitespace-nowrap">Exercise {exercise.seed}</span>
      <span className="min-w-0 flex-1 truncate">“{first?.text}”</span>
      {more.length > 0 && <span className="whitespace-nowrap">and {more.length} more</span>}
    </Link>
  );
}
