import fc from 'fast-check';
import { Draft, type Plan, modelNamed } from '../plan';
import { commissionSite, drawnCommission, plainDrawing } from '../testing/commission';
import { done } from '../testing/plans';
import { runs } from '../testing/runs';
import { mayTurnBack, orderOf, plannedState, presentState, sheetOf, timedSteps, wayBackOf } from './index';

const sheetFor = (plan: Plan, comes: ReturnType<typeof commissionSite>['comes']) => {
  const now = presentState(plan, comes);
  return sheetOf(plan, now, orderOf(now, plannedState(plan)).entries);
};

/** The model of all boxes of a drawn site, known or not. */
function knowing(plan: Plan, set: object): Plan {
  const name = [...plan.box.values()][0]!.model;
  const draft = new Draft(done(plan, 'addModel', { name }), 'known');
  draft.update('model', modelNamed(draft.plan, name)!.id, set);
  return draft.plan;
}

test('time only goes on; what is saved takes longer to take back than what a restart takes back', () => {
  fc.assert(
    fc.property(drawnCommission, (drawn) => {
      const { plan, comes } = commissionSite(drawn);
      const { seats } = sheetFor(plan, comes);
      const steps = timedSteps(plan, seats);
      const all = seats.flatMap((seat) => seat.steps);
      expect(steps).toHaveLength(all.length);
      steps.forEach(({ ends }, at) => expect(ends).toBeGreaterThan(steps[at - 1]?.ends ?? 0));
      // With all the time in the world one can always turn back, with none never.
      expect(mayTurnBack(steps, Infinity)).toBe(steps.length);
      expect(mayTurnBack(steps, 0)).toBe(0);
      const total = steps.at(-1)?.ends ?? 0;
      for (const share of [0.3, 0.6, 0.9, 1.2]) {
        const upTo = mayTurnBack(steps, total * share);
        for (const { ends, back } of steps.slice(0, upTo))
          expect(ends + back).toBeLessThanOrEqual(total * share);
        const next = steps[upTo];
        if (next) expect(next.ends + next.back).toBeGreaterThan(total * share);
      }
      // The same is said of what was done as of what was foreseen.
      const done = all.map(({ device, kind, pages, count }) => ({ device, kind, pages, count }));
      for (const n of [1, Math.floor(all.length / 2), all.length])
        if (steps[n - 1]) expect(wayBackOf(plan, done.slice(0, n))).toBe(steps[n - 1]!.back);
    }),
    { numRuns: runs(60), seed: 8 },
  );
});

test('what is known of a model counts, and what was measured counts more', () => {
  const { plan, comes } = commissionSite(plainDrawing);
  const { seats } = sheetFor(plan, comes);
  const total = (site: Plan, pace?: Parameters<typeof timedSteps>[2]) =>
    timedSteps(site, seats, pace).at(-1)!.ends;
  const checks = seats.flatMap((seat) => seat.steps).filter(({ kind }) => kind === 'check').length;
  expect(checks).toBe(2);
  expect(total(knowing(plan, { starts: 220 })) - total(plan)).toBe(checks * 100);
  const measured = new Map([['check', 400] as const]);
  expect(total(plan, measured) - total(plan)).toBe(checks * (400 - 180));
  expect(total(knowing(plan, { starts: 999 }), measured)).toBe(total(plan, measured));
});

test('until a box is saved one restart takes everything back', () => {
  const { plan, comes } = commissionSite(plainDrawing);
  const { seats } = sheetFor(plan, comes);
  const steps = seats.flatMap((seat) => seat.steps);
  const timed = timedSteps(knowing(plan, { starts: 77 }), seats);
  expect(timed[0]!.back).toBe(77);
  const [first] = steps;
  const save = steps.findIndex(({ kind, device }) => kind === 'save' && device === first!.device);
  expect(timed[save]!.back).toBeGreaterThan(timed[save - 1]!.back);
  expect(steps[save]!.back).toBe('From here on a restart brings nothing back.');
  expect(first!.restarts).toBe(true);
  expect(steps[save]!.restarts).toBe(false);
});
