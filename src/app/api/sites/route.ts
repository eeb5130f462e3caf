import { z } from 'zod';
import { readPlanFile } from '@/core/formats';
import { SITE_ID, kinds, type Plan, siteOf, withRecord } from '@/core/plan';
import { newSiteInput, newSitePlan } from '@/core/edit';
import { database } from '@/db/connection';
import { createSite, listSites } from '@/db/sites';
import { MEGABYTE, decode, handle, json, readText } from '../_lib/handle';
import { countFindings, currentPlan, newId, now } from '../_lib/plans';
import { Problem } from '../_lib/problem';

export const dynamic = 'force-dynamic';
const FILE_LIMIT = 40 * MEGABYTE;

/** Every site with its size and open findings. */
export const GET = handle(async () => {
  const sites = await listSites(database());
  const withFindings = await Promise.all(
    sites.map(async (site) => ({
      ...site,
      findings: site.exercise === 'open' ? null : countFindings((await currentPlan(site.id)).plan),
    })),
  );
  return json({ sites: withFindings });
});

const body = z.union([
  z.strictObject({ create: z.unknown() }),
  z.strictObject({ duplicate: z.string(), name: kinds.site.fields.name }),
  z.strictObject({ file: z.string() }),
]);

/** A new site: from a few decisions, as a copy of another, or from a plan file (its text in `file`). */
export const POST = handle(async (request) => {
  const text = await readText(request, FILE_LIMIT);
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new Problem(400, 'Not JSON', `The body is not JSON: ${(error as Error).message}`);
  }
  const input = decode(body, value);
  const id = newId();
  let plan: Plan;
  if ('create' in input) plan = newSitePlan(decode(newSiteInput, input.create), newId());
  else if ('file' in input) plan = readPlanFile(input.file);
  else {
    const original = (await currentPlan(input.duplicate)).plan;
    plan = withRecord(original, 'site', SITE_ID, { ...siteOf(original), name: input.name });
  }
  await createSite(database(), id, plan, now());
  return json({ id }, 201);
});
