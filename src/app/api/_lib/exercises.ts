import type { Kept } from '@/core/exercises';
import { exerciseOf } from '@/db/exercises';
import { application } from '@/server/application';
import { Problem } from '@/server/problems';

/** The exercise a site is; a problem when it is none, or is handed in already. */
export async function openExercise(site: string): Promise<Kept> {
  const kept = await exerciseOf(application().pool, site);
  if (!kept)
    throw new Problem(
      404,
      'No exercise',
      'This site is no exercise; set one under Rehearse, Faults to find.',
    );
  if (kept.endedAt !== null)
    throw new Problem(
      409,
      'Handed in already',
      'This exercise was handed in; its report is under Rehearse, Faults to find.',
    );
  return kept;
}
