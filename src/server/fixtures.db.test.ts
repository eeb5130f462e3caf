import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import type { Pool } from 'mysql2/promise';
import { VERSION } from '../core/formats';
import {
  type Plan,
  type WireStep,
  applySteps,
  decodeStep,
  encodePlan,
  netSteps,
  planOfLists,
} from '../core/plan';
import { type Connection, run, transaction } from '../db/connection';
import { toSqlTime } from '../db/columns';
import { insertSite } from '../db/sites';
import { Commits } from './commit';
import { Plans } from './plans';
import { bodyOf, none, stored, testDatabase, unique } from './testing';
import { verifySite } from './verify';

/** Journals as each version of this program wrote them, with the names that kinds and fields had then. */
interface Fixture {
  readonly version: number;
  readonly plan: unknown;
  readonly journal: readonly {
    readonly revision: number;
    readonly seed: string;
    readonly label: string;
    readonly operation: string;
    readonly author: string;
    readonly at: string;
    readonly steps: readonly WireStep[];
  }[];
}
const folder = path.join('src', 'server', 'fixtures');
const fixtures = readdirSync(folder)
  .map((name) => JSON.parse(readFileSync(path.join(folder, name), 'utf8')) as Fixture)
  .sort((a, b) => a.version - b.version);

let pool: Pool;
beforeAll(async () => {
  pool = await testDatabase();
});
afterAll(() => pool.end());

/** The rows as that version left them: the newest plan, and the journal in its own words. */
async function insert(connection: Connection, site: string, { journal }: Fixture, plan: Plan): Promise<void> {
  await insertSite(connection, site, plan, journal[0]!.at);
  for (const { revision, seed, label, operation, author, at, steps } of journal)
    await run(
      connection,
      `INSERT INTO journal (site_id, revision, seed, kind, label, operation, input, steps, format, author, at, browser)
       VALUES (?, ?, ?, 'change', ?, ?, 'null', ?, 1, ?, ?, 'browser01')`,
      [site, revision, seed, label, operation, JSON.stringify(steps), author, toSqlTime(at)],
    );
  await run(connection, 'UPDATE site SET revision = ? WHERE id = ?', [journal.length, site]);
}

test('there is one of every version', () => {
  expect(fixtures.map(({ version }) => version)).toEqual(Array.from({ length: VERSION }, (_, i) => i + 1));
});

test.each(fixtures.map((fixture) => [fixture.version, fixture] as const))(
  'a journal of version %i is gone back over, undone and redone, and replays',
  async (_, fixture) => {
    const first = planOfLists(fixture.plan);
    const steps = fixture.journal.flatMap((entry) => entry.steps.map(decodeStep));
    const last = applySteps(first, steps);
    if (!last.ok) throw new Error(`it does not apply at ${last.failed.table}`);
    const site = unique('f');
    await transaction(pool, 'READ COMMITTED', (connection) => insert(connection, site, fixture, last.plan));
    expect((await verifySite(pool, site))!.wrong).toBe('');
    const commits = new Commits(pool, new Plans(pool));
    const at = '2026-05-05T10:20:30.456Z';
    const now = () => stored(pool, site).then(({ plan }) => encodePlan(plan));
    // The newest first, until the site is as it began; then forth again in the order that redo goes.
    const undone: string[] = [];
    for (const { seed } of [...fixture.journal].reverse()) {
      const undo = bodyOf(0, none, { kind: 'undo', undoes: seed } as never);
      await commits.save(site, undo, at);
      undone.push(undo.seed);
    }
    expect(await now()).toEqual(encodePlan(first));
    for (const seed of undone.reverse())
      await commits.save(site, bodyOf(0, none, { kind: 'redo', undoes: seed } as never), at);
    expect(await now()).toEqual(encodePlan(last.plan));
    await commits.save(site, bodyOf(0, none, { kind: 'back', to: 0 } as never), at);
    expect(await now()).toEqual(encodePlan(first));
    expect((await verifySite(pool, site))!.wrong).toBe('');
    expect(netSteps(steps).length).toBeGreaterThan(5);
  },
);
