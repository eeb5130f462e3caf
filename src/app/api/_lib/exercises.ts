import { today } from '@/today';
import { type ExerciseView, type Kept, endedView, exerciseView } from '@/core/exercises';
import { applySteps, type Plan, decodeStep } from '@/core/plan';
import { database } from '@/db/connection';
import { exerciseOf } from '@/db/exercises';
import { stepsBack } from '@/db/journal';
import { currentPlan } from './plans';
import { Problem, unknownSite } from './problem';

/** The plan a site began with. */
export async function firstPlan(site: string, plan: Plan): Promise<Plan> {
  const back = await stepsBack(database(), site, 0);
  if (!back) throw unknownSite(site);
  const applied = applySteps(plan, back.steps.map(decodeStep));
  if (applied.ok) return applied.plan;
  // Somebody changed the plan between the two readings.
  throw new Problem(409, 'Changed meanwhile', 'The plan was changed at this moment; try it again.');
}

/** The exercise a site is; a problem when it is none, or is handed in already. */
export async function openExercise(site: string): Promise<Kept> {
  const kept = await exerciseOf(database(), site);
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

/** What of an exercise its solver may see, with its plan as it is now. */
export async function viewOf(site: string, kept: Kept): Promise<ExerciseView> {
  if (kept.report) return endedView(kept, kept.report);
  const { plan } = await currentPlan(site);
  return exerciseView(kept, await firstPlan(site, plan), plan, today());
}
