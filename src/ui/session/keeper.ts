import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

/** A database of this browser; null where nothing may be kept: it is forbidden, by an error or at once, or there is no room. */
export async function keeper<S extends DBSchema>(
  name: string,
  upgrade: (db: IDBPDatabase<S>) => void,
): Promise<IDBPDatabase<S> | null> {
  try {
    return await openDB<S>(name, 1, { upgrade: (db) => upgrade(db) });
  } catch {
    return null;
  }
}
