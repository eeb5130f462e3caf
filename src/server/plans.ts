import type { Pool } from 'mysql2/promise';
import { type Plan, applySteps, decodeStep } from '../core/plan';
import type { Connection } from '../db/connection';
import { allEntriesSince } from '../db/journal';
import { readPlan } from '../db/rows';
import { loadPlan, revisionOf } from '../db/sites';

export interface Held {
  readonly revision: number;
  readonly plan: Plan;
}

/** So many plans are held, those asked for last. */
const HELD = 12;
/** A plan further behind than this is read anew: going through the journal would take longer. */
const BEHIND = 200;

/**
 * The plans of this process, each as of some revision. Nothing depends on one being here, and none is trusted to be the newest:
 * another process may have written. What is missing is taken from the journal.
 */
export class Plans {
  private readonly held = new Map<string, Held>();

  constructor(private readonly pool: Pool) {}

  /** The newest plan of a site; null when there is no such site. */
  async newest(siteId: string): Promise<Held | null> {
    const revision = await revisionOf(this.pool, siteId);
    if (revision === null) {
      this.held.delete(siteId);
      return null;
    }
    const known = this.held.get(siteId);
    if (known && known.revision >= revision) return this.keep(siteId, known);
    const advanced = known && (await this.advanced(this.pool, siteId, known, revision));
    if (advanced) return this.keep(siteId, advanced);
    const loaded = await loadPlan(this.pool, siteId);
    return loaded && this.keep(siteId, loaded);
  }

  /** The plan of a revision that is the newest, as whoever holds the row of the site knows. */
  async at(connection: Connection, siteId: string, revision: number): Promise<Plan> {
    const known = this.held.get(siteId);
    if (known?.revision === revision) return known.plan;
    const advanced = known && (await this.advanced(connection, siteId, known, revision));
    const plan = advanced?.plan ?? (await readPlan(connection, siteId));
    return this.keep(siteId, { revision, plan }).plan;
  }

  keep(siteId: string, found: Held): Held {
    // Put in anew, so that the one asked for longest ago stands first.
    this.held.delete(siteId);
    this.held.set(siteId, found);
    for (const id of this.held.keys()) if (this.held.size > HELD) this.held.delete(id);
    return found;
  }

  forget(siteId: string): void {
    this.held.delete(siteId);
  }

  /** A plan with what came after it; null where that is too much, or does not fit. */
  private async advanced(
    db: Pool | Connection,
    siteId: string,
    known: Held,
    revision: number,
  ): Promise<Held | null> {
    if (revision < known.revision || revision - known.revision > BEHIND) return null;
    let { plan, revision: at } = known;
    for await (const entry of allEntriesSince(db, siteId, at)) {
      // A site that was deleted and brought back under its id begins anew.
      if (entry.revision !== at + 1) return null;
      const applied = applySteps(plan, entry.steps.map(decodeStep));
      if (!applied.ok) return null;
      [plan, at] = [applied.plan, entry.revision];
    }
    return at >= revision ? { revision: at, plan } : null;
  }
}
