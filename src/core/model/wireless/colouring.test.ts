import fc from 'fast-check';
import { runs } from '../../testing/runs';
import { type Problem, changesOf, colour, costOf } from './colouring';

/** Problems as channels make them: options that lie in one another, side by side or apart, and who hears whom. */
const drawn = fc
  .record({
    sizes: fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 1, maxLength: 6 }),
    seed: fc.array(fc.nat(40), { minLength: 60, maxLength: 60 }),
  })
  .map(({ sizes, seed }): Problem => {
    let at = 0;
    const next = (below: number) => seed[at++ % seed.length]! % below;
    // Options 0 to 3 lie apart; 4 takes 0 and 1, 5 takes 2 and 3.
    const parts = [[0], [1], [2], [3], [0, 1], [2, 3]];
    const overlap = parts.map((a) =>
      parts.map((b) => {
        const common = a.filter((one) => b.includes(one)).length;
        const beside = a.some((one) => b.includes(one + 1) || b.includes(one - 1));
        return common > 0 ? 4 * common : beside ? -1 : 0;
      }),
    );
    const vertices = sizes.map((size) => {
      const options = parts.map((_, i) => i).filter(() => next(6) < size);
      const some = options.length > 0 ? options : [next(6)];
      return { options: some, own: some.map(() => next(30)), now: next(some.length + 1) - 1 };
    });
    const edges = vertices.flatMap((_, a) =>
      vertices.slice(a + 1).flatMap((_other, i) => {
        const weight = next(25);
        return weight > 5 ? [{ a, b: a + 1 + i, weight, beside: Math.floor(weight / 3) }] : [];
      }),
    );
    return { vertices, edges, overlap, apart: 4 };
  });

/** The least cost and changes over every choice there is. */
function exhausted(problem: Problem): readonly [number, number] {
  let best: readonly [number, number] = [Infinity, Infinity];
  const chosen: number[] = [];
  const go = (i: number) => {
    if (i === problem.vertices.length) {
      const found = [costOf(problem, chosen), changesOf(problem, chosen)] as const;
      if (found[0] < best[0] || (found[0] === best[0] && found[1] < best[1])) best = found;
      return;
    }
    problem.vertices[i]!.options.forEach((_, o) => {
      chosen[i] = o;
      go(i + 1);
    });
  };
  go(0);
  return best;
}

describe('colouring', () => {
  test('is what trying every choice finds: least cost, then fewest changes', () => {
    fc.assert(
      fc.property(drawn, (problem) => {
        const { cost, changes, best, chosen } = colour(problem, { steps: 100_000, rounds: 30 });
        expect(best).toBe(true);
        expect([cost, changes]).toEqual(exhausted(problem));
        expect(costOf(problem, chosen)).toBe(cost);
      }),
      { numRuns: runs(400) },
    );
  });

  test('without a proof still costs no less than its bound says, and the bound no more than the best', () => {
    fc.assert(
      fc.property(drawn, (problem) => {
        const { cost, bound } = colour(problem, { steps: 0, rounds: 5 });
        const [least] = exhausted(problem);
        expect(bound).toBeLessThanOrEqual(least);
        expect(cost).toBeGreaterThanOrEqual(least);
      }),
      { numRuns: runs(400) },
    );
  });

  test('more who hear one another than there are channels: the bound is what spreading them evenly costs', () => {
    const vertices = Array.from({ length: 7 }, () => ({ options: [0, 1, 2], own: [0, 0, 0], now: -1 }));
    const edges = vertices.flatMap((_, a) =>
      vertices.slice(a + 1).map((_other, i) => ({ a, b: a + 1 + i, weight: 12, beside: 0 })),
    );
    const overlap = [0, 1, 2].map((a) => [0, 1, 2].map((b) => (a === b ? 4 : 0)));
    const { cost, bound } = colour({ vertices, edges, overlap, apart: 3 }, { steps: 0, rounds: 200 });
    // Three, two and two: 3 + 1 + 1 pairs of 12 × 4.
    expect([cost, bound]).toEqual([240, 240]);
  });
});
