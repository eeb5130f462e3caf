import fc from 'fast-check';
import { findingLaws } from '../testing/laws';
import { buildTrees, damagedTrees, longRing, soundTrees, treeDamages } from '../testing/trees';
import { questionChecks } from './checks/questions';
import { treeChecks } from './checks/trees';
import { FindingsEngine } from './engine';

const sound = soundTrees();
findingLaws({
  name: 'trees',
  drawn: fc.oneof(
    { weight: 20, arbitrary: damagedTrees.map((damage) => () => buildTrees(damage, sound)) },
    {
      weight: 1,
      arbitrary: fc.tuple(fc.integer({ min: 6, max: 8 }), fc.nat(15)).map(
        ([maxAge, root]) =>
          () =>
            longRing(maxAge, root),
      ),
    },
  ),
  walk: damagedTrees,
  damages: treeDamages,
  checks: [...treeChecks, ...questionChecks],
  runs: 1500,
});

test('a ring as it should be has nothing to find', () => {
  expect(
    new FindingsEngine(sound, '2026-05-04').all().map(({ key, because }) => `${key} ${because}`),
  ).toEqual([]);
});
