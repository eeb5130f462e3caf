import { readTrial, seenIn } from '../../exercises';
import type { Plan } from '../../plan';
import { faultKey } from '../../rehearse';
import type { SiteTest } from '../tests';
import { type Tried, pulled } from './seen';
import type { Suspect } from './suspects';

/** What came of tests, as it can be held against what a deviation would give. */

export interface Observed {
  /** Of the test. */
  readonly key: string;
  readonly asExpected: boolean;
  /** Where one landed instead: a segment by its id, or one of `landings`; null where nobody said. */
  readonly landed: string | null;
}

/** A test that was made: what was seen, or what was not. */
export interface Made {
  readonly trial: Tried;
  readonly is: string | null;
  readonly not: string | null;
  /** It is not what the plan makes of it. */
  readonly differs: boolean;
}

export const fits = ({ is, not }: Pick<Made, 'is' | 'not'>, seen: string): boolean =>
  is === null ? seen !== not : seen === is;

export const shows = ({ seen }: Suspect, made: Made): boolean => fits(made, seen(made.trial));

/** The tests that were made; those that nobody makes any more are left out. */
export function madeOf(
  plan: Plan,
  tests: ReadonlyMap<string, SiteTest>,
  observed: readonly Observed[],
  today: string | null,
): Made[] {
  const made = (trial: Tried, seen: Pick<Made, 'is' | 'not'>, planned: string): Made => ({
    trial,
    ...seen,
    differs: !fits(seen, planned),
  });
  return observed.flatMap(({ key, asExpected, landed }): Made[] => {
    const test = tests.get(key);
    if (test?.fault) {
      const { fault } = test;
      const planned = pulled(plan, faultKey(fault));
      const seen = asExpected ? { is: planned, not: null } : { is: null, not: planned };
      return [made({ kind: 'fault', fault }, seen, planned)];
    }
    if (!test?.trial || test.seen === null || landed === 'foreign') return [];
    const { trial, seen } = test;
    const planned = seenIn(plan, trial, readTrial(plan, trial, today));
    if (asExpected) return [made(trial, { is: seen, not: null }, planned)];
    if (landed !== null) return [made(trial, { is: landed === 'nowhere' ? '' : landed, not: null }, planned)];
    return [made(trial, { is: null, not: seen }, planned)];
  });
}
