import { type Plan, planOf, tableNames } from '../../src/core/plan';
import { FindingsEngine } from '../../src/core/findings';
import { done } from '../../src/core/testing/plans';
import { largePolicy } from './policy';
import { largeTrees } from './trees';

/** Plans far beyond any that a person would draw: each must be answered all the same. */

type Lists = Record<string, Record<string, unknown>[]>;
const listsOf = (plan: Plan): Lists =>
  Object.fromEntries(tableNames.map((table) => [table, [...plan[table].values()]])) as unknown as Lists;
const changed = (plan: Plan, change: (lists: Lists) => void): Plan => {
  const lists = listsOf(plan);
  change(lists);
  return planOf(lists as never);
};

const extremes: Readonly<Record<string, () => Plan>> = {
  'rules (25,000)': () => largePolicy(50, 1000, 25_000),
  'zones (3,000)': () => largePolicy(3_000, 3_000, 100),
  'cables in one port (19,000)': () =>
    changed(largePolicy(20, 19_000, 100, 430), ({ cable }) => {
      const end = cable!.find(({ to }) => String(to).startsWith('e'))!;
      for (const item of cable!) if (String(item.to).startsWith('e')) item.from = end.from;
    }),
  'trees (3,900 on 60 meshed switches)': () =>
    changed(largeTrees(60, 3_900, 1, 1000, 700), ({ bridge, box, instance, question, zone, rule }) => {
      for (const item of bridge!) item.mode = 'rstp-per-vlan';
      for (const item of box!) if (item.spanningTree !== 'none') item.spanningTree = 'rstp-per-vlan';
      instance!.length = 0;
      question!.length = 0;
      zone!.length = 20;
      rule!.length = 0;
    }),
  'forwards (500 of 32,000 ports)': () =>
    changed(done(largePolicy(20, 1000, 100), 'addUplink', { name: 'Internet' }), ({ uplink, forward }) => {
      const [{ id: up }] = uplink as [{ id: string }];
      for (let n = 0; n < 500; n++)
        forward!.push({
          id: `f${n}`,
          uplink: up,
          protocol: 'both',
          from: 1 + n,
          to: 32_000 + n,
          target: `i${n}`,
          inside: 2 + 2 * n,
          sources: [],
          hairpin: true,
          enabled: true,
          note: '',
        });
    }),
};

for (const [name, make] of Object.entries(extremes)) {
  if (process.argv[2] && !name.startsWith(process.argv[2])) continue;
  const plan = make();
  const started = performance.now();
  const findings = new FindingsEngine(plan, '2026-05-01').all();
  console.log(name, Math.round(performance.now() - started), 'ms', findings.length, 'findings');
}
