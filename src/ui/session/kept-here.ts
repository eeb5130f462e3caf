import type { DBSchema, IDBPDatabase } from 'idb';
import type { WireStep } from '@/core/plan';
import { keeper } from './keeper';
import type { Conflict, KeptPending } from './pending';

/**
 * What is kept in this browser: changes that the server has not confirmed, conflicts nobody has decided, and the plans that were
 * open, so that they open without a server. It outlives the session, and what one leaves behind the next one takes over.
 */

/** What one session of a site has not got rid of yet. */
export interface Left {
  readonly queue: readonly KeptPending[];
  readonly conflicts: readonly Conflict[];
}
const NOTHING: Left = { queue: [], conflicts: [] };

export interface KeptPlan {
  /** What the server answered when it was asked for the plan. */
  readonly text: string;
  /** The changes since, in order. */
  readonly entries: readonly { readonly revision: number; readonly steps: readonly WireStep[] }[];
}

interface Schema extends DBSchema {
  left: { key: [site: string, window: string]; value: Left & { site: string; window: string; at: number } };
  plans: { key: string; value: { site: string; text: string; at: number } };
  entries: {
    key: [site: string, revision: number];
    value: { site: string; revision: number; steps: readonly WireStep[] };
  };
}

/** So many plans are kept, those opened last. */
const PLANS = 10;
const all = (site: string) => IDBKeyRange.bound([site], [site, []]);

/** Sessions of this window that are closed: their locks are let go of a moment later. */
const closed = new Set<string>();
/** The names of the sessions of this browser that are open. Each holds a lock as long as it lives. */
const LOCK = 'dianome.window.';
async function openWindows(): Promise<ReadonlySet<string>> {
  const { held = [] } = (await navigator.locks?.query()) ?? {};
  return new Set(
    held
      .map(({ name = '' }) => name)
      .filter((name) => name.startsWith(LOCK))
      .map((name) => name.slice(LOCK.length))
      .filter((name) => !closed.has(name)),
  );
}

/** What one session keeps: as long as it is open, nobody else takes over what it has left. */
export class KeptHere {
  private readonly opened: Promise<IDBPDatabase<Schema> | null>;
  private release = () => {};

  constructor(
    /** A name of this session, new at each. */
    readonly window: string,
    private readonly windows: () => Promise<ReadonlySet<string>> = openWindows,
  ) {
    // Where there is none, what is not saved lives in this window, and leaving it is asked.
    this.opened = keeper<Schema>('dianome', (db) => {
      db.createObjectStore('left', { keyPath: ['site', 'window'] });
      db.createObjectStore('plans', { keyPath: 'site' });
      db.createObjectStore('entries', { keyPath: ['site', 'revision'] });
    });
    void globalThis.navigator?.locks?.request(`${LOCK}${window}`, () =>
      closed.has(window) ? undefined : new Promise<void>((resolve) => (this.release = resolve)),
    );
  }

  close(): void {
    closed.add(this.window);
    this.release();
  }

  /** Keeps what this window has not got rid of, in place of what was kept of it before. */
  async leave(site: string, left: Left): Promise<void> {
    const db = await this.opened;
    if (!db) return;
    if (left.queue.length === 0 && left.conflicts.length === 0) await db.delete('left', [site, this.window]);
    else await db.put('left', { site, window: this.window, at: Date.now(), ...left });
  }

  /** Takes over what sessions that are closed have left of a site, oldest first; for who begins anew, what it took over before too. */
  async takeOver(site: string): Promise<Left> {
    const db = await this.opened;
    if (!db) return NOTHING;
    const open = await this.windows();
    const transaction = db.transaction('left', 'readwrite');
    const found = (await transaction.store.getAll(all(site)))
      .filter(({ window }) => window === this.window || !open.has(window))
      .sort((a, b) => a.at - b.at);
    for (const { window } of found) await transaction.store.delete([site, window]);
    const left = {
      queue: found.flatMap(({ queue }) => queue),
      conflicts: found.flatMap(({ conflicts }) => conflicts),
    };
    if (found.length > 0) await transaction.store.put({ site, window: this.window, at: Date.now(), ...left });
    await transaction.done;
    return left;
  }

  async keepPlan(site: string, text: string): Promise<void> {
    const db = await this.opened;
    if (!db) return;
    const transaction = db.transaction(['plans', 'entries'], 'readwrite');
    const plans = transaction.objectStore('plans');
    await plans.put({ site, text, at: Date.now() });
    await transaction.objectStore('entries').delete(all(site));
    const old = (await plans.getAll()).sort((a, b) => b.at - a.at).slice(PLANS);
    for (const plan of old) {
      await plans.delete(plan.site);
      await transaction.objectStore('entries').delete(all(plan.site));
    }
    await transaction.done;
  }

  async keepEntry(site: string, revision: number, steps: readonly WireStep[]): Promise<void> {
    await (await this.opened)?.put('entries', { site, revision, steps });
  }

  /** The plan as it was known last; null when it was never open here. */
  async plan(site: string): Promise<KeptPlan | null> {
    const db = await this.opened;
    const found = await db?.get('plans', site);
    if (!db || !found) return null;
    return { text: found.text, entries: await db.getAll('entries', all(site)) };
  }

  async forget(site: string): Promise<void> {
    const db = await this.opened;
    if (!db) return;
    await db.delete('plans', site);
    await db.delete('entries', all(site));
  }
}
