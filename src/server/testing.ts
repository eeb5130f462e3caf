import { randomBytes } from 'node:crypto';
import type { Pool } from 'mysql2/promise';
import type { ChangeBody } from '../contract';
import type { Plan, WireCall } from '../core/plan';
import { Commits } from './commit';
import { Plans } from './plans';
import { openDatabase } from '../db/connection';
import { migrate } from '../db/migrate';
import { createSite, loadPlan } from '../db/sites';

/** The database the test run started; each test makes sites of its own in it. */
export async function testDatabase(): Promise<Pool> {
  const url = process.env.TEST_DATABASE_URL;
  if (!url) throw new Error('TEST_DATABASE_URL is not set; run the database tests with npm test');
  const pool = openDatabase(url);
  await migrate(pool);
  return pool;
}

export const unique = (prefix: string): string => `${prefix}${randomBytes(6).toString('hex')}`;
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

/** A change as a client sends it: made on a revision, with what it worked out itself where it reviewed that. */
export function bodyOf(base: number, call: WireCall, fields: Partial<ChangeBody> = {}): ChangeBody {
  const common = {
    base,
    seed: unique('c'),
    author: 'Ada',
    browser: 'browser01',
    digest: '0'.repeat(64),
    reviewed: false,
  };
  const body = { kind: 'change', ...common, ...call, ...fields };
  return Object.fromEntries(Object.entries(body).filter(([, value]) => value !== undefined)) as never;
}

/** Stands where an undo or a way back has no operation of its own. */
export const none = { operation: undefined, input: undefined } as unknown as WireCall;

/** Saves what an operation makes of the newest plan, as the server does. */
export async function commit(pool: Pool, site: string, call: WireCall, fields: Partial<ChangeBody> = {}) {
  const { revision } = await stored(pool, site);
  return new Commits(pool, new Plans(pool)).save(site, bodyOf(revision, call, fields), AT);
}
