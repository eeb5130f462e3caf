import type { Pool } from 'mysql2/promise';
import type { Progress } from '../core/plan';
import type { Commits } from './commit';
import type { Held, Plans } from './plans';
import { unknownSite } from './problems';

/** What a thread works with. */
export interface Holder {
  readonly pool: Pool;
  readonly plans: Plans;
  readonly commits: Commits;
}

/** What a job tells on its way: how far it has come, or which check it begins. */
export type Told = Progress | { readonly begun: string };
export type Tell = (told: Told) => void;

/** The newest plan of a site. Throws a Problem where there is no such site. */
export async function newest({ plans }: Holder, site: string): Promise<Held> {
  const found = await plans.newest(site);
  if (!found) throw unknownSite(site);
  return found;
}
