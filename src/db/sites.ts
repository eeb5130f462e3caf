import type { Pool } from 'mysql2/promise';
import { type Plan, tableNames } from '../core/plan';
import { fromSqlTime, toSqlTime } from './columns';
import { type Connection, rows, run, transaction } from './connection';
import { readPlan, writePlan } from './rows';
import { tables } from './tables';

export interface Counts {
  readonly stop: number;
  readonly fix: number;
  readonly note: number;
}

export interface SiteRow {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly revision: number;
  readonly archived: boolean;
  readonly changedAt: string;
  readonly segments: number;
  readonly fixed: number;
  /** Open findings as they were counted last; null before the first time, and where they cannot be counted. */
  readonly findings: Counts | null;
  /** Are they of this revision and this day? */
  readonly counted: boolean;
  readonly uncountable: string | null;
  /** An exercise, and is it still being solved? Null for a site that is none. */
  readonly exercise: 'open' | 'ended' | null;
}

interface SitePart {
  /** The last of the part before: its name and its id. */
  readonly after: readonly [name: string, id: string] | null;
  readonly limit: number;
  readonly archived: boolean;
  /** What their name holds. */
  readonly named: string;
}
const WHOLE: SitePart = { after: null, limit: 1_000_000, archived: true, named: '' };

/** Sites with their size, by name, in parts. Gateways do not count as fixed addresses. */
export async function listSites(pool: Pool, day = '', part = WHOLE): Promise<SiteRow[]> {
  const found = await rows(
    pool,
    `SELECT s.id, r.name, r.kind, s.revision, s.archived_at IS NOT NULL, s.changed_at,
       (SELECT COUNT(*) FROM vlan v WHERE v.site_id = s.id),
       (SELECT COUNT(*) FROM address a WHERE a.site_id = s.id AND NOT a.gateway),
       e.site_id IS NOT NULL, e.ended_at IS NOT NULL,
       s.counted_revision = s.revision AND s.counted_day = ?, s.stops, s.fixes, s.notes, s.uncountable
     FROM site s JOIN site_record r ON r.site_id = s.id LEFT JOIN exercise e ON e.site_id = s.id
     WHERE LOCATE(LOWER(?), LOWER(r.name)) > 0 AND (r.name > ? OR (r.name = ? AND s.id > ?)) ${part.archived ? '' : 'AND s.archived_at IS NULL'}
     ORDER BY r.name, s.id LIMIT ${Math.floor(part.limit)}`,
    [day, part.named, ...(part.after ? [part.after[0], part.after[0], part.after[1]] : ['', '', ''])],
  );
  return found.map((row) => ({
    id: row[0] as string,
    name: row[1] as string,
    kind: row[2] as string,
    revision: row[3] as number,
    archived: row[4] === 1,
    changedAt: fromSqlTime(row[5] as string),
    segments: Number(row[6]),
    fixed: Number(row[7]),
    exercise: row[8] === 1 ? (row[9] === 1 ? 'ended' : 'open') : null,
    counted: row[10] === 1,
    findings:
      row[11] === null ? null : { stop: row[11] as number, fix: row[12] as number, note: row[13] as number },
    uncountable: row[14] as string | null,
  }));
}

/** How many sites are archived. */
export async function countArchived(pool: Pool): Promise<number> {
  const [row] = await rows(pool, 'SELECT COUNT(*) FROM site WHERE archived_at IS NOT NULL');
  return Number(row![0]);
}

/** Keeps the open findings of a revision on a day, or why they cannot be counted. */
export async function keepCounts(
  pool: Pool,
  siteId: string,
  revision: number,
  day: string,
  found: { readonly counts: Counts } | { readonly uncountable: string },
): Promise<void> {
  const { stop = null, fix = null, note = null } = 'counts' in found ? found.counts : {};
  await run(
    pool,
    `UPDATE site SET counted_revision = ?, counted_day = ?, stops = ?, fixes = ?, notes = ?, uncountable = ? WHERE id = ?`,
    [revision, day, stop, fix, note, 'uncountable' in found ? found.uncountable.slice(0, 300) : null, siteId],
  );
}

/** The site's plan and revision in one consistent snapshot; null when there is no such site. */
export const loadPlan = (pool: Pool, siteId: string): Promise<{ revision: number; plan: Plan } | null> =>
  transaction(pool, 'SNAPSHOT', async (connection) => {
    const found = await rows(connection, 'SELECT revision FROM site WHERE id = ?', [siteId]);
    if (!found[0]) return null;
    return { revision: found[0][0] as number, plan: await readPlan(connection, siteId) };
  });

/** The revision of a site; null when there is no such site. */
export async function revisionOf(pool: Pool, siteId: string): Promise<number | null> {
  const found = await rows(pool, 'SELECT revision FROM site WHERE id = ?', [siteId]);
  return found[0] ? (found[0][0] as number) : null;
}

/** What a site is called; null when there is no such site. */
export async function nameOf(pool: Pool, siteId: string): Promise<string | null> {
  const [row] = await rows(pool, 'SELECT name FROM site_record WHERE site_id = ?', [siteId]);
  return row ? (row[0] as string) : null;
}

/** The revision of every site. */
export async function revisionsOf(pool: Pool): Promise<Map<string, number>> {
  const found = (await rows(pool, 'SELECT id, revision FROM site')) as [string, number][];
  return new Map(found);
}

/** Stores a plan as a new site at revision 0. */
export const createSite = (pool: Pool, siteId: string, plan: Plan, at: string): Promise<void> =>
  transaction(pool, 'READ COMMITTED', (connection) => insertSite(connection, siteId, plan, at));

export async function insertSite(
  connection: Connection,
  siteId: string,
  plan: Plan,
  at: string,
): Promise<void> {
  const time = toSqlTime(at);
  await run(connection, 'INSERT INTO site (id, revision, created_at, changed_at) VALUES (?, 0, ?, ?)', [
    siteId,
    time,
    time,
  ]);
  await writePlan(connection, siteId, plan);
}

/** Archives a site or takes it back; false when there is no such site. */
export async function archiveSite(pool: Pool, siteId: string, at: string | null): Promise<boolean> {
  const known = (await revisionOf(pool, siteId)) !== null;
  await run(pool, 'UPDATE site SET archived_at = ? WHERE id = ?', [at && toSqlTime(at), siteId]);
  return known;
}

/**
 * Deletes a site with everything in it, once nobody writes to it. Rows go children first: the references between tables are
 * RESTRICT on purpose, and a cascade from the site would meet them in any order.
 */
export const deleteSite = (pool: Pool, siteId: string): Promise<boolean> =>
  transaction(pool, 'READ COMMITTED', async (connection) => {
    const [row] = await rows(connection, 'SELECT id FROM site WHERE id = ? FOR UPDATE', [siteId]);
    if (!row) return false;
    const records = [...tableNames].reverse().map((table) => tables[table].sql);
    for (const table of ['journal', 'named_revision', 'exercise', 'log_entry', ...records])
      await run(connection, `DELETE FROM ${table} WHERE site_id = ?`, [siteId]);
    return (await run(connection, 'DELETE FROM site WHERE id = ?', [siteId])) === 1;
  });
