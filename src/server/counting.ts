import { LIMIT_OF_ONE, MOST_LEFT_OUT } from '../core/findings';
import type { Pool } from 'mysql2/promise';
import { type SiteRow, keepCounts } from '../db/sites';
import { today } from '../today';
import { Problem } from './problems';
import type { Workers } from './workers';

const isLimit = (error: unknown): error is Problem => error instanceof Problem && error.more.code === 'limit';

/** Counts the open findings of sites whose counts are of an earlier revision or day, one after the other, while nobody waits. */
export class Counting {
  private readonly under = new Set<string>();

  constructor(
    private readonly pool: Pool,
    private readonly workers: Workers,
  ) {}

  /** Has those counted that are not. While faults are being looked for in a site nothing is told of it. */
  see(sites: readonly SiteRow[]): void {
    for (const site of sites) if (!site.counted && site.exercise !== 'open') void this.count(site);
  }

  private async count({ id, revision }: SiteRow): Promise<void> {
    if (this.under.has(id)) return;
    this.under.add(id);
    try {
      await this.counted(id);
    } catch (error) {
      // What is over the limit stays so until the plan is another; anything else is tried again when somebody asks.
      if (isLimit(error))
        await keepCounts(this.pool, id, revision, today(), { uncountable: error.detail }).catch(() => {});
    } finally {
      this.under.delete(id);
    }
  }
  /** Where a limit is passed once more, check by check, and without those that it is passed at. */
  private async counted(site: string): Promise<void> {
    const leftOut = new Map<string, string>();
    for (let closely = false; ; closely = true) {
      const begun: string[] = [];
      const watch = { begun: (check: string) => begun.push(check), silence: LIMIT_OF_ONE };
      try {
        await this.workers.run('counts', { site, leftOut, closely }, watch);
        return;
      } catch (error) {
        const at = begun.at(-1);
        if (!isLimit(error) || (closely && (!at || leftOut.size >= MOST_LEFT_OUT))) throw error;
        if (at) leftOut.set(at, error.detail);
      }
    }
  }
}
