import { packPrefixes, type Prefix, covers, overlaps, sizeOf } from '../../src/core/address';
import { FindingsEngine } from '../../src/core/findings';
import { perform } from '../../src/core/edit';
import { applyChange, type Plan, vlansOf } from '../../src/core/plan';
import { islandsOf } from '../../src/core/model/switching';
import { linksOf } from '../../src/core/model/wiring';
import { openDatabase } from '../../src/db/connection';
import { migrate } from '../../src/db/migrate';
import { createSite, loadPlan } from '../../src/db/sites';
import { Commits } from '../../src/server/commit';
import { Plans } from '../../src/server/plans';
import { analyse, rulesOf, anyMeet, boxesOfRule } from '../../src/core/model/policy';
import { probe, wholeMatrix } from '../../src/core/rehearse';
import { naiveFindings, naiveReach } from './naive';
import { largePolicy } from './policy';
import { largeNetwork } from './network';
import { largeSite } from './site';
import { copyOf, median, show, time } from './measure';

async function main() {
  const plan = largeSite(500, 100);
  const size = `${plan.subnet.size} subnets, ${plan.address.size - plan.subnet.size} fixed addresses`;
  console.log(`Site: ${size}`);

  // A fresh plan each time: nothing remembered from the run before. The first run, slower while the code is being
  // compiled, is shown apart.
  const runs: number[] = [];
  for (let i = 0; i < 25; i++) {
    const copy = copyOf(plan);
    runs.push(await time(1, () => new FindingsEngine(copy)));
  }
  const cold = runs[0]!;
  const full = median(runs.slice(5));
  const copy = copyOf(plan);
  const naive = await time(1, () => naiveFindings(copy));
  show('the very first run, code not yet compiled', cold, { name: 'pairwise', ms: naive });
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
    engine.advance(current);
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
    engine.advance(current);
  });
  show('the same after one edited segment', edit2, { name: 'all again', ms: full });

  const space: Prefix[] = [{ address: 10 * 2 ** 24, length: 12 }];
  const requests = (n: number) =>
    Array.from({ length: n }, (_, i) => ({ key: `${i}`, length: 24 + (i % 6) }));
  for (const n of [200, 2000]) {
    const packed = await time(9, () => packPrefixes(space, [], requests(n)));
    // The scan grows with the third power; ten times as many would take it minutes.
    const scanned = n === 200 ? await time(1, () => scanPack(space[0]!, requests(n))) : null;
    show(
      `packing ${n} subnets into a /12`,
      packed,
      scanned === null ? undefined : { name: 'scan', ms: scanned },
    );
  }

  await benchReach();
  await benchPolicy();

  const pool = openDatabase(process.env.DATABASE_URL!);
  await migrate(pool);
  const at = new Date().toISOString();
  const stored = await time(1, () => createSite(pool, 'large', plan, at));
  show(`writing ${size} to MariaDB`, stored);
  const load = await time(5, () => loadPlan(pool, 'large'));
  show(`loading ${size} from MariaDB`, load);
  const commits = new Commits(pool, new Plans(pool));
  const nobody = { author: 'bench', browser: 'benchbrowser', digest: '0'.repeat(64), reviewed: false };
  const save = await time(60, async (i) => {
    const input = { table: 'address', id: `a${i * 401}`, set: { note: `saved ${i}` } };
    const body = {
      kind: 'change' as const,
      base: i,
      seed: `bench${i}x`,
      operation: 'edit',
      input,
      ...nobody,
    };
    const saved = await commits.save('large', body, at);
    if (saved?.revision !== i + 1) throw new Error('not saved');
  });
  show('committing one edit, durable', save, { name: 'writing all', ms: stored });
  await pool.end();
}

/** Where every VLAN of a large network gets to, from nothing and after an edit. */
async function benchReach() {
  let plan = largeNetwork(200, 150, 6000);
  const all = (now: Plan) => vlansOf(now).map((vlan) => islandsOf(now, vlan.id).length);
  const size = '200 switches × 48 ports, 150 VLANs, 6,000 end devices';
  const runs: number[] = [];
  for (let i = 0; i < 12; i++) {
    const copy = copyOf(plan);
    linksOf(copy);
    runs.push(await time(1, () => all(copy)));
  }
  const full = median(runs.slice(3));
  // The straightforward way looks at every port of a box for every VLAN that comes in.
  const naive = await time(1, () => naiveReach(copyOf(plan)));
  show(`reach of all VLANs, ${size}`, full, { name: 'port by port', ms: naive });
  const edited = await time(40, (i) => {
    const call = {
      operation: 'edit',
      input: { table: 'port', id: `s${i * 3}p40`, set: { label: `desk ${i}` } },
    };
    const applied = applyChange(plan, perform(plan, call, `r${i}x`));
    if (!applied.ok) throw new Error('does not apply');
    plan = applied.plan;
    all(plan);
  });
  show('the same after a port got a label', edited, { name: 'all again', ms: full });
  const moved = await time(40, (i) => {
    const input = { ports: [`s${i * 3}p45`], role: 'access', vlan: `v${i}` };
    const applied = applyChange(plan, perform(plan, { operation: 'assignPorts', input }, `m${i}x`));
    if (!applied.ok) throw new Error('does not apply');
    plan = applied.plan;
    all(plan);
  });
  show('the same after a port got another VLAN', moved, { name: 'all again', ms: full });
}

/** Who reaches whom on a large site with many rules, and what is wrong with the rules. */
async function benchPolicy() {
  let plan = largePolicy(150, 6000, 5000);
  const size = '150 zones, 5,000 rules, 6,000 end devices';
  const fresh = Array.from({ length: 8 }, () => copyOf(plan));
  const runs: number[] = [];
  for (const copy of fresh) runs.push(await time(1, () => wholeMatrix(copy, null)));
  const whole = median(runs.slice(3));
  // Probing every pair is what it replaces; so many pairs are probed as a second or two allow, the rest at that pace.
  const ends = [...plan.device.values()].filter(({ kind }) => kind === 'computer');
  const asked = 400;
  const probes = await time(1, () => {
    for (let i = 0; i < asked; i++) {
      const [from, to] = [ends[(i * 37) % ends.length]!, ends[(i * 101 + 7) % ends.length]!];
      probe(
        plan,
        { from: { device: from.id }, to: { device: to.id }, wanted: { protocol: 'tcp', port: 443 } },
        null,
      );
    }
  });
  const every = (probes / asked) * ends.length ** 2;
  show(`the whole matrix, ${size}`, whole, { name: `every pair at the pace of ${asked} probes`, ms: every });
  wholeMatrix(plan, null);
  const rules = rulesOf(plan);
  const edited = await time(20, (i) => {
    const { id } = rules[(i * 211) % rules.length]!;
    const call = { operation: 'edit', input: { table: 'rule', id, set: { note: `edit ${i}`, log: true } } };
    const applied = applyChange(plan, perform(plan, call, `w${i}`));
    if (!applied.ok) throw new Error('does not apply');
    plan = applied.plan;
    wholeMatrix(plan, null);
  });
  show('the same after a rule was edited', edited, { name: 'all again', ms: whole });
  const many = largePolicy(150, 6000, 10_000);
  const copies = Array.from({ length: 4 }, () => copyOf(many));
  const judged = await time(copies.length, (i) => analyse(copies[i]!, null));
  const boxes = rulesOf(many).map((rule) => boxesOfRule(many, rule));
  const pairwise = await time(1, () => {
    let met = 0;
    for (let i = 0; i < boxes.length; i++)
      for (let j = 0; j < i; j++) if (anyMeet(boxes[i]!, boxes[j]!)) met++;
    return met;
  });
  show('analysis of 10,000 rules', judged, { name: 'only comparing all pairs', ms: pairwise });
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
