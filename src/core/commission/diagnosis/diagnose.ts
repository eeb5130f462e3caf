import { type Trial, trialKey, trialsFor } from '../../exercises';
import { type Plan, type Progress, type Vlan, type Work, counted, groupBy } from '../../plan';
import { type SiteTest, furtherTest, furtherTrials, siteTests, trialsAround } from '../tests';
import { type Made, type Observed, madeOf, shows } from './made';
import { LOOKED_AT, nextTrial } from './next-test';
import type { Place } from './place';
import { type Suspect, countOf, suspectsOf } from './suspects';

/** What came of tests, and which single deviations from the plan would give exactly that. */

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

/** Two causes at least are told apart; of more than so many only the likeliest. */
const TOLD_APART = 20;
const CAUSES = 8;
const TOLD = 6;

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
    if (suspect && made.every((one) => shows(suspect, one))) found.push({ suspect, explains });
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
    const explains = differing.filter((one) => shows(suspect, one)).length;
    if (explains > 0 && others.every((one) => shows(suspect, one))) found.push({ suspect, explains });
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
  const trial = yield* nextTrial(suspects, [
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
