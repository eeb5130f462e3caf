import type { Pool } from 'mysql2/promise';
import type { Body, LogEntry, NewEntry } from '../core/log';
import { fromSqlTime, toSqlTime } from './columns';
import { rows, run } from './connection';
import { withSite } from './journal';

/** The log of a site: rows are added and read, never changed. */

const FIELDS = 'seq, id, author, revision, device_at, received_at, behind, body';
const entryOf = (row: readonly unknown[]): LogEntry => ({
  seq: row[0] as number,
  id: row[1] as string,
  author: row[2] as string,
  revision: row[3] as number,
  at: fromSqlTime(row[4] as string),
  received: fromSqlTime(row[5] as string),
  behind: row[6] as number,
  body: JSON.parse(row[7] as string) as Body,
});

/** What came in together, and when. */
export interface Arrived {
  readonly entries: readonly NewEntry[];
  /** By the clock of the device when it was sent, and of the server when it came; in milliseconds since 1970. */
  readonly sent: number;
  readonly now: number;
}

/**
 * Adds entries in their order; those that are there already are left as they are. Returns all of them as they are kept, or null
 * when there is no such site.
 */
export const addToLog = (
  pool: Pool,
  siteId: string,
  { entries, sent, now }: Arrived,
): Promise<readonly LogEntry[] | null> =>
  withSite(pool, siteId, async (connection, revision) => {
    if (revision === null) return null;
    const [[last]] = (await rows(
      connection,
      'SELECT COALESCE(MAX(seq), 0) FROM log_entry WHERE site_id = ?',
      [siteId],
    )) as [[number]];
    const received = new Date(now).toISOString();
    const kept: LogEntry[] = [];
    let seq = last;
    for (const entry of entries) {
      const [there] = await rows(connection, `SELECT ${FIELDS} FROM log_entry WHERE site_id = ? AND id = ?`, [
        siteId,
        entry.id,
      ]);
      if (there) {
        kept.push(entryOf(there));
        continue;
      }
      const added = {
        ...entry,
        at: new Date(entry.at).toISOString(),
        seq: ++seq,
        received,
        behind: now - sent,
      };
      await run(connection, `INSERT INTO log_entry (site_id, ${FIELDS}) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`, [
        siteId,
        added.seq,
        added.id,
        added.author,
        added.revision,
        toSqlTime(added.at),
        toSqlTime(received),
        added.behind,
        JSON.stringify(added.body),
      ]);
      kept.push(added);
    }
    return kept;
  });

/** The entries after a number, ascending; at most so many. */
export async function logSince(
  pool: Pool,
  siteId: string,
  since: number,
  limit: number,
): Promise<readonly LogEntry[]> {
  const found = await rows(
    pool,
    `SELECT ${FIELDS} FROM log_entry WHERE site_id = ? AND seq > ? ORDER BY seq LIMIT ${limit}`,
    [siteId, since],
  );
  return found.map(entryOf);
}

/** How far the log of every site has come that has one. */
export async function logsOf(pool: Pool): Promise<Map<string, number>> {
  const found = await rows(pool, 'SELECT site_id, MAX(seq) FROM log_entry GROUP BY site_id');
  return new Map(found as [string, number][]);
}
