import fc from 'fast-check';
import { writeBook } from './book';
import {
  kitOf,
  runSheetOf,
  settingsSheets,
  siteTests,
  wayInto,
  workedOrder,
  worksheetOf,
} from './commission';
import { perform } from './edit';
import { findInPlan } from './find';
import { FindingsEngine } from './findings';
import {
  bindingsCsv,
  channelsDrawing,
  faceDrawing,
  labelKinds,
  labelsOf,
  matrixDrawing,
  openFiles,
  portScheduleCsv,
  ruleScheduleCsv,
  scheduleCsv,
  tablesOf,
} from './formats';
import { logOf } from './log';
import { mapOf } from './model/map';
import { type Device, type Plan, applyChange, finish, vlansOf } from './plan';
import {
  type ProbeQuestion,
  askAll,
  cascadesOf,
  cutOffBy,
  discover,
  hardeningOf,
  probe,
  singleFaultsOf,
  whatIf,
} from './rehearse';
import { takenCall } from './testing/inputs';
import { changeAtRandom, drawPlan, withEveryKind } from './testing/kinds';
import { soundPolicy } from './testing/policy';
import { runs } from './testing/runs';
import { soundTrees } from './testing/trees';

/** All that is worked out of a plan is worked out of any plan, however little sense it makes, and is said in words. */

const TODAY = '2026-12-01';
const devicesOf = (plan: Plan): Device[] => [...plan.device.values()];

/** Questions between many kinds of ends. */
function* questions(plan: Plan): Iterable<ProbeQuestion> {
  const senders: ProbeQuestion['from'][] = [
    ...[...plan.port.values()].slice(0, 4).map(({ id }) => ({ port: id })),
    ...devicesOf(plan).map(({ id }) => ({ device: id })),
    ...vlansOf(plan).map(({ id }) => ({ vlan: id })),
    ...[...plan.tunnel.values()].map(({ id }) => ({ tunnel: id })),
    { internet: true },
  ];
  const receivers: ProbeQuestion['to'][] = [
    ...[...plan.address.values()].slice(0, 6).map(({ address }) => ({ address })),
    ...devicesOf(plan).map(({ id }) => ({ device: id })),
    { gateway: true },
    { internet: true },
  ];
  const wanted = [{ protocol: 'tcp', port: 443 } as const, { protocol: 'icmp', port: 8 } as const];
  for (const [at, from] of senders.entries())
    yield { from, to: receivers[(at * 7) % receivers.length]!, wanted: wanted[at % 2]! };
}

const follows: Readonly<Record<string, (plan: Plan) => unknown>> = {
  findings: (plan) => new FindingsEngine(plan, TODAY).all(),
  files: (plan) => openFiles(plan).map(({ text }) => text({ today: TODAY, revision: 7 })),
  tables: (plan) => tablesOf(plan).map(({ rows }) => rows(TODAY)),
  lists: (plan) => [scheduleCsv, portScheduleCsv, bindingsCsv].map((csv) => csv(plan)),
  'rule schedule': (plan) => ruleScheduleCsv(plan, TODAY),
  labels: (plan) => labelKinds.map((kind) => labelsOf(plan, kind)),
  drawings: (plan) => [matrixDrawing(plan), channelsDrawing(plan), mapOf(plan)],
  faces: (plan) => devicesOf(plan).map((device) => faceDrawing(plan, device)),
  order: (plan) => {
    const order = finish(workedOrder(plan));
    return [worksheetOf(plan, order), runSheetOf(plan, [], order.entries)];
  },
  'settings and tests': (plan) => [settingsSheets(plan, TODAY), siteTests(plan, TODAY), kitOf(plan)],
  'ways in': (plan) => devicesOf(plan).map(({ id }) => wayInto(plan, id)),
  questions: (plan) => [askAll(plan, TODAY), [...questions(plan)].map((asked) => probe(plan, asked, TODAY))],
  leases: (plan) =>
    [...plan.port.values()]
      .slice(0, 5)
      .map(({ id }) => discover(plan, { at: { port: id }, mac: null, rogueAt: null }, TODAY)),
  guards: (plan) =>
    cutOffBy(
      plan,
      devicesOf(plan).map(({ id }) => id),
    ),
  hardening: (plan) =>
    devicesOf(plan)
      .slice(0, 6)
      .map(({ id }) => hardeningOf(plan, id, TODAY)),
  failures: (plan) => [
    cascadesOf(plan, TODAY),
    singleFaultsOf(plan)
      .slice(0, 2)
      .map((fault) => whatIf(plan, [fault], TODAY)),
  ],
  find: (plan) => ['10.', 'sw', '2', '00:00:5e', 'vlan 20'].map((text) => findInPlan(plan, text)),
  book: (plan) =>
    finish(writeBook({ plan, log: logOf([]), revision: 7, today: TODAY, map: null }, new Set<string>())),
};

/** As it would be read somewhere: every text and number in it. */
const written = (value: unknown): string =>
  JSON.stringify(value, (_key, item: unknown) => {
    if (typeof item === 'bigint') return String(item);
    if (typeof item === 'number' && Number.isNaN(item)) return 'NaN';
    return item instanceof Map || item instanceof Set ? [...item] : item;
  }) ?? '';

const sites = [withEveryKind(soundTrees(soundPolicy()), 5), ...[1, 2, 3].map((seed) => drawPlan(seed))];

/** A plan after what people do, or after any change that records allow. */
function walked(start: Plan, path: readonly (readonly [boolean, number])[]): Plan {
  return path.reduce((plan, [done, seed]) => {
    if (!done) return changeAtRandom(plan, seed);
    const call = takenCall(plan, seed);
    if (!call) return plan;
    const applied = applyChange(plan, perform(plan, call, `c${seed}x`));
    return applied.ok ? applied.plan : plan;
  }, start);
}

test('whatever a plan holds, all that follows is worked out and said', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...sites),
      fc.array(fc.tuple(fc.boolean(), fc.nat()), { minLength: 1, maxLength: 6 }),
      (start, path) => {
        const plan = walked(start, path);
        for (const [what, worked] of Object.entries(follows))
          expect([what, /.{0,40}(undefined|NaN|\[object).{0,40}/.exec(written(worked(plan)))?.[0]]).toEqual([
            what,
            undefined,
          ]);
      },
    ),
    { numRuns: runs(30), seed: 4 },
  );
});
