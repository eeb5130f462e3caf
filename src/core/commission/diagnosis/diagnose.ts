import { type Trial, readTrial, seenIn, trialKey, trialsFor } from '../../exercises';
import { type Plan, type Progress, type Vlan, type Work, counted, groupBy } from '../../plan';
import { type SiteTest, furtherTest, furtherTrials, siteTests, trialsAround } from '../tests';
import type { Place } from './place';
import { type Suspect, countOf, suspectsOf } from './suspects';

/** What came of tests, and which single deviations from the plan would give exactly that. */

export interface Observed {
  /** Of the test. */
  readonly key: string;
  readonly asExpected: boolean;
  /** Where one landed instead: a segment by its id, or one of `landings`; null where nobody said. */
  readonly landed: string | null;
}

export interface Cause {
  readonly place: Place;
  /** What may have been done there, likeliest first: an example of each kind, and in how many ways more. */
  readonly told: readonly { readonly text: string; readonly more: number }[];
  /** How many of the tests that differ it explains. */
  readonly explains: number;
  /** How likely it is among those that explain as much, from 0 to 1. */
  readonly share: number;
}

export interface Diagnosis {
  /** How many tests came out otherwise than the plan makes them. */
  readonly differing: number;
  readonly causes: readonly Cause[];
  /** The test that tells most of the causes apart; null where none does. */
  readonly next: { readonly at: string; readonly test: SiteTest } | null;
}

/** A test that was made: what was seen, or what was not. */
interface Made {
  readonly trial: Trial;
  readonly is: string | null;
  readonly not: string | null;
  /** It is not what the plan makes of it. */
  readonly differs: boolean;
}

const fits = ({ is, not }: Pick<Made, 'is' | 'not'>, seen: string): boolean =>
  is === null ? seen !== not : seen === is;
const seenBy = (plan: Plan, { readings }: Suspect, trial: Trial): string =>
  seenIn(plan, trial, readings.of(trial));
const shows = (plan: Plan, suspect: Suspect, made: Made): boolean =>
  fits(made, seenBy(plan, suspect, made.trial));

/** Two causes at least are told apart; of more than so many only the likeliest. */
const TOLD_APART = 20;
/** So many tests are looked at for one that tells them apart. */
const LOOKED_AT = 160;
const CAUSES = 8;
const TOLD = 6;

function madeOf(
  plan: Plan,
  tests: ReadonlyMap<string, SiteTest>,
  observed: readonly Observed[],
  today: string | null,
): Made[] {
  const made = (trial: Trial, seen: Pick<Made, 'is' | 'not'>): Made => ({
    trial,
    ...seen,
    differs: !fits(seen, seenIn(plan, trial, readTrial(plan, trial, today))),
  });
  return observed.flatMap(({ key, asExpected, landed }): Made[] => {
    const test = tests.get(key);
    if (!test?.trial || test.seen === null || landed === 'foreign') return [];
    const { trial, seen } = test;
    if (asExpected) return [made(trial, { is: seen, not: null })];
    if (landed !== null) return [made(trial, { is: landed === 'nowhere' ? '' : landed, not: null })];
    return [made(trial, { is: null, not: seen })];
  });
}

/** Who is leased an address of a network that nobody planned hears another server: nothing in the plan gives that. */
function foreignLeases(
  plan: Plan,
  tests: ReadonlyMap<string, SiteTest>,
  observed: readonly Observed[],
): { readonly causes: readonly Cause[]; readonly explained: number } {
  const met = observed.flatMap(({ key, landed }) => {
    const vlan = landed === 'foreign' ? plan.vlan.get(tests.get(key)?.seen ?? '') : undefined;
    return vlan ? [vlan] : [];
  });
  const causes = [...groupBy(met, ({ id }) => id).values()].map((items): Cause => {
    const [{ id, name }] = items as [Vlan];
    return {
      place: { key: `servers ${id}`, title: `who leases addresses in ${name}` },
      told: [
        {
          text: `A second DHCP server answers in ${name}: a router or modem with its own still on. Its MAC address stands in the lease; look it up in the MAC tables of the switches.`,
          more: 0,
        },
      ],
      explains: items.length,
      share: 1,
    };
  });
  return { causes, explained: met.length };
}

interface Fitting {
  readonly suspect: Suspect;
  /** How many of the tests that differ it explains. */
  readonly explains: number;
}

/** The suspects that give everything that was seen, and nothing else. */
function* fitting(plan: Plan, made: readonly Made[], today: string | null): Work<Fitting[]> {
  const found: Fitting[] = [];
  const explains = made.filter(({ differs }) => differs).length;
  for (const suspect of suspectsOf(plan, today)) {
    yield;
    if (suspect && made.every((one) => shows(plan, suspect, one))) found.push({ suspect, explains });
  }
  return found;
}

/** The suspects that explain some of what differs, and give nothing that was not seen: for two faults at once. */
function* fittingInPart(plan: Plan, made: readonly Made[], today: string | null): Work<Fitting[]> {
  const found: Fitting[] = [];
  const [differing, others] = [made.filter(({ differs }) => differs), made.filter(({ differs }) => !differs)];
  for (const suspect of suspectsOf(plan, today)) {
    yield;
    if (!suspect) continue;
    const explains = differing.filter((one) => shows(plan, suspect, one)).length;
    if (explains > 0 && others.every((one) => shows(plan, suspect, one))) found.push({ suspect, explains });
  }
  return found;
}

/** Each place once, with the most that something done there explains. */
function causesOf(found: readonly Fitting[]): Cause[] {
  const weightOf = (items: typeof found) => items.reduce((sum, { suspect }) => sum + suspect.weight, 0);
  const places = [...groupBy(found, ({ suspect, explains }) => `${explains} ${suspect.place.key}`).values()];
  return places
    .map((items): Cause => {
      const { explains, suspect } = items[0]!;
      const as = found.filter((other) => other.explains === explains);
      const kinds = [...groupBy(items, (item) => item.suspect.kind).values()];
      const told = kinds.toSorted((a, b) => weightOf(b) - weightOf(a));
      return {
        place: suspect.place,
        told: told.map(([item, ...more]) => ({ text: item!.suspect.told, more: more.length })),
        explains,
        share: weightOf(items) / weightOf(as),
      };
    })
    .sort((a, b) => b.explains - a.explains || b.share - a.share)
    .filter(({ place }, at, all) => all.findIndex((other) => other.place.key === place.key) === at);
}

/** How likely the place is guessed after a test: of each thing that may be seen the likeliest place. */
function telling(plan: Plan, suspects: readonly Suspect[], trial: Trial): readonly [number, number] {
  const seen = groupBy(suspects, (suspect) => seenBy(plan, suspect, trial));
  let [guessed, apart] = [0, 0];
  for (const items of seen.values()) {
    const places = groupBy(items, ({ place }) => place.key);
    const weights = [...places.values()].map((own) => own.reduce((sum, { weight }) => sum + weight, 0));
    const all = weights.reduce((sum, weight) => sum + weight, 0);
    guessed += Math.max(...weights);
    apart -= all * all;
  }
  return [guessed, apart];
}

const better = (a: readonly [number, number], b: readonly [number, number]): boolean =>
  a[0] > b[0] + 1e-9 || (a[0] > b[0] - 1e-9 && a[1] > b[1] + 1e-9);

function* nextTrial(plan: Plan, suspects: readonly Suspect[], open: readonly Trial[]): Work<Trial | null> {
  let best: { readonly trial: Trial; readonly tells: readonly [number, number] } | null = null;
  const [one, ...others] = [...groupBy(suspects, ({ place }) => place.key).values()].map(([first]) => first!);
  for (const trial of open.slice(0, LOOKED_AT)) {
    yield;
    // Most trials say the same of all places: one suspect of each shows that soonest.
    const seen = one && seenBy(plan, one, trial);
    if (others.every((other) => seenBy(plan, other, trial) === seen)) continue;
    const tells = telling(plan, suspects, trial);
    if (!best || better(tells, best.tells)) best = { trial, tells };
  }
  return best?.trial ?? null;
}

function* diagnosed(plan: Plan, observed: readonly Observed[], today: string | null): Work<Diagnosis> {
  const rounds = siteTests(plan, today).rounds;
  const own = rounds.flatMap(({ at, tests }) => tests.map((test) => ({ at, test })));
  const tests = new Map(own.map(({ test }) => [test.key, test]));
  for (const { key } of observed) {
    const trial = tests.has(key) ? undefined : furtherTrials(plan).get(key);
    if (trial) tests.set(key, furtherTest(plan, trial, today).test);
  }
  // What differs tells most: a deviation that does not explain it is not asked further.
  const made = madeOf(plan, tests, observed, today).sort((a, b) => Number(b.differs) - Number(a.differs));
  const foreign = foreignLeases(plan, tests, observed);
  const count = made.filter(({ differs }) => differs).length;
  if (count === 0) return { differing: foreign.explained, causes: foreign.causes, next: null };
  const whole = yield* fitting(plan, made, today);
  const found = whole.length > 0 || count === 1 ? whole : yield* fittingInPart(plan, made, today);
  const causes = [...foreign.causes, ...causesOf(found)];
  const most = Math.max(0, ...found.map(({ explains }) => explains));
  const suspects = found
    .filter(({ explains }) => explains === most)
    .map(({ suspect }) => suspect)
    .toSorted((a, b) => b.weight - a.weight)
    .slice(0, TOLD_APART);
  const done = new Set(observed.map(({ key }) => key));
  const near = [...new Set(suspects.flatMap((suspect) => suspect.near))];
  const open = (trials: readonly Trial[]) => trials.filter((one) => !done.has(trialKey(one)));
  const trial = yield* nextTrial(plan, suspects, [
    ...open(own.flatMap(({ test }) => test.trial ?? [])).slice(0, LOOKED_AT / 2),
    ...open(trialsAround(plan, near)),
    ...open(trialsFor(plan, [])),
  ]);
  const next = trial
    ? (own.find(({ test }) => test.trial && trialKey(test.trial) === trialKey(trial)) ??
      furtherTest(plan, trial, today))
    : null;
  return {
    differing: count + foreign.explained,
    causes: causes.slice(0, CAUSES).map((cause) => ({ ...cause, told: cause.told.slice(0, TOLD) })),
    next,
  };
}

/**
 * The likely causes of what came of tests, ranked, with the test to make next. Tests that nobody makes any more are left out.
 * Tells how many deviations were tried, of how many.
 */
export const diagnosing = (
  plan: Plan,
  observed: readonly Observed[],
  today: string | null,
): Work<Diagnosis, Progress> => counted(diagnosed(plan, observed, today), 2 * countOf(plan) + LOOKED_AT);
