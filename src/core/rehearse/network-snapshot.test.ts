import { readFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { readPlanFile } from '../formats';
import { type Plan, planOf, tableNames } from '../plan';
import { isAnsweredAlike } from './questions/alike';
import { askOne } from './questions/ask';
import { lostPorts } from '../model/tree';
import { buildTrees, damagedTrees, soundTrees } from '../testing/trees';
import { singleFaultsOf, withFaults } from './faults';
import { isHome, homeOf, classesOf } from './classes';
import { type NetworkSnapshot, snapshotAfter, snapshotOf } from './network-snapshot';
import { moreThan, runs } from '../testing/runs';

const TODAY = '2026-05-04';
/** The same plan as records that nothing is known of yet. */
const anew = (plan: Plan): Plan =>
  planOf(Object.fromEntries(tableNames.map((table) => [table, structuredClone([...plan[table].values()])])));
const plainly = ({ inTouch, asked, services, roots }: NetworkSnapshot) => ({
  inTouch: [...inTouch].sort(),
  asked: asked.map(({ question, answer, asExpected }) => [question.id, answer.delivered, asExpected]),
  services: [...services],
  roots: [...roots],
});
const demo = (name: string) =>
  readPlanFile(readFileSync(path.join(process.cwd(), 'demo', `${name}.json`), 'utf8'));

/** Compares what is made of a plan with faults from what was known of it with what is found from nothing. */
function compare(plan: Plan, broken: Plan): void {
  const made = snapshotAfter(plan, snapshotOf(plan, TODAY), broken, TODAY);
  expect(plainly(made)).toEqual(plainly(snapshotOf(anew(broken), TODAY)));
}

describe('how a network stands after a fault', () => {
  test.each(['2-clinic', '3-creamery'])(
    'is found from how it stood, for every single fault of %s',
    (name) => {
      const plan = demo(name);
      const faults = singleFaultsOf(plan);
      expect(faults.length).toBeGreaterThan(moreThan(10));
      for (const fault of faults) compare(plan, withFaults(plan, [fault]));
    },
  );

  test('is found from how it stood, for several faults of sites gone wrong', () => {
    const sound = soundTrees();
    const picked = fc.uniqueArray(fc.nat(30), { minLength: 1, maxLength: 3 });
    let alike = 0;
    fc.assert(
      fc.property(damagedTrees, picked, (damage, numbers) => {
        const plan = buildTrees(damage, sound);
        const all = singleFaultsOf(plan);
        const faults = numbers.map((n) => all[n % all.length]!);
        const broken = withFaults(plan, faults);
        compare(plan, broken);
        const lost = lostPorts(plan, broken);
        for (const asking of snapshotOf(plan, TODAY).asked)
          if (lost && isAnsweredAlike(plan, asking, broken, lost)) {
            alike++;
            const fresh = anew(broken);
            expect(askOne(fresh, asking.question, TODAY).answer.delivered).toBe(asking.answer.delivered);
          }
      }),
      { numRuns: runs(200), seed: 17 },
    );
    expect(alike).toBeGreaterThan(moreThan(20));
  });

  test('says of devices what floods of their routers say', () => {
    const sound = soundTrees();
    fc.assert(
      fc.property(damagedTrees, (damage) => {
        const plan = buildTrees(damage, sound);
        const { inTouch } = snapshotOf(plan, TODAY);
        const heard = new Map<string, boolean>();
        for (const group of classesOf(plan)) {
          const home = homeOf(plan, group.vlan);
          if (!home.router) return;
          for (const device of group.devices)
            heard.set(device, (heard.get(device) ?? false) || (home.why === null && isHome(home, group)));
        }
        expect([...inTouch].sort()).toEqual([...heard].sort());
      }),
      { numRuns: runs(150) },
    );
  });
});
