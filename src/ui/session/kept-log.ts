import type { DBSchema, IDBPDatabase } from 'idb';
import type { LogEntry, NewEntry } from '@/core/log';
import { keeper } from './keeper';

/** The log as this browser keeps it: what the server confirmed, and what it still has to be told. It outlives window and network. */

interface Schema extends DBSchema {
  entries: { key: [site: string, seq: number]; value: { site: string; seq: number; entry: LogEntry } };
  /** In the order in which they were written, by all windows. */
  unsent: {
    key: number;
    value: { n?: number; site: string; entry: NewEntry };
    indexes: { site: string };
  };
  /** Photos the server does not have yet. */
  photos: { key: string; value: { id: string; photo: Blob } };
}

const all = (site: string) => IDBKeyRange.bound([site], [site, []]);

export class KeptLog {
  private readonly opened: Promise<IDBPDatabase<Schema> | null>;

  constructor() {
    this.opened = keeper<Schema>('dianome-log', (db) => {
      db.createObjectStore('entries', { keyPath: ['site', 'seq'] });
      db.createObjectStore('unsent', { keyPath: 'n', autoIncrement: true }).createIndex('site', 'site');
      db.createObjectStore('photos', { keyPath: 'id' });
    });
  }

  async read(
    site: string,
  ): Promise<{ readonly entries: readonly LogEntry[]; readonly unsent: readonly NewEntry[] }> {
    const db = await this.opened;
    if (!db) return { entries: [], unsent: [] };
    const transaction = db.transaction(['entries', 'unsent']);
    const entries = await transaction.objectStore('entries').getAll(all(site));
    const unsent = await transaction.objectStore('unsent').index('site').getAll(site);
    return { entries: entries.map(({ entry }) => entry), unsent: unsent.map(({ entry }) => entry) };
  }

  /** Keeps what is still to be sent. False where there is no room for it, or nothing may be kept at all. */
  async write(site: string, entry: NewEntry): Promise<boolean> {
    const db = await this.opened;
    if (!db) return false;
    return db.add('unsent', { site, entry }).then(
      () => true,
      () => false,
    );
  }

  /** Keeps a photo until it is sent. False where there is no room for it. */
  async writePhoto(id: string, photo: Blob): Promise<boolean> {
    const db = await this.opened;
    if (!db) return false;
    return db.put('photos', { id, photo }).then(
      () => true,
      () => false,
    );
  }
  async readPhoto(id: string): Promise<Blob | null> {
    const db = await this.opened;
    return (await db?.get('photos', id))?.photo ?? null;
  }
  async dropPhoto(id: string): Promise<void> {
    await (await this.opened)?.delete('photos', id);
  }

  /** Keeps what the server told; of it nothing is unsent any more. */
  async confirm(site: string, entries: readonly LogEntry[]): Promise<void> {
    const db = await this.opened;
    if (!db || entries.length === 0) return;
    const ids = new Set(entries.map(({ id }) => id));
    const transaction = db.transaction(['entries', 'unsent'], 'readwrite');
    for (const entry of entries)
      await transaction.objectStore('entries').put({ site, seq: entry.seq, entry });
    const unsent = transaction.objectStore('unsent');
    for (const key of await unsent.index('site').getAllKeys(site)) {
      const kept = await unsent.get(key);
      if (kept && ids.has(kept.entry.id)) await unsent.delete(key);
    }
    await transaction.done;
  }
}
