import { readFileSync } from 'node:fs';
import path from 'node:path';
import {
  cutOffsIn,
  lostWithoutOrder,
  orderOf,
  plannedState,
  presentState,
  settingsOf,
  siteTests,
} from '../../src/core/commission';
import { type Drawn, commissionSite } from '../../src/core/testing/commission';
import { type Sought, drawnSpots, seek, testsOf } from '../../src/core/testing/diagnosis';
import { readPlanFile } from '../../src/core/formats';
import { show } from './measure';

/** Draws as the tests do, from a counter instead of chance. */
function drawn(count: number, alike: boolean, seed = 7): Drawn {
  let at = seed;
  const next = (below: number) => (at = (at * 1_103_515_245 + 12_345) % 2 ** 31) % below;
  return {
    parents: Array.from({ length: count - 1 }, (_, i) => i >> 2),
    extra: [],
    comes: Array.from({ length: 8 }, () => (alike && next(3) === 0 ? ('alike' as const) : ('own' as const))),
    natives: Array.from(
      { length: count + 3 },
      () => (['none', 'none', 'management', 'staff'] as const)[next(4)]!,
    ),
    factory: 'default-vlan',
    jacks: Array.from({ length: 8 }, () => next(2) === 0),
    roles: Array.from({ length: 64 }, () => (['staff', 'guests', 'parked'] as const)[next(3)]!),
    single: Array.from({ length: 8 }, () => next(4) === 0),
    ways: Array.from({ length: 8 }, () => 'any-port' as const),
    bench: false,
  };
}

function large(alike: boolean) {
  const { plan, comes } = commissionSite(drawn(40, alike), 36);
  const [now, then] = [presentState(plan, comes), plannedState(plan)];
  const steps = settingsOf(now, then);
  let start = performance.now();
  const { entries } = orderOf(now, then);
  const took = performance.now() - start;
  const count = (kind: string) => entries.filter((entry) => entry.kind === kind).length;
  const parachutes = entries.filter(
    (entry) => entry.kind === 'step' && entry.step.setting.kind === 'parachute',
  ).length;
  console.log(
    `Commission: ${now.boxes.length} boxes${alike ? ', some alike' : ''}, ${steps.length} settings: ${count('sit')} places to sit, ${parachutes} parachutes, ${count('recorded')} recorded, ${count('console')} by console`,
  );
  start = performance.now();
  const cuts = cutOffsIn(now, entries);
  show('  every step of it checked from nothing', performance.now() - start);
  if (cuts.length > 0) throw new Error('the order cuts off');
  show('  the order', took);
  const first = entries.find((entry) => entry.kind === 'sit');
  if (first?.kind === 'sit')
    console.log(`  box by box as listed ${lostWithoutOrder(now, then, first.socket).length} are lost`);
}

/** In how many of drawn sites somebody loses a box who follows no order. */
function share() {
  const sites = 200;
  let lost = 0;
  for (let seed = 1; seed <= sites; seed++) {
    const { plan, comes } = commissionSite(drawn(2 + (seed % 7), seed % 2 === 0, seed));
    const [now, then] = [presentState(plan, comes), plannedState(plan)];
    const first = orderOf(now, then).entries.find((entry) => entry.kind === 'sit');
    if (first?.kind === 'sit' && lostWithoutOrder(now, then, first.socket).length > 0) lost++;
  }
  console.log(`Box by box as listed, boxes are lost in ${lost} of ${sites} drawn sites`);
}

/** What came of the tests of a site with a fault in it, and what would explain it. */
function diagnosis() {
  const today = '2026-11-30';
  for (const [name, seed, count] of [
    ['1-row-house', 3, 20],
    ['2-clinic', 5, 20],
    ['3-creamery', 7, 10],
  ] as const) {
    const plan = readPlanFile(readFileSync(path.join(process.cwd(), 'demo', `${name}.json`), 'utf8'));
    const tests = testsOf(plan, today);
    const found: Sought[] = [];
    for (const { spot } of drawnSpots(plan, seed)) {
      const sought = seek(plan, spot, tests, today);
      if (sought) found.push(sought);
      if (found.length === count) break;
    }
    const among = (places: number) => found.filter(({ rank }) => rank >= 0 && rank < places).length;
    console.log(
      `Diagnosis, ${name}: the true place is first in ${among(1)} of ${count} faults, among three in ${among(3)}`,
    );
    show(`  the longest, of ${tests.length} results`, Math.max(...found.map(({ longest }) => longest)));
  }
}

/** The tests of a site with so many switches, by the count of its boxes. */
function manyTests() {
  const { plan } = commissionSite(drawn(200, false), 48);
  const start = performance.now();
  const { rounds } = siteTests(plan, '2026-11-30');
  const took = performance.now() - start;
  const tests = rounds.reduce((sum, round) => sum + round.tests.length, 0);
  show(`Tests of ${plan.box.size} boxes: ${tests} at ${rounds.length} places`, took);
}

large(false);
large(true);
share();
manyTests();
diagnosis();
