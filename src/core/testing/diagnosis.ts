import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import {
  type Diagnosis,
  type Observed,
  type SiteTest,
  diagnosing,
  furtherTest,
  placeOfStep,
  siteTests,
} from '../commission';
import {
  type FaultKind,
  type Spot,
  Readings,
  fallout,
  faultKinds,
  seenIn,
  stepsOf,
  withSteps,
} from '../exercises';
import { type Plan, finish } from '../plan';

/** Somebody who tests a site that has a fault in it, writes down what comes of it, and makes the test that is proposed next. */

/** How many tests more are made than those of the site. */
const MORE = 3;

/** What somebody writes down who makes a test on a site as it is, and knows the plan. */
export function observing(plan: Plan, site: Plan, today: string): (test: SiteTest) => Observed[] {
  const readings = new Readings(site, today);
  return ({ key, trial, seen }) => {
    if (!trial) return [];
    const saw = seenIn(plan, trial, readings.of(trial));
    const asExpected = saw === seen;
    const lands = trial.kind === 'lease' || trial.kind === 'join';
    return [{ key, asExpected, landed: asExpected || !lands ? null : saw === '' ? 'nowhere' : saw }];
  };
}

export const testsOf = (plan: Plan, today: string): readonly SiteTest[] =>
  siteTests(plan, today).rounds.flatMap(({ tests }) => tests);

export interface Sought {
  readonly told: string;
  /** At which place of the list the true one stands, from 0; -1 where it is not in it. */
  readonly rank: number;
  readonly diagnosis: Diagnosis;
  /** The most that a diagnosis took, in milliseconds. */
  readonly longest: number;
}

/** Seeks a fault that was put into a plan; null where nobody notices it. */
export function seek(plan: Plan, spot: Spot, tests: readonly SiteTest[], today: string): Sought | null {
  const steps = stepsOf(plan, spot, 'fault');
  const broken = withSteps(plan, steps);
  if (!broken || steps.length === 0) return null;
  const observe = observing(plan, broken, today);
  const observed = tests.flatMap(observe);
  const asPlanned = tests.flatMap(observing(plan, plan, today));
  if (
    observed.every(
      ({ asExpected, landed }, i) =>
        asExpected === asPlanned[i]!.asExpected && landed === asPlanned[i]!.landed,
    )
  ) {
    const complaint = fallout(new Readings(plan, today), { steps, near: spot.near }, today)?.symptoms[0];
    if (!complaint) return null;
    observed.push(...complaint.trials.flatMap((trial) => observe(furtherTest(plan, trial, today).test)));
  }
  let longest = 0;
  const diagnose = (): Diagnosis => {
    const start = performance.now();
    const found = finish(diagnosing(plan, observed, today));
    longest = Math.max(longest, performance.now() - start);
    return found;
  };
  let diagnosis = diagnose();
  if (diagnosis.differing === 0) return null;
  for (let more = 0; more < MORE && diagnosis.next; more++) {
    observed.push(...observe(diagnosis.next.test));
    diagnosis = diagnose();
  }
  const places = new Set(steps.map((step) => placeOfStep(plan, step).key));
  const rank = diagnosis.causes.findIndex(({ place }) => places.has(place.key));
  return { told: spot.told, rank, diagnosis, longest };
}

/** Faults as the exercises draw them: each kind as often as every other, at each of its spots. The same from the same seed. */
export function* drawnSpots(plan: Plan, seed: number): Generator<{ kind: FaultKind; spot: Spot }, never> {
  const kinds = faultKinds
    .map((kind) => ({ kind, spots: kind.spots(plan) }))
    .filter(({ spots }) => spots.length > 0);
  const random = xoroshiro128plus(seed);
  const one = <T>(items: readonly T[]): T => items[uniformInt(random, 0, items.length - 1)]!;
  for (;;) {
    const { kind, spots } = one(kinds);
    yield { kind, spot: one(spots) };
  }
}
