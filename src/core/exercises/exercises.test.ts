import { readFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { readPlanFile } from '../formats';
import { applySteps, equal, type Plan, planOf, siteOf, encodePlan } from '../plan';
import { bridgeRecordOf } from '../model/tree';
import { cardOf } from '../testing/internet';
import { deviceNamed, put, vlanFor } from '../testing/gear';
import { done, emptySite } from '../testing/plans';
import { soundPolicy } from '../testing/policy';
import { behindSwitch } from '../testing/routed';
import { RING, soundTrees, treeDamages } from '../testing/trees';
import { drawExercise, fallout, kindsOf, soundPlan } from './draw';
import { mostFaults } from './kind';
import { complaintOf, costOf, hintCosts, hintsOf, pointsOfFault, stands } from './hints';
import { type FaultKind, levels, stepsOf } from './kind';
import { kinds } from './kinds';
import { reportOf } from './report';
import { Readings } from './trials';
import { endedView, exerciseView, withHint } from './view';
import { runs } from '../testing/runs';

const TODAY = '2026-05-04';
const demo = (name: string) =>
  readPlanFile(readFileSync(path.join(process.cwd(), 'demo', `${name}.json`), 'utf8'));

/** A site in which one server leases to two segments, by a relay. */
function relayed(): Plan {
  const sound = soundPolicy();
  const server = cardOf(sound, 'cam-1').id;
  const staff = [...sound.subnet.values()].find(({ vlan }) => vlan === vlanFor(sound, 'staff').id)!;
  const pool = [...sound.pool.group(staff.id).values()][0]!;
  const gateway = [...sound.address.group(staff.id).values()].find((address) => address.gateway)!;
  const served = put(sound, 'pool', pool, { servedBy: [server] });
  return done(served, 'setRelay', { interface: gateway.interface, servers: [server] });
}
/** A ring of switches that its first box opens, and not a spanning tree. */
function ringed(): Plan {
  const plan = treeDamages.ring!(soundTrees(), 0, 1);
  return RING.reduce((next, name, i) => {
    const bridge = bridgeRecordOf(next, deviceNamed(next, name).id)!;
    return put(next, 'bridge', bridge, { ringManager: i === 0 });
  }, plan);
}

const sites: readonly Plan[] = [
  demo('1-row-house'),
  demo('2-clinic'),
  demo('3-creamery'),
  soundTrees(),
  behindSwitch(soundPolicy(), true),
  relayed(),
  ringed(),
];
const clinic = sites[1]!;

describe('the kinds of fault', () => {
  test('are at least 25, of every difficulty, each by a name of its own', () => {
    expect(kinds.length).toBeGreaterThanOrEqual(25);
    expect(new Set(kinds.map(({ id }) => id)).size).toBe(kinds.length);
    for (const level of levels) expect(kindsOf(level).length).toBeGreaterThanOrEqual(8);
  });

  test.each(kinds.map((kind): [string, FaultKind] => [kind.id, kind]))(
    '%s can be put into a site, is noticed there, and is gone once it is taken back',
    (_, kind) => {
      let noticed = 0;
      for (const plan of sites) {
        const sound = new Readings(plan, TODAY);
        const all = kind.spots(plan);
        for (const spot of all.filter((_spot, i) => i % Math.ceil(all.length / 12) === 0)) {
          const steps = stepsOf(plan, spot, 'x');
          expect(steps.length).toBeGreaterThan(0);
          const broken = applySteps(plan, steps);
          expect(broken.ok).toBe(true);
          if (!broken.ok) return;
          const mended = soundPlan(broken.plan, [{ steps }]);
          expect(steps.every(({ table, id }) => equal(mended[table].get(id), plan[table].get(id)))).toBe(
            true,
          );
          if (fallout(sound, { steps, near: spot.near }, TODAY)!.symptoms.length > 0) noticed++;
        }
        if (noticed > 0) return;
      }
      expect(noticed).toBeGreaterThan(0);
    },
  );

  test('name in the report what was done, in whole sentences', () => {
    for (const kind of kinds)
      for (const spot of sites.flatMap((plan) => kind.spots(plan).slice(0, 1)))
        expect(spot.told).toMatch(/^\S.* .*\.$/);
  });
});

const drawn = fc.record({
  site: fc.constantFrom(0, 1, 3),
  seed: fc.integer({ min: 1, max: 999_999 }),
  level: fc.constantFrom(...levels),
  count: fc.integer({ min: 1, max: mostFaults }),
});

describe('an exercise', () => {
  test('is the same for the same number, tells what still stands, and is solved by taking its faults back', () => {
    fc.assert(
      fc.property(drawn, ({ site, ...order }) => {
        const plan = sites[site]!;
        const exercise = drawExercise(plan, order, TODAY);
        expect(drawExercise(plan, order, TODAY).faults).toEqual(exercise.faults);
        expect(exercise.faults).toHaveLength(order.count);
        const touched = exercise.faults.flatMap(({ steps }) =>
          steps.map(({ table, id }) => `${table} ${id}`),
        );
        expect(new Set(touched).size).toBe(touched.length);
        for (const { kind } of exercise.faults)
          expect(kindsOf(order.level).map(({ id }) => id)).toContain(kind);

        const start = exercise.plan;
        expect(encodePlan(soundPlan(start, exercise.faults))).toEqual(encodePlan(plan));
        const kept = { start, faults: exercise.faults, level: order.level };
        const hints = exercise.faults.map(() => 0);
        const untouched = reportOf({ ...kept, now: start, hints }, TODAY);
        expect([untouched.points, untouched.harm]).toEqual([0, []]);
        const solved = reportOf({ ...kept, now: plan, hints }, TODAY);
        expect(solved.points).toBe(pointsOfFault * order.count);
        expect(solved.left).toEqual([]);
        for (const fault of solved.faults) {
          expect(fault.mended).toBe('back');
          expect(fault.tellings.length).toBeGreaterThan(0);
        }
        const sound = new Readings(plan, TODAY);
        const broken = new Readings(start, TODAY);
        for (const fault of exercise.faults) {
          const complaint = complaintOf(fault, fallout(sound, fault, TODAY)!, order.level);
          expect(stands(sound, broken, complaint)).toBe(true);
          expect(stands(sound, sound, complaint)).toBe(false);
          expect(complaint.text.includes(fault.since)).toBe(order.level < 3);
        }
      }),
      { numRuns: runs(40), seed: 7 },
    );
  });

  test('is refused where nobody would notice anything', () => {
    expect(() => drawExercise(emptySite(), { seed: 1, level: 1, count: 1 }, TODAY)).toThrow(
      /no fault of this difficulty \(easy\) would be noticed by anybody; choose fewer faults/,
    );
  });
});

describe('solving it', () => {
  const kind = kinds.find(({ id }) => id === 'plug-moved')!;
  const sound = new Readings(clinic, TODAY);
  const [spot] = kind.spots(clinic).filter((item) => {
    const fault = { steps: stepsOf(clinic, item, 'x'), near: item.near };
    return fallout(sound, fault, TODAY)!.symptoms.length > 0;
  });
  const steps = stepsOf(clinic, spot!, 'x');
  const { since, station, id } = kind;
  const fault = { kind: id, since, station, told: spot!.told, near: spot!.near, steps };
  const start = applySteps(clinic, steps);
  if (!start.ok) throw new Error('the fault does not fit');
  const alone = fallout(sound, fault, TODAY)!;
  const kept = { start: start.plan, faults: [fault], level: 1 as const };
  const device = clinic.device.get(spot!.near[0]!)!;
  const cable = start.plan.cable.get(steps[0]!.id)!;
  const before = clinic.cable.get(cable.id)!;
  const [to, from] = before.from === cable.from ? [before.to, cable.to] : [before.from, cable.from];
  const [meant, wrong] = [to, from].map((end) => clinic.port.get(end)!) as [
    NonNullable<ReturnType<typeof clinic.port.get>>,
    NonNullable<ReturnType<typeof clinic.port.get>>,
  ];

  test('another way counts as well: the port is set to what the device needs', () => {
    const now = put(start.plan, 'port', wrong, {
      ...meant,
      id: wrong.id,
      device: wrong.device,
      number: wrong.number,
    });
    const report = reportOf({ ...kept, now, hints: [1] }, TODAY);
    expect(report.faults[0]).toMatchObject({ mended: 'otherwise', hints: 1, points: pointsOfFault - 1 });
    expect(report.left.length).toBeGreaterThan(0);
  });

  test('pulling the plug, or taking the device out of the plan, mends nothing', () => {
    const pulled = done(start.plan, 'disconnect', { cable: cable.id });
    expect(reportOf({ ...kept, now: pulled, hints: [0] }, TODAY).points).toBe(0);
    const address = [...clinic.address.values()].find(
      ({ interface: card }) => clinic.interface.get(card)!.device === device.id,
    )!;
    const gone = done(start.plan, 'removeHosts', { addresses: [address.id] });
    expect(reportOf({ ...kept, now: gone, hints: [0] }, TODAY).faults[0]!.mended).toBe('no');
  });

  test('what the mending opens or breaks costs points and is named', () => {
    const off = put(clinic, 'uplink', [...clinic.uplink.values()][0]!, { enabled: false });
    const report = reportOf({ ...kept, now: off, hints: [0] }, TODAY);
    expect(report.faults[0]!.mended).toBe('back');
    expect(report.harm.length).toBeGreaterThan(0);
    expect(report.points).toBeLessThan(pointsOfFault);
    expect(report.harm[0]).toMatchObject({ by: expect.stringMatching(/^(Probe|DHCP)/) });
  });

  test('each hint tells more and costs more; the last one tells everything', () => {
    const hints = hintsOf(fault, alone);
    expect(hints).toHaveLength(hintCosts.length);
    expect(hints[0]).toBe('It is to be seen under Gear & ports.');
    expect(hints[1]).toMatch(/^(Probe|DHCP), .*“Stopped at|No address/);
    expect(hints[2]).toMatch(/^It is at cable /);
    expect(hints[3]).toBe(spot!.told);
    expect(costOf(hintCosts.length)).toBe(pointsOfFault);
    const state = { faults: [fault], hints: [3] };
    expect(withHint(state, 0)).toEqual([4]);
    expect(() => withHint({ ...state, hints: [4] }, 0)).toThrow(/All hints of complaint 1 are taken/);
    expect(() => withHint(state, 1)).toThrow(/There is no complaint 2 in this exercise; it has 1/);
  });

  test('the view of whoever solves it holds neither the faults nor hints that were not taken', () => {
    const state = {
      ...kept,
      original: { id: 'clinic', name: siteOf(clinic).name, revision: 0 },
      seed: 5,
      learner: 'Ada',
      hints: [1],
      startedAt: '2026-05-04T10:00:00.000Z',
      endedAt: null,
      report: null,
    };
    const { start: began, ...stored } = state;
    const view = exerciseView(stored, began, began, TODAY);
    expect(view).not.toHaveProperty('faults');
    expect(view.complaints[0]).toMatchObject({
      stands: true,
      nextCost: 2,
      hints: [hintsOf(fault, alone)[0]],
    });
    expect(JSON.stringify(view)).not.toContain(spot!.told);
    expect([view.points, view.of]).toEqual([9, 10]);
    expect(exerciseView(stored, began, clinic, TODAY).complaints[0]!.stands).toBe(false);
    expect(() => soundPlan(planOf({}), [fault])).toThrow(/not in this plan/);
    const report = reportOf({ ...kept, now: began, hints: [1] }, TODAY);
    expect(endedView({ ...stored, report }, report)).toMatchObject({
      complaints: [{ text: view.complaints[0]!.text, stands: true, nextCost: null }],
      points: 0,
      of: 10,
    });
  });
});
