import fc from 'fast-check';
import { perform } from '../edit';
import { type Plan, Refusal, describeChange, tableNames } from '../plan';
import { damagedGear, buildGear } from '../testing/gear';
import { buildInternet, damagedInternet } from '../testing/internet';
import { nextSeed } from '../testing/plans';
import { buildPolicy, damagedPolicy, soundPolicy } from '../testing/policy';
import { moreThan, runs } from '../testing/runs';
import { FindingsEngine } from './engine';

const idsIn = (plan: Plan): Set<string> =>
  // The one id that is a word is that of the site.
  new Set(
    tableNames
      .flatMap((table) => [...plan[table].values()].map(({ id }) => id))
      .filter((id) => id !== 'site'),
  );

test('what a remedy does is told by names, codes and numbers, never by the ids of records', () => {
  const sound = soundPolicy();
  let shown = 0;
  fc.assert(
    fc.property(damagedGear, damagedInternet, damagedPolicy, (gear, internet, policy) => {
      const plan = buildPolicy(policy, buildInternet(internet, buildGear(gear, sound)));
      const ids = idsIn(plan);
      for (const { what, remedies } of new FindingsEngine(plan, '2026-05-04').all())
        for (const { operation, input } of remedies) {
          const seed = nextSeed();
          let lines: ReturnType<typeof describeChange>;
          try {
            lines = describeChange(plan, perform(plan, { operation, input }, seed));
          } catch (error) {
            if (error instanceof Refusal) continue;
            throw error;
          }
          for (const line of lines) {
            shown++;
            const words = [line.what, line.before, line.after].join(' ').split(/[^\w-]+/);
            const strange = words.filter((word) => ids.has(word) || word.startsWith(seed));
            expect({ what, operation, line, strange }).toMatchObject({ strange: [] });
          }
        }
    }),
    { numRuns: runs(40), seed: 9 },
  );
  expect(shown).toBeGreaterThan(moreThan(400));
});
