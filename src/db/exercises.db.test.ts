import type { Pool } from 'mysql2/promise';
import { type Step, applySteps, vlansOf } from '../core/plan';
import { done, emptySite } from '../core/testing/plans';
import { createExercise, endExercise, exerciseOf, exercisesMadeOf, keepHints } from './exercises';
import { deleteSite, listSites, loadPlan } from './sites';
import { AT, storedSite, testDatabase } from '../server/testing';

let pool: Pool;
beforeAll(async () => {
  pool = await testDatabase();
});
afterAll(() => pool.end());

describe('exercises', () => {
  test('are kept with their faults, their hints, and a report that is written once', async () => {
    const plan = done(emptySite(), 'addSegment', { purpose: 'staff' });
    const original = await storedSite(pool, plan);
    const [vlan] = vlansOf(plan);
    const steps: Step[] = [
      { table: 'vlan', id: vlan!.id, before: vlan!, after: { ...vlan!, internet: !vlan!.internet } },
    ];
    const applied = applySteps(plan, steps);
    if (!applied.ok) throw new Error('the fault does not fit');
    const told = 'It may no longer reach the Internet.';
    const fault = {
      kind: 'no-internet',
      told,
      station: 'policy' as const,
      since: 'since',
      near: ['d1'],
      steps,
    };
    const id = `e${original}`.slice(0, 32);
    await createExercise(pool, id, applied.plan, {
      original: { id: original, name: 'Yard', revision: 0 },
      seed: 77,
      level: 2,
      learner: 'Ada',
      faults: [fault],
      startedAt: AT,
    });
    const kept = (await exerciseOf(pool, id))!;
    expect(kept).toMatchObject({
      seed: 77,
      level: 2,
      hints: [0],
      startedAt: AT,
      endedAt: null,
      report: null,
    });
    expect(kept.faults).toEqual([fault]);
    expect(await exerciseOf(pool, original)).toBeNull();
    expect((await listSites(pool)).find((site) => site.id === id)!.exercise).toBe('open');

    expect(await keepHints(pool, id, [0], [1])).toBe(true);
    // Somebody else took one at the same moment.
    expect(await keepHints(pool, id, [0], [1])).toBe(false);
    const report = { points: 9, of: 10, faults: [], harm: [], left: [] };
    expect(await endExercise(pool, id, report, AT)).toBe(true);
    expect(await endExercise(pool, id, { ...report, points: 10 }, AT)).toBe(false);
    expect(await keepHints(pool, id, [1], [2])).toBe(false);
    expect(await exercisesMadeOf(pool, original)).toMatchObject([
      { site: id, hints: [1], report, endedAt: AT, learner: 'Ada' },
    ]);
    await deleteSite(pool, id);
    expect(await exercisesMadeOf(pool, original)).toEqual([]);
    expect((await loadPlan(pool, original))!.plan.vlan.size).toBe(plan.vlan.size);
  });
});
