import fc from 'fast-check';
import { changeAtRandom, drawnPlan } from '../testing/kinds';
import { done, emptySite } from '../testing/plans';
import { moreThan, runs } from '../testing/runs';
import { stepsBetween } from './between';
import { applyChange, invertSteps } from './change';
import { planOfLists } from './lists';
import type { Plan } from './plan';
import { Refusal } from './refusal';
import { withStepsTaken } from './revert';
import { requireSound } from './sound';
import { vlansOf } from './view';
import { encodePlan } from './wire';

/** The plan after steps were taken, or null where they are refused. */
function taken(plan: Plan, steps: Parameters<typeof withStepsTaken>[2]): Plan | null {
  try {
    const applied = applyChange(plan, withStepsTaken(plan, 'Undo', steps));
    if (!applied.ok) throw new Error('does not apply');
    return applied.plan;
  } catch (error) {
    if (error instanceof Refusal) return null;
    throw error;
  }
}

test('undoing any of many changes is refused or leaves a plan that is read back', () => {
  const counts = { taken: 0, refused: 0 };
  fc.assert(
    fc.property(
      drawnPlan,
      fc.array(fc.integer(), { minLength: 2, maxLength: 8 }),
      fc.nat(),
      (start, path, which) => {
        const plans = [planOfLists(encodePlan(start))];
        for (const seed of path) plans.push(changeAtRandom(plans.at(-1)!, seed));
        const at = which % path.length;
        const last = plans.at(-1)!;
        const undone = taken(last, invertSteps(stepsBetween(plans[at]!, plans[at + 1]!)));
        counts[undone ? 'taken' : 'refused']++;
        if (undone) planOfLists(encodePlan(undone));
      },
    ),
    { numRuns: runs(400), seed: 3 },
  );
  expect(counts.refused).toBeGreaterThan(moreThan(5));
  expect(counts.taken).toBeGreaterThan(moreThan(200));
});

describe('steps are refused', () => {
  const plan = done(done(emptySite(), 'addSegment', { purpose: 'staff' }), 'addSegment', {
    purpose: 'voice',
  });
  const [staff, voice] = [vlansOf(plan)[0]!, vlansOf(plan)[1]!];
  const subnet = [...plan.subnet.values()].find(({ vlan }) => vlan === staff.id)!;
  const after = (next: Partial<typeof staff>) => [
    { table: 'vlan' as const, id: staff.id, before: staff, after: { ...staff, ...next } },
  ];

  test('where a record would not be what its kind allows, by field', () => {
    expect(() => requireSound(plan, after({ vid: 5000 }))).toThrow(
      'VLAN id is 5000; write a whole number from 1 to 4094',
    );
    expect(() => requireSound(plan, after({ name: 'x'.repeat(300) }))).toThrow(/name.* longer than/);
    requireSound(plan, after({ vid: 77 }));
  });
  test('where something would refer to nothing', () => {
    const astray = { ...subnet, vlan: 'nosuch' };
    expect(() =>
      requireSound(plan, [{ table: 'subnet', id: subnet.id, before: subnet, after: astray }]),
    ).toThrow('This segment is no longer in the plan');
  });
  test('where something is still used, which is named', () => {
    expect(() => requireSound(plan, [{ table: 'vlan', id: voice.id, before: voice, after: null }])).toThrow(
      'The segment “Voice (VLAN 20)” is still used by the network card “gw-1 in Voice”. Change or remove that first.',
    );
  });
});
