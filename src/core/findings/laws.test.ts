import fc from 'fast-check';
import { stepsBetween } from '../formats/review-file';
import { perform } from '../operations';
import { applyChange } from '../plan/change';
import { Refusal } from '../plan/refusal';
import { build, damagedSite, damages, nextSeed, walk } from '../testing/plans';
import { buildGear, damagedGear, gearDamages, gearWalk, soundGear } from '../testing/gear';
import { buildInternet, damagedInternet, internetDamages, soundInternet } from '../testing/internet';
import { buildPolicy, damagedPolicy, policyDamages, soundPolicy } from '../testing/policy';
import { gearChecks } from './checks/gear';
import { internetChecks } from './checks/internet';
import { policyChecks } from './checks/policy';
import { FindingsEngine, allChecks } from './engine';

/** Plans with addresses gone wrong, and plans with gear gone wrong: each must show every check of its own. */
const sound = soundGear();
const connected = soundInternet();
const zoned = soundPolicy();
const kinds = [
  {
    name: 'addresses',
    drawn: damagedSite.map((site) => () => build(site)),
    walk,
    damages,
    checks: allChecks.filter(
      (check) => ![...gearChecks, ...internetChecks, ...policyChecks].includes(check as never),
    ),
    runs: 2000,
  },
  {
    name: 'gear',
    drawn: damagedGear.map((damage) => () => buildGear(damage, sound)),
    walk: gearWalk,
    damages: gearDamages,
    checks: gearChecks,
    runs: 1500,
  },
  {
    name: 'the Internet side',
    drawn: damagedInternet.map((damage) => () => buildInternet(damage, connected)),
    walk: damagedInternet,
    damages: internetDamages,
    checks: internetChecks,
    runs: 1500,
  },
  {
    name: 'who may talk',
    drawn: damagedPolicy.map((damage) => () => buildPolicy(damage, zoned)),
    walk: damagedPolicy,
    damages: policyDamages,
    checks: policyChecks,
    runs: 1200,
  },
];

const keys = (engine: FindingsEngine) => engine.all().sort((a, b) => (a.key < b.key ? -1 : 1));
const MINIMUM = 20;
const TODAY = '2026-05-04';

describe.each(kinds)('the laws of findings: $name', ({ drawn, walk, damages, checks, runs }) => {
  test('following the steps gives the same findings as looking at everything again', () => {
    fc.assert(
      fc.property(drawn, walk, (make, path) => {
        const start = make();
        const engine = new FindingsEngine(start, TODAY);
        let plan = start;
        let known = new Map(engine.all().map((finding) => [finding.key, finding]));
        for (const [name, a, b] of path) {
          const next = damages[name]!(plan, a, b);
          const diff = engine.advance(next, stepsBetween(plan, next));
          known = new Map(known);
          for (const key of diff.removed) known.delete(key);
          for (const finding of diff.added) known.set(finding.key, finding);
          plan = next;
        }
        const full = keys(new FindingsEngine(plan, TODAY));
        expect(keys(engine)).toEqual(full);
        expect([...known.values()].sort((a, b) => (a.key < b.key ? -1 : 1))).toEqual(full);
      }),
      { numRuns: 300, seed: 11 },
    );
  });

  test('keys are unique', () => {
    fc.assert(
      fc.property(drawn, (make) => {
        const plan = make();
        const all = new FindingsEngine(plan, TODAY).all().map((finding) => finding.key);
        expect(new Set(all).size).toBe(all.length);
      }),
      { numRuns: 200, seed: 5 },
    );
  });

  test('taking a remedy removes its finding and adds no stop, for every remedy there is', () => {
    const taken = new Map<string, number>();
    const offered = new Set<string>();
    const seen = new Set<string>();
    fc.assert(
      fc.property(drawn, (make) => {
        const plan = make();
        const before = new FindingsEngine(plan, TODAY).all();
        for (const finding of before) seen.add(finding.check);
        // A record that was at a stop already may be at another one afterwards; no other record may come to one.
        const stops = new Set(
          before.filter((item) => item.severity === 'stop').map((item) => item.where[0]!.id),
        );
        for (const finding of before)
          for (const remedy of finding.remedies) {
            const name = `${finding.check} by ${remedy.operation}`;
            offered.add(name);
            let after;
            try {
              const applied = applyChange(plan, perform(plan, remedy, nextSeed()));
              if (!applied.ok) throw new Error(`${name} does not apply`);
              after = new FindingsEngine(applied.plan, TODAY).all();
            } catch (error) {
              // No room is an honest answer on a full subnet; anything else is a broken remedy.
              if (error instanceof Refusal && error.code === 'no-room') continue;
              throw error;
            }
            const left = after.map((item) => item.key);
            if (left.includes(finding.key))
              throw new Error(`${name} leaves ${finding.key}: ${finding.because}`);
            const added = after.filter((item) => item.severity === 'stop' && !stops.has(item.where[0]!.id));
            if (added.length)
              throw new Error(`${name} on ${finding.because} adds ${added[0]!.key}: ${added[0]!.because}`);
            taken.set(name, (taken.get(name) ?? 0) + 1);
          }
      }),
      { numRuns: runs, seed: 7 },
    );
    // The remedies of the other kinds' checks are counted there.
    const own = new Set(checks.map((check) => check.id));
    const rare = [...offered].filter(
      (name) => own.has(name.split(' ')[0]!) && (taken.get(name) ?? 0) < MINIMUM,
    );
    expect(rare).toEqual([]);
    expect(checks.map((check) => check.id).filter((id) => !seen.has(id))).toEqual([]);
  }, 120_000);
});
