import { today } from '@/today';
import { z } from 'zod';
import { drawing, mostFaults, levels } from '@/core/exercises';
import { siteOf, withRecord, SITE_ID } from '@/core/plan';
import { database } from '@/db/connection';
import { createExercise, exercisesMadeOf } from '@/db/exercises';
import { handle, json, readBody } from '../../../_lib/handle';
import { type SiteParams, authorSchema, currentPlan, newId, now } from '../../../_lib/plans';
import { inSlices } from '../../../_lib/slices';

export const dynamic = 'force-dynamic';

/** The exercises made of a site. */
export const GET = handle<SiteParams>(async (_, { site }) => {
  await currentPlan(site);
  return json({ exercises: await exercisesMadeOf(database(), site) });
});

const body = z.strictObject({
  seed: z.number().int().min(1).max(999_999),
  level: z.literal(levels),
  count: z.number().int().min(1).max(mostFaults),
  learner: authorSchema,
});

/** Sets an exercise: a copy of the site with faults in it, as a site of its own. */
export const POST = handle<SiteParams>(async (request, { site }) => {
  const { learner, ...order } = await readBody(request, body);
  const { plan, revision } = await currentPlan(site);
  const drawn = await inSlices(drawing(plan, order, today()));
  const { name } = siteOf(plan);
  const title = `, exercise ${order.seed}`;
  const copy = withRecord(drawn.plan, 'site', SITE_ID, {
    ...siteOf(drawn.plan),
    name: `${name.slice(0, 80 - title.length)}${title}`,
  });
  const id = newId();
  await createExercise(database(), id, copy, {
    original: { id: site, name, revision },
    seed: order.seed,
    level: order.level,
    learner,
    faults: drawn.faults,
    startedAt: now(),
  });
  return json({ id }, 201);
});
