import { z } from 'zod';
import { siteOf } from '@/core/plan';
import { database } from '@/db/connection';
import { archiveSite, deleteSite } from '@/db/sites';
import { handle, json, readBody } from '../../_lib/handle';
import { type SiteParams, currentPlan, now } from '../../_lib/plans';
import { Problem, unknownSite } from '../../_lib/problem';

/** Archives a site or takes it back. Renaming is a change of the plan. */
export const PATCH = handle<SiteParams>(async (request, { site }) => {
  const { archived } = await readBody(request, z.strictObject({ archived: z.boolean() }));
  if (!(await archiveSite(database(), site, archived ? now() : null))) throw unknownSite(site);
  return json({ archived });
});

/** Deletes a site for good; its name must be typed. */
export const DELETE = handle<SiteParams>(async (request, { site }) => {
  const { name } = await readBody(request, z.strictObject({ name: z.string() }));
  const actual = siteOf((await currentPlan(site)).plan).name;
  if (name.trim() !== actual)
    throw new Problem(
      422,
      'Name does not match',
      `You typed “${name.slice(0, 80)}”; the site is called “${actual}”.`,
      { path: ['name'] },
    );
  await deleteSite(database(), site);
  return json({ deleted: true });
});
