import { today } from '@/today';
import { customAlphabet } from 'nanoid';
import { z } from 'zod';
import { FindingsEngine, acceptanceOf } from '@/core/findings';
import type { Plan } from '@/core/plan';
import { database } from '@/db/connection';
import { loadPlan, revisionOf } from '@/db/sites';
import { unknownSite } from './problem';

export const newId = customAlphabet('0123456789abcdefghijklmnopqrstuvwxyz', 12);
export const now = (): string => new Date().toISOString();
export const authorSchema = z.string().trim().min(1, 'your name is empty; write it once').max(60);

export interface SiteParams {
  site: string;
}

interface Loaded {
  readonly revision: number;
  readonly plan: Plan;
}

/** The last plans loaded, by site: saves reading an unchanged plan again. Nothing depends on it being there. */
const recent = new Map<string, Loaded>();
const KEEP = 8;

export async function currentPlan(siteId: string): Promise<Loaded> {
  const known = recent.get(siteId);
  const revision = await revisionOf(database(), siteId);
  if (revision === null) throw unknownSite(siteId);
  if (known?.revision === revision) return known;
  const loaded = await loadPlan(database(), siteId);
  if (!loaded) throw unknownSite(siteId);
  recent.delete(siteId);
  recent.set(siteId, loaded);
  for (const id of recent.keys()) if (recent.size > KEEP) recent.delete(id);
  return loaded;
}

export type Counts = Readonly<Record<'stop' | 'fix' | 'note', number>>;
const counted = new WeakMap<Plan, Counts>();

/** Open findings of a plan by severity. */
export function countFindings(plan: Plan): Counts {
  const known = counted.get(plan);
  if (known) return known;
  const counts = { stop: 0, fix: 0, note: 0 };
  for (const finding of new FindingsEngine(plan, today()).all())
    if (!acceptanceOf(plan.acceptance, finding)) counts[finding.severity]++;
  counted.set(plan, counts);
  return counts;
}
