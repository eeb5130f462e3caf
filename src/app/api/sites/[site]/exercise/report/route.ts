import { today } from '@/today';
import { z } from 'zod';
import { reporting } from '@/core/exercises';
import { database } from '@/db/connection';
import { endExercise } from '@/db/exercises';
import { firstPlan, openExercise, viewOf } from '../../../../_lib/exercises';
import { handle, json, readBody } from '../../../../_lib/handle';
import { type SiteParams, currentPlan, now } from '../../../../_lib/plans';
import { Problem } from '../../../../_lib/problem';
import { inSlices } from '../../../../_lib/slices';

/** Hands the exercise in as the plan is now, and judges it. */
export const POST = handle<SiteParams>(async (request, { site }) => {
  const { revision } = await readBody(request, z.strictObject({ revision: z.number().int().min(0) }));
  const kept = await openExercise(site);
  const { plan, revision: newest } = await currentPlan(site);
  if (newest !== revision)
    throw new Problem(
      409,
      'Changed meanwhile',
      `You hand in change ${revision}, and the plan is at change ${newest}; look at it and hand in again.`,
    );
  const { faults, level, hints } = kept;
  const solved = { start: await firstPlan(site, plan), now: plan, faults, level, hints };
  const report = await inSlices(reporting(solved, today()));
  const endedAt = now();
  if (!(await endExercise(database(), site, report, endedAt)))
    throw new Problem(409, 'Handed in already', 'Somebody handed this exercise in at this moment.');
  return json({ exercise: await viewOf(site, { ...kept, report, endedAt }) });
});
