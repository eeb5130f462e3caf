import fc from 'fast-check';
import { emptySite } from '../testing/plans';
import { Draft } from './draft';
import { inRank, putBehind } from './ranks';

/** Places that may share their ranks, as those have that were added at the same time. */
function placesWith(ranks: readonly number[]): Draft {
  const draft = new Draft(emptySite(), 'p');
  for (const rank of ranks)
    draft.insert('place', {
      rank: `a${rank}`,
      name: `place ${rank}`,
      sort: 'main',
      metres: null,
      area: null,
      strangers: false,
    });
  return draft;
}
const inOrder = (draft: Draft) => [...draft.plan.place.values()].sort(inRank);

test('one is put where it is wanted and the others keep their order, also where ranks are shared', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(3), { minLength: 1, maxLength: 9 }), fc.nat(), fc.nat(), (ranks, a, b) => {
      const draft = placesWith(ranks);
      const before = inOrder(draft);
      const moved = before[a % before.length]!.id;
      const others = before.map(({ id }) => id).filter((id) => id !== moved);
      const at = b % (others.length + 1);
      putBehind(draft, 'place', before, moved, others[at - 1] ?? null);
      expect(inOrder(draft).map(({ id }) => id)).toEqual(others.toSpliced(at, 0, moved));
    }),
  );
});

test('behind one that is gone nothing is put, and behind itself it stays', () => {
  const draft = placesWith([0, 1]);
  const [first] = inOrder(draft);
  putBehind(draft, 'place', inOrder(draft), first!.id, first!.id);
  expect(inOrder(draft)[0]).toBe(first);
  expect(() => putBehind(draft, 'place', inOrder(draft), inOrder(draft)[0]!.id, 'nosuch')).toThrow(
    'This place is no longer in the plan',
  );
});
