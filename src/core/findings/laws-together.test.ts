import fc from 'fast-check';
import { Refusal, type Plan, tableNames, vlansOf } from '../plan';
import { islandsOf } from '../model/switching';
import { treesOf } from '../model/tree';
import { classesOf, wholeMatrix } from '../rehearse';
import { Gone, gearDamages } from '../testing/gear';
import { internetDamages } from '../testing/internet';
import { changeAtRandom, withEveryKind } from '../testing/kinds';
import { type Damage, afresh, damages } from '../testing/plans';
import { policyDamages, soundPolicy } from '../testing/policy';
import { soundTrees, treeDamages } from '../testing/trees';
import { FindingsEngine } from './engine';
import { runs } from '../testing/runs';

/**
 * The law of derived data, on sites in which everything occurs together: after any sequence of changes to any records, what
 * was kept up to date is what is worked out from nothing.
 */

const TODAY = '2026-05-04';
const all: Readonly<Record<string, Damage>> = {
  ...damages,
  ...gearDamages,
  ...internetDamages,
  ...policyDamages,
  ...treeDamages,
};
const names = Object.keys(all);
/** A change people make, or any change a record allows. */
const step = fc.oneof(
  fc.tuple(fc.constantFrom(...names), fc.nat(1000), fc.nat(1000)),
  fc.tuple(fc.constant(null), fc.integer(), fc.constant(0)),
  fc.tuple(fc.constant(null), fc.integer(), fc.constant(0)),
);
/** What people do is done to segments; a change at random may have taken the last of them. */
function take(plan: Plan, [name, a, b]: readonly [string | null, number, number]): Plan {
  if (name === null) return changeAtRandom(plan, a);
  if (plan.vlan.size === 0 || plan.subnet.size === 0) return plan;
  try {
    return all[name]!(plan, a, b);
  } catch (error) {
    if (error instanceof Gone || error instanceof Refusal) return plan;
    throw error;
  }
}

const byKey = (a: { key: string }, b: { key: string }) => (a.key < b.key ? -1 : 1);
/** What follows from a plan, in a form that can be compared. */
const followsFrom = (plan: Plan) => ({
  reach: vlansOf(plan).map(({ id }) =>
    islandsOf(plan, id).map(({ users, flood }) => [
      users.map(({ port }) => port.id),
      [...flood.came.keys()].sort((a, b) => a - b),
    ]),
  ),
  trees: treesOf(plan).grown.map(({ kind, number, tree }) => [kind, number, tree.roles]),
  blocked: [...treesOf(plan).blocked].map(([port, { except, vids }]) => [port, except, [...vids]]),
  classes: classesOf(plan).map(({ vlan, landing, devices }) => [vlan, landing, devices]),
  matrix: wholeMatrix(plan, TODAY).map(({ from, to, passing, rules, differences }) => [
    from.id,
    to.id,
    passing.decision,
    rules.map(({ rule, boxes }) => [rule.id, boxes]),
    differences.map(({ kind, cause }) => [kind, cause]),
  ]),
});

describe('what is kept up to date, where everything occurs together', () => {
  const sound = withEveryKind(soundTrees(soundPolicy()), 5);

  test('is what is worked out from nothing, after any changes', () => {
    const seen = new Set<string>();
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 12 }), (path) => {
        let plan = sound;
        const engine = new FindingsEngine(plan, TODAY);
        for (const each of path) {
          plan = take(plan, each);
          engine.advance(plan);
          followsFrom(plan);
          for (const table of tableNames) if (plan[table].size > 0) seen.add(table);
        }
        const fresh = afresh(plan);
        expect(engine.all().sort(byKey)).toEqual(new FindingsEngine(fresh, TODAY).all().sort(byKey));
        expect(followsFrom(plan)).toEqual(followsFrom(fresh));
      }),
      { numRuns: runs(120), seed: 3 },
    );
    expect(tableNames.filter((table) => !seen.has(table))).toEqual([]);
  });

  test('is the same for a server that answers for several sites in turn', () => {
    let sites = [sound, afresh(sound), afresh(sound)];
    const engines = sites.map((plan) => new FindingsEngine(plan, TODAY));
    for (let seed = 0; seed < 12; seed++) {
      sites = sites.map((plan, i) => (seed % 3 === i ? changeAtRandom(plan, seed * 7 + i) : plan));
      sites.forEach((plan, i) => engines[i]!.advance(plan));
    }
    sites.forEach((plan, i) =>
      expect(engines[i]!.all().sort(byKey)).toEqual(
        new FindingsEngine(afresh(plan), TODAY).all().sort(byKey),
      ),
    );
  });
});
