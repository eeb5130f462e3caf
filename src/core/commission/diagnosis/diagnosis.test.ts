import { readFileSync } from 'node:fs';
import path from 'node:path';
import { type Spot, faultKinds, stepsOf, withSteps } from '../../exercises';
import { readPlanFile } from '../../formats';
import { type Plan, finish, portTitle } from '../../plan';
import { outOfTouch } from '../../rehearse';
import { drawnSpots, observing, seek, testsOf } from '../../testing/diagnosis';
import { counted, runs } from '../../testing/runs';
import { type Diagnosis, type Observed, diagnosing } from './index';

const TODAY = '2026-11-30';
const demo = (name: string) =>
  readPlanFile(readFileSync(path.join(process.cwd(), 'demo', `${name}.json`), 'utf8'));
const house = demo('1-row-house');
const clinic = demo('2-clinic');
const diagnosed = (plan: Plan, observed: readonly Observed[]): Diagnosis =>
  finish(diagnosing(plan, observed, TODAY));

/** The spot of a kind of fault that is told in these words. */
const spotOf = (plan: Plan, kind: string, told: RegExp): Spot =>
  faultKinds
    .find(({ id }) => id === kind)!
    .spots(plan)
    .find((one) => told.test(one.told))!;
const broken = (plan: Plan, kind: string, told: RegExp): Plan =>
  withSteps(plan, stepsOf(plan, spotOf(plan, kind, told), 'fault'))!;
const texts = (causes: Diagnosis['causes']) => causes.flatMap(({ told }) => told.map(({ text }) => text));
/** What comes of all tests of a plan on a site as it is. */
const tested = (plan: Plan, site: Plan): Observed[] =>
  testsOf(plan, TODAY).flatMap(observing(plan, site, TODAY));
const titles = ({ causes }: Diagnosis) => causes.map(({ place }) => place.title);

test.each([
  { name: 'row house', plan: house, seed: 3, count: runs(30) },
  { name: 'clinic', plan: clinic, seed: 5, count: runs(20) },
])(
  '$name: the true place is first in four of five faults, and among the first three in nineteen of twenty',
  ({ plan, seed, count }) => {
    const tests = testsOf(plan, TODAY);
    const found: number[] = [];
    for (const { spot } of drawnSpots(plan, seed)) {
      const sought = seek(plan, spot, tests, TODAY);
      if (sought) found.push(sought.rank);
      if (found.length === count) break;
    }
    const among = (places: number) => found.filter((rank) => rank >= 0 && rank < places).length / count;
    if (counted) expect([among(1) >= 0.8, among(3) >= 0.95]).toEqual([true, true]);
    else expect(found.every((rank) => rank >= 0)).toBe(true);
  },
);

test('a VLAN that is missing on a link is told from what else cuts its segment off by one test more', () => {
  const spot = spotOf(clinic, 'vlan-forgotten', /^VLAN 20 .* is missing from what sw-rack 1 carries/);
  const { diagnosis, rank } = seek(clinic, spot, testsOf(clinic, TODAY), TODAY)!;
  expect(rank).toBeLessThan(2);
  const link = diagnosis.causes[rank]!;
  expect(link.place.title).toBe('the link gw-1 2 to sw-rack 1');
  expect(texts([link])).toContain('VLAN 20 Reception and practice is missing from what gw-1 2 carries.');
  expect(link.explains).toBe(diagnosis.differing);
});

test('two tests are enough to look at the socket, and the next test tells the plug from the device', () => {
  const lease = testsOf(clinic, TODAY).find(({ trial }) => trial?.kind === 'lease')!;
  const port = clinic.port.get((lease.trial as { port: string }).port)!;
  const found = diagnosed(clinic, [{ key: lease.key, asExpected: false, landed: null }]);
  expect(found.differing).toBe(1);
  expect(titles(found)).toContain(`the socket ${portTitle(clinic, port)}`);
  expect(found.causes.reduce((sum, { share }) => sum + share, 0)).toBeLessThanOrEqual(1 + 1e-9);
  expect(found.next).not.toBeNull();
  // What is proposed says something else by the causes that are left: whatever comes of it, some of them are out.
  const key = found.next!.test.key;
  const after = [true, false].map((asExpected) =>
    diagnosed(clinic, [
      { key: lease.key, asExpected: false, landed: null },
      { key, asExpected, landed: null },
    ]),
  );
  const all = new Set(texts(found.causes));
  for (const { causes } of after) expect(texts(causes)).not.toEqual([...all]);
  // What is remembered of earlier questions about a plan changes no answer.
  const fresh = diagnosed(demo('2-clinic'), [{ key: lease.key, asExpected: false, landed: null }]);
  expect({ ...fresh, next: fresh.next?.test.key }).toEqual({ ...found, next: key });
});

test('where somebody landed says more than that it differs', () => {
  const lease = testsOf(clinic, TODAY).find(({ trial }) => trial?.kind === 'lease')!;
  const other = [...clinic.vlan.values()].find(
    ({ id, name }) => id !== lease.seen && name === 'Waiting room',
  )!;
  const plain = diagnosed(clinic, [{ key: lease.key, asExpected: false, landed: null }]);
  const landed = diagnosed(clinic, [{ key: lease.key, asExpected: false, landed: other.id }]);
  expect(landed.causes.length).toBeLessThan(plain.causes.length);
  expect(texts(landed.causes).some((text) => text.includes('Waiting room'))).toBe(true);
});

test('an address of a network nobody planned is a second server, whatever else is found', () => {
  const lease = testsOf(house, TODAY).find(({ trial }) => trial?.kind === 'lease')!;
  const found = diagnosed(house, [{ key: lease.key, asExpected: false, landed: 'foreign' }]);
  expect(found.differing).toBe(1);
  expect(found.causes).toHaveLength(1);
  expect(texts(found.causes)[0]).toMatch(/^A second DHCP server answers in /);
});

test('a host that answers its own network only is found by its own firewall', () => {
  const tests = testsOf(clinic, TODAY);
  const observed = tests.flatMap(observing(clinic, clinic, TODAY));
  const at = tests.findIndex(
    ({ trial, seen }) =>
      trial?.kind === 'talk' &&
      'device' in trial.question.to &&
      'port' in trial.question.from &&
      seen === 'answers',
  );
  const found = diagnosed(clinic, observed.with(at, { ...observed[at]!, asExpected: false }));
  expect(texts(found.causes).some((text) => text.includes('The firewall of'))).toBe(true);
});

test('two faults at once are each named with how much they explain', () => {
  const one = broken(clinic, 'network-name', /Harrow Lane/);
  const both = broken(one, 'forward-off', /switched off/);
  const found = diagnosed(clinic, tested(clinic, both));
  expect(found.differing).toBeGreaterThan(1);
  expect(found.causes.every(({ explains }) => explains < found.differing)).toBe(true);
  expect(titles(found)).toEqual(expect.arrayContaining(['the network Harrow Lane']));
  expect(titles(found).some((title) => title.startsWith('forward'))).toBe(true);
  expect(new Set(titles(found)).size).toBe(found.causes.length);
});

test('what the plan itself makes otherwise is no fault of the work, and what is no test is passed over', () => {
  const tests = testsOf(house, TODAY);
  expect(tests.some(({ amiss }) => amiss !== '')).toBe(true);
  const observed = tests.flatMap(observing(house, house, TODAY));
  expect(observed.some(({ asExpected }) => !asExpected)).toBe(true);
  const none = { differing: 0, causes: [], next: null };
  expect(diagnosed(house, observed)).toEqual(none);
  expect(diagnosed(house, [{ key: 'no such test', asExpected: false, landed: null }])).toEqual(none);
});

test('a ring that does not close is found by the cable that was pulled', () => {
  const plant = demo('3-creamery');
  const pulls = testsOf(plant, TODAY).flatMap((test) => (test.fault?.kind === 'cable' ? [test] : []));
  const [pull] = pulls;
  const { cable } = pull!.fault as Extract<NonNullable<typeof pull>['fault'], { kind: 'cable' }>;
  const nothing = { kind: 'cable', cable: 'none' } as const;
  // Nothing is noticed of a link that is out as long as the ring has the other way.
  const spot = faultKinds
    .find(({ id }) => id === 'link-out')!
    .spots(plant)
    .find((one) => {
      const site = withSteps(plant, stepsOf(plant, one, 'fault'))!;
      return (
        site.cable.get(cable) !== undefined &&
        outOfTouch(site, nothing).length === outOfTouch(plant, nothing).length &&
        outOfTouch(site, pull!.fault!).length > outOfTouch(plant, pull!.fault!).length
      );
    })!;
  const site = withSteps(plant, stepsOf(plant, spot, 'fault'))!;
  const others = tested(plant, site).slice(0, 30);
  const found = diagnosed(plant, [...others, { key: pull!.key, asExpected: false, landed: null }]);
  expect(found.differing).toBe(1);
  expect(texts(found.causes)).toContain(spot.told);
  // Where everybody stays in touch the links are out of suspicion.
  const sound = diagnosed(plant, [...others, { key: pull!.key, asExpected: true, landed: null }]);
  expect(sound).toEqual({ differing: 0, causes: [], next: null });
});
