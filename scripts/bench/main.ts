import { packPrefixes } from '../../src/core/address/packing';
import { type Prefix, covers, overlaps, sizeOf } from '../../src/core/address/prefix';
import { FindingsEngine } from '../../src/core/findings/engine';
import { perform } from '../../src/core/operations';
import { applyChange } from '../../src/core/plan/change';
import type { Plan } from '../../src/core/plan/plan';
import { decodePlan, encodePlan } from '../../src/core/plan/wire';
import { openDatabase } from '../../src/db/connection';
import { commitChange } from '../../src/db/journal';
import { migrate } from '../../src/db/migrate';
import { createSite, loadPlan } from '../../src/db/sites';
import { naiveFindings } from './naive';
import { largeSite } from './site';

/** Each figure with its input and the ratio to the straightforward way in the same run. Medians of several runs. */
const median = (list: number[]) => list.sort((a, b) => a - b)[Math.floor(list.length / 2)]!;
async function time(runs: number, work: (i: number) => unknown): Promise<number> {
  const taken: number[] = [];
  for (let i = 0; i < runs; i++) {
    const start = performance.now();
    await work(i);
    taken.push(performance.now() - start);
  }
  return median(taken);
}
const show = (what: string, ms: number, baseline?: { name: string; ms: number }) =>
  console.log(
    `${what.padEnd(66)} ${ms.toFixed(2).padStart(10)} ms${baseline ? `   ${baseline.name} ${baseline.ms.toFixed(1)} ms, ${(baseline.ms / ms).toFixed(0)} times` : ''}`,
  );

async function main() {
  const plan = largeSite(500, 100);
  const size = `${plan.subnet.size} subnets, ${plan.address.size - plan.subnet.size} fixed addresses`;
  console.log(`Site: ${size}`);

  // A fresh plan each time: nothing remembered from the run before.
  const copies = Array.from({ length: 5 }, () => decodePlan(encodePlan(plan)));
  const warm = new FindingsEngine(decodePlan(encodePlan(plan)));
  const naive = await time(1, () => naiveFindings(plan));
  const full = await time(copies.length, (i) => new FindingsEngine(copies[i]!));
  console.log(`Findings: ${warm.all().length}`);
  show(`all address findings of ${size}`, full, { name: 'pairwise', ms: naive });

  let current: Plan = plan;
  const engine = new FindingsEngine(plan);
  const edit = await time(60, (i) => {
    const address = current.address.get(`a${i * 701}`)!;
    const call = {
      operation: 'edit',
      input: { table: 'address', id: address.id, set: { note: `edit ${i}` } },
    };
    const change = perform(current, call, `e${i}`);
    const applied = applyChange(current, change);
    if (!applied.ok) throw new Error('does not apply');
    current = applied.plan;
    engine.advance(current, change.steps);
  });
  show('the findings after one edited address (operation, apply, check)', edit, {
    name: 'all again',
    ms: full,
  });
  const edit2 = await time(30, (i) => {
    const call = { operation: 'edit', input: { table: 'vlan', id: `v${i * 7}`, set: { devices: 40 + i } } };
    const change = perform(current, call, `f${i}`);
    const applied = applyChange(current, change);
    if (!applied.ok) throw new Error('does not apply');
    current = applied.plan;
    engine.advance(current, change.steps);
  });
  show('the same after one edited segment', edit2, { name: 'all again', ms: full });

  const requests = Array.from({ length: 2000 }, (_, i) => ({ key: String(i), length: 24 + (i % 6) }));
  const space: Prefix[] = [{ address: 10 * 2 ** 24, length: 12 }];
  const packed = await time(9, () => packPrefixes(space, [], requests));
  const naivePack = await time(1, () => scanPack(space[0]!, requests));
  show('packing 2,000 subnets into a /12', packed, { name: 'scan', ms: naivePack });

  const pool = openDatabase(process.env.DATABASE_URL!);
  await migrate(pool);
  const at = new Date().toISOString();
  const stored = await time(1, () => createSite(pool, 'large', plan, at));
  show(`writing ${size} to MariaDB`, stored);
  const load = await time(5, () => loadPlan(pool, 'large'));
  show(`loading ${size} from MariaDB`, load);
  const { plan: there } = (await loadPlan(pool, 'large'))!;
  let base: Plan = there;
  const save = await time(60, async (i) => {
    const call = {
      operation: 'edit',
      input: { table: 'address', id: `a${i * 401}`, set: { note: `saved ${i}` } },
    };
    const change = perform(base, call, `h${i}`);
    const applied = applyChange(base, change);
    if (!applied.ok) throw new Error('does not apply');
    base = applied.plan;
    const result = await commitChange(
      pool,
      'large',
      { base: i, seed: `bench${i}x`, kind: 'change', author: 'bench', undoes: null, ...call, ...change },
      at,
    );
    if (result.outcome !== 'saved') throw new Error(result.outcome);
  });
  show('committing one edit, durable', save, { name: 'writing all', ms: stored });
  await pool.end();
}

/** The straightforward packing: for each request, the first aligned place that overlaps nothing placed so far. */
function scanPack(space: Prefix, requests: readonly { length: number }[]): void {
  const placed: Prefix[] = [];
  for (const { length } of [...requests].sort((a, b) => a.length - b.length))
    for (let at = space.address as number; ; at += sizeOf({ address: 0, length })) {
      const candidate = { address: at, length };
      if (!covers(space, candidate)) break;
      if (!placed.some((other) => overlaps(other, candidate))) {
        placed.push(candidate);
        break;
      }
    }
}

main().catch((error) => {
  console.error(error);
  process.exit(1);
});
