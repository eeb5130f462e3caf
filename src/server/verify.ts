import type { Pool } from 'mysql2/promise';
import { type Plan, applySteps, decodeStep, encodePlan, equal, invertSteps } from '../core/plan';
import { allEntriesSince } from '../db/journal';
import { loadPlan } from '../db/sites';

/** What was found of one site. `wrong` is empty when its journal leads to its plan. */
export interface Verified {
  readonly site: string;
  readonly revision: number;
  readonly entries: number;
  readonly wrong: string;
}

/**
 * Goes back over the whole journal of a site and replays it: every step must find the record as it says, and what comes out at
 * the end must be the stored plan. Null when there is no such site.
 */
export async function verifySite(pool: Pool, site: string): Promise<Verified | null> {
  const stored = await loadPlan(pool, site);
  if (!stored) return null;
  const { revision, plan } = stored;
  const all = [];
  for await (const entry of allEntriesSince(pool, site, 0)) if (entry.revision <= revision) all.push(entry);
  const said = (wrong: string): Verified => ({ site, revision, entries: all.length, wrong });
  const gap = all.findIndex((entry, i) => entry.revision !== i + 1);
  if (gap >= 0) return said(`change ${gap + 1} is missing from the journal`);
  if (all.length !== revision)
    return said(`the site is at change ${revision}, its journal ends with change ${all.length}`);
  let first: Plan = plan;
  for (const entry of [...all].reverse()) {
    const back = applySteps(first, invertSteps(entry.steps.map(decodeStep)));
    if (!back.ok) return said(misfit(entry.revision, back.failed, 'cannot be taken back'));
    first = back.plan;
  }
  let replayed: Plan = first;
  for (const entry of all) {
    const forth = applySteps(replayed, entry.steps.map(decodeStep));
    if (!forth.ok) return said(misfit(entry.revision, forth.failed, 'cannot be replayed'));
    replayed = forth.plan;
  }
  return said(equal(encodePlan(replayed), encodePlan(plan)) ? '' : 'the replayed plan is not the stored one');
}

const misfit = (
  revision: number,
  { table, id }: { readonly table: string; readonly id: string },
  what: string,
) => `change ${revision} ${what}: the ${table} ${id} is not as it says`;
