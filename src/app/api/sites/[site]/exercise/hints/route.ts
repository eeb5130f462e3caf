import { z } from 'zod';
import { withHint } from '@/core/exercises';
import { database } from '@/db/connection';
import { keepHints } from '@/db/exercises';
import { openExercise, viewOf } from '../../../../_lib/exercises';
import { handle, json, readBody } from '../../../../_lib/handle';
import type { SiteParams } from '../../../../_lib/plans';
import { Problem } from '../../../../_lib/problem';

/** Takes the next hint of a complaint, counted from 0; it costs points. */
export const POST = handle<SiteParams>(async (request, { site }) => {
  const { fault } = await readBody(request, z.strictObject({ fault: z.number().int().min(0) }));
  const kept = await openExercise(site);
  const hints = withHint(kept, fault);
  if (!(await keepHints(database(), site, kept.hints, hints)))
    throw new Problem(409, 'Changed meanwhile', 'Another hint was taken at this moment; look again.');
  return json({ exercise: await viewOf(site, { ...kept, hints }) });
});
