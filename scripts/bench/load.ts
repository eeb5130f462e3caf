import type { ChangeBody } from '../../src/contract';
import type { Pool } from 'mysql2/promise';
import { performance } from 'node:perf_hooks';
import { openDatabase } from '../../src/db/connection';
import { entriesSince } from '../../src/db/journal';
import { migrate } from '../../src/db/migrate';
import { createSite, loadPlan } from '../../src/db/sites';
import { Commits } from '../../src/server/commit';
import { Plans } from '../../src/server/plans';
import { verifySite } from '../../src/server/verify';
import { largeSite } from './site';
import { show } from './measure';

/** Many writers on one site, in one process and in two: how many changes a second, how long the slowest waits, and none lost. */

interface Load {
  readonly rate: number;
  readonly slowest: number;
}

async function load(pools: readonly Pool[], site: string, writers: number, changes: number): Promise<Load> {
  const processes = pools.map((pool) => new Commits(pool, new Plans(pool)));
  let next = 0;
  let slowest = 0;
  let base = 0;
  const began = performance.now();
  const writer = async (w: number) => {
    for (let i = next++; i < changes; i = next++) {
      const asked = performance.now();
      const input = { table: 'address', id: `a${(i * 13) % 900}`, set: { note: `writer ${w}, change ${i}` } };
      const saved = await processes[w % processes.length]!.save(
        site,
        {
          kind: 'change',
          base,
          seed: `load${w}x${i}`,
          operation: 'edit',
          input,
          author: `writer ${w}`,
          browser: `browser${w}x`,
          digest: '0'.repeat(64),
          reviewed: false,
        },
        new Date().toISOString(),
      );
      if (!saved?.revision) throw new Error('not saved');
      base = Math.max(base, saved.revision);
      slowest = Math.max(slowest, performance.now() - asked);
    }
  };
  await Promise.all(Array.from({ length: writers }, (_, w) => writer(w)));
  const seconds = (performance.now() - began) / 1000;
  const { revision } = (await loadPlan(pools[0]!, site))!;
  const last = await entriesSince(pools[0]!, site, revision - 1);
  const verified = await verifySite(pools[0]!, site);
  if (revision !== changes || last.length !== 1 || verified?.wrong)
    throw new Error(`${changes - revision} of ${changes} changes lost. ${verified?.wrong}`);
  return { rate: changes / seconds, slowest };
}

async function main() {
  const url = process.env.DATABASE_URL!;
  const pools = [openDatabase(url), openDatabase(url)];
  await migrate(pools[0]!);
  const plan = largeSite(20, 50);
  const run = async (name: string, writers: number, processes: number, changes: number) => {
    await createSite(pools[0]!, name, plan, new Date().toISOString());
    return load(pools.slice(0, processes), name, writers, changes);
  };
  // The first changes prepare the statements and compile the code.
  await run('warm', 4, 2, 100);
  const alone = await run('alone', 1, 1, 300);
  console.log(`Changes to one site of ${plan.address.size} addresses`);
  show('one writer alone, each change', 1000 / alone.rate);
  for (const [writers, processes] of [
    [20, 1],
    [100, 1],
    [100, 2],
  ] as const) {
    const many = await run(`w${writers}p${processes}`, writers, processes, 1000);
    const where = processes === 1 ? 'in one process' : 'in two processes';
    show(`${writers} writers ${where}, each change`, 1000 / many.rate, {
      name: 'one alone',
      ms: 1000 / alone.rate,
    });
    console.log(`  the slowest of 1,000 took ${many.slowest.toFixed(0)} ms; none lost, the journal replays`);
  }
  await bulk(pools[0]!);
  for (const pool of pools) await pool.end();
}

/** A change of very many records, what takes it back, and what goes back behind both. */
async function bulk(pool: Pool): Promise<void> {
  const before = largeSite(400, 60);
  await createSite(pool, 'bulk', before, new Date().toISOString());
  const commits = new Commits(pool, new Plans(pool));
  const addresses = [...before.address.values()]
    .filter(({ gateway }) => !gateway)
    .slice(0, 20_000)
    .map(({ id }) => id);
  let base = 0;
  const save = async (body: object) => {
    const common = {
      base,
      seed: `bulk${base}x`,
      author: 'a',
      browser: 'browser01',
      digest: '0'.repeat(64),
      reviewed: false,
    };
    const began = performance.now();
    const saved = await commits.save('bulk', { ...common, ...body } as ChangeBody, new Date().toISOString());
    base = saved!.revision!;
    return performance.now() - began;
  };
  const one = await save({
    kind: 'change',
    operation: 'edit',
    input: { table: 'site', id: 'site', set: { notes: 'one' } },
  });
  console.log(`One change of ${addresses.length} records, on a site of ${before.address.size} addresses`);
  const alone = { name: 'of one record, with the plan read', ms: one };
  show(
    'done',
    await save({ kind: 'change', operation: 'setKindOfHosts', input: { addresses, kind: 'printer' } }),
    alone,
  );
  show('undone', await save({ kind: 'undo', undoes: 'bulk1x' }), alone);
  show('gone back to', await save({ kind: 'back', to: 2 }), alone);
}

main().catch((error) => {
  console.error(error);
  process.exit(1);
});
