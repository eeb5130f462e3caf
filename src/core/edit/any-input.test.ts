import fc from 'fast-check';
import {
  type Change,
  type Plan,
  Refusal,
  type WireCall,
  applyChange,
  digestOf,
  encodePlan,
  encodeStep,
  invertSteps,
  planOfLists,
} from '../plan';
import { callAtRandom, exampleIn, filledIn, heeding } from '../testing/inputs';
import { drawPlan, withEveryKind } from '../testing/kinds';
import { afresh } from '../testing/plans';
import { soundPolicy } from '../testing/policy';
import { moreThan, runs } from '../testing/runs';
import { soundTrees } from '../testing/trees';
import { perform } from './operations';

/** Laws of all operations, whatever is filled in: what a person, a program or a former version may send. */

const sites = [withEveryKind(soundTrees(soundPolicy()), 5), ...[1, 2, 3, 4].map((seed) => drawPlan(seed))];
const SEED = 'c1x';
/** What no sentence for people holds; what they wrote themselves stands between quotation marks. */
const NO_WORDS = /undefined|NaN|null|\[object/;
const withoutQuotes = (text: string) => text.replace(/“[^”]*”/g, '');

/** The refusal, or the change that is made. */
function outcome(plan: Plan, call: WireCall): Change | Refusal {
  try {
    return perform(plan, call, SEED);
  } catch (error) {
    // Anything else is a broken operation.
    if (!(error instanceof Refusal)) throw error;
    expect(withoutQuotes(error.message)).not.toMatch(NO_WORDS);
    expect(error.message.trim()).not.toBe('');
    return error;
  }
}

/** A call that is heeding what is said against it, up to what becomes of it in the end. */
function insist(plan: Plan, first: WireCall, seed: number): { call: WireCall; result: Change | Refusal } {
  let call = first;
  let result = outcome(plan, call);
  for (let tries = 0; tries < 14 && result instanceof Refusal; tries++) {
    const { message, path } = result;
    call = heeding(plan, call, result, seed + tries);
    result = outcome(plan, call);
    // What a message says to write is not complained of in the same words.
    if (result instanceof Refusal && exampleIn(message) !== undefined && path.length > 0)
      expect([call.operation, result.path, withoutQuotes(result.message)]).not.toEqual([
        call.operation,
        path,
        withoutQuotes(message),
      ]);
  }
  return { call, result };
}

/** The plan after a change, which must be a plan that is read back as it is written, and be left by the inverse steps. */
function after(plan: Plan, change: Change): Plan {
  const applied = applyChange(plan, change);
  if (!applied.ok) throw new Error(`${change.label} does not apply`);
  const written = encodePlan(applied.plan);
  expect(encodePlan(planOfLists(written))).toEqual(written);
  const back = applyChange(applied.plan, { label: '', steps: invertSteps(change.steps) });
  expect(back.ok && encodePlan(back.plan)).toEqual(encodePlan(plan));
  return applied.plan;
}

test('an operation makes a sound change or says in words why not, whatever is filled in', () => {
  const made = new Map<string, number>();
  fc.assert(
    fc.property(
      fc.constantFrom(...sites),
      fc.array(fc.nat(), { minLength: 1, maxLength: 6 }),
      (site, seeds) => {
        let plan = site;
        for (const seed of seeds) {
          const { call, result } = insist(plan, callAtRandom(plan, seed), seed);
          if (result instanceof Refusal) continue;
          expect(withoutQuotes(result.label)).not.toMatch(NO_WORDS);
          const digest = ({ steps }: Change) => digestOf(steps.map(encodeStep));
          expect(digest(perform(afresh(plan), call, SEED))).toBe(digest(result));
          plan = after(plan, result);
          if (result.steps.length > 0) made.set(call.operation, (made.get(call.operation) ?? 0) + 1);
        }
      },
    ),
    { numRuns: runs(250), seed: 5 },
  );
  // Those that read text of their own form are seldom understood.
  expect(filledIn.filter((name) => made.has(name)).length).toBeGreaterThan(moreThan(filledIn.length * 0.8));
});
