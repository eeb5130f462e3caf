import { z } from 'zod';
import { LABEL_LENGTH, decodeStep, wireStepSchema, recordTitle } from '@/core/plan';
import { database } from '@/db/connection';
import { commitChange, entriesSince } from '@/db/journal';
import { MEGABYTE, handle, json, queryNumber, readBody } from '../../../_lib/handle';
import { type SiteParams, authorSchema, currentPlan, now } from '../../../_lib/plans';
import { Problem, unknownSite } from '../../../_lib/problem';

export const dynamic = 'force-dynamic';

const body = z.strictObject({
  base: z.number().int().min(0),
  seed: z.string().regex(/^[a-z0-9]{6,20}$/, 'a seed has 6 to 20 lower-case letters or digits'),
  kind: z.enum(['change', 'undo', 'redo']).default('change'),
  label: z.string().trim().min(1).max(LABEL_LENGTH),
  operation: z.string().max(40),
  input: z.unknown(),
  author: authorSchema,
  undoes: z.number().int().nullable().default(null),
  steps: z.array(wireStepSchema).min(1, 'a change has at least one step'),
});

/** Commits one change on the revision the client has seen; 409 with what came between when that is not the newest. */
export const POST = handle<SiteParams>(async (request, { site }) => {
  const { steps: wire, ...change } = await readBody(request, body, 64 * MEGABYTE);
  const steps = wire.map((step) => decodeStep(step as never));
  for (const [i, step] of steps.entries())
    for (const record of [step.before, step.after])
      if (record && record.id !== step.id)
        throw new Problem(422, 'Wrong shape', `steps.${i}: the record’s id is not the step’s id.`, {
          path: ['steps', i, 'id'],
        });
  const result = await commitChange(database(), site, { ...change, steps }, now());
  switch (result.outcome) {
    case 'saved':
      return json({ revision: result.revision });
    case 'unknown-site':
      throw unknownSite(site);
    case 'stale': {
      const count = result.between.length;
      const detail = `The plan is at change ${result.revision}, this edit was made at ${change.base}; ${count} change${count === 1 ? '' : 's'} lie between.`;
      throw new Problem(409, 'Changed meanwhile', detail, {
        revision: result.revision,
        between: result.between,
      });
    }
    case 'misfit': {
      const { plan } = await currentPlan(site);
      const step = result.steps[0]!;
      const title = recordTitle(plan, step.table, (step.before ?? step.after)!);
      throw new Problem(422, 'Does not fit', `${title} is not as this change expects.`, {
        records: result.steps.map(({ table, id }) => ({ table, id })),
      });
    }
    case 'broken-reference':
      throw new Problem(
        422,
        'Broken reference',
        `This change would leave a reference to nothing (${result.message}).`,
        { path: ['steps'] },
      );
  }
});

/** The changes after a revision. */
export const GET = handle<SiteParams>(async (request, { site }) => {
  const since = queryNumber(request, 'since', 0);
  await currentPlan(site);
  return json({ changes: await entriesSince(database(), site, since) });
});
