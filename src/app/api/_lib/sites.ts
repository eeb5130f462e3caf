import { customAlphabet } from 'nanoid';
import { application } from '@/server/application';
import type { Held } from '@/server/plans';
import { unknownSite } from '@/server/problems';

export const newId = customAlphabet('0123456789abcdefghijklmnopqrstuvwxyz', 12);
export const now = (): string => new Date().toISOString();

/** The newest plan of a site; a problem when there is none. */
export async function newestPlan(site: string): Promise<Held> {
  const found = await application().plans.newest(site);
  if (!found) throw unknownSite(site);
  return found;
}

/** What a function of the database found; a problem where that is nothing. */
export function found<T>(site: string, value: T | null): T {
  if (value === null) throw unknownSite(site);
  return value;
}
