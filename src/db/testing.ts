import type { Pool } from 'mysql2/promise';
import { perform } from '../core/edit';
import type { Call, Plan } from '../core/plan';
import { openDatabase } from './connection';
import { type NewChange, commitChange } from './journal';
import { migrate } from './migrate';
import { createSite, loadPlan } from './sites';

/** The database the test run started; each test makes sites of its own in it. */
export async function testDatabase(): Promise<Pool> {
  const url = process.env.TEST_DATABASE_URL;
  if (!url) throw new Error('TEST_DATABASE_URL is not set; run the database tests with npm test');
  const pool = openDatabase(url);
  await migrate(pool);
  return pool;
}

let made = 0;
export const unique = (prefix: string): string =>
  `${prefix}${process.pid.toString(36)}${(made++).toString(36)}`;
export const AT = '2026-05-04T10:20:30.456Z';

export async function storedSite(pool: Pool, plan: Plan): Promise<string> {
  const id = unique('s');
  await createSite(pool, id, plan, AT);
  return id;
}

export async function stored(pool: Pool, site: string): Promise<{ revision: number; plan: Plan }> {
  const loaded = await loadPlan(pool, site);
  if (!loaded) throw new Error(`no site ${site}`);
  return loaded;
}

/** A change made on a plan, ready to commit on a base. */
export function changeOn(plan: Plan, base: number, call: Call, fields: Partial<NewChange> = {}): NewChange {
  const seed = unique('c');
  const change = perform(plan, call, seed);
  return { base, seed, kind: 'change', author: 'Ada', undoes: null, ...call, ...change, ...fields };
}

/** Loads, performs and commits. */
export async function commit(pool: Pool, site: string, call: Call, fields: Partial<NewChange> = {}) {
  const { revision, plan } = await stored(pool, site);
  return commitChange(pool, site, changeOn(plan, revision, call, fields), AT);
}
