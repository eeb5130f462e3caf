import { type Plan, siteOf, withRecord } from '../../src/core/plan';
import { done, emptySite, prefix } from '../../src/core/testing/plans';

/** A plant of so many things that are listed one by one, in eight places, with people who come and go. */
export function plantOf(count: number): Plan {
  const site = emptySite({ kind: 'industrial' });
  let plan = withRecord(site, 'site', 'site', { ...siteOf(site), space: [prefix('10.0.0.0/12')] });
  const kinds = [
    'workstation',
    'controller',
    'camera',
    'telephone',
    'sensor',
    'operator-panel',
    'printer',
    'server',
  ];
  kinds.forEach((thing, i) => {
    plan = done(plan, 'addNeed', { thing, count: count / kinds.length, place: `Hall ${i + 1}` });
  });
  for (const thing of ['laptop', 'guest'])
    plan = done(plan, 'addNeed', { thing, count: 100, place: 'Hall 1', link: 'wireless' });
  for (const name of ['fibre', 'mobile']) plan = done(plan, 'addLine', { name, outside: 'public' });
  for (const [from, to] of [
    ['cameras', 'internet'],
    ['guest', 'staff'],
    ['control-cell', 'staff'],
  ])
    plan = done(plan, 'addWish', { from, to, decision: 'deny' });
  return plan;
}
