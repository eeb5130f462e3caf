import { type Readings, type Trial, seenIn, trialKey } from '../../exercises';
import { type Plan, deriveBy } from '../../plan';
import { type Fault, faultKey, outOfTouch } from '../../rehearse';
import type { Place } from './place';

/** What is seen on a site with one deviation, and what is remembered of it. */

/** What was tried: as the rehearsal tries it, or something that was pulled. */
export type Tried = Trial | { readonly kind: 'fault'; readonly fault: Fault };

const keyOf = (trial: Tried): string => (trial.kind === 'fault' ? faultKey(trial.fault) : trialKey(trial));

/** Who is out of touch while something is pulled. */
export const pulled = deriveBy((plan, key: string): string =>
  outOfTouch(plan, JSON.parse(key) as Fault).join(' '),
);

/** What is known of a deviation: where it is, and what is seen of it, by what is tried. */
interface Known {
  readonly place: Place;
  readonly seen: Map<string, string>;
}
/** By place among the deviations; null where one does not go into the plan. */
type AllKnown = (Known | null | undefined)[];

const remembered = new WeakMap<Plan, { readonly today: string | null; readonly known: AllKnown }>();
/**
 * What is known of the deviations of a plan, for as long as that lives: whoever writes down one more test asks all of them
 * again. The sites themselves are not kept, as there are hundreds.
 */
export function knownOf(plan: Plan, today: string | null): AllKnown {
  const kept = remembered.get(plan);
  if (kept?.today === today) return kept.known;
  const known: AllKnown = [];
  remembered.set(plan, { today, known });
  return known;
}

/** What whoever tries it sees on a site with a deviation, of which some is known already. */
export const seeing =
  (plan: Plan, { place, seen }: Known, read: () => Readings) =>
  (trial: Tried): string => {
    const key = keyOf(trial);
    let what = seen.get(key);
    if (what === undefined) seen.set(key, (what = see(plan, place, read(), trial)));
    return what;
  };

function see(plan: Plan, place: Place, readings: Readings, trial: Tried): string {
  if (trial.kind !== 'fault') return seenIn(plan, trial, readings.of(trial));
  // What does not touch the links and the boxes between them is pulled with the same outcome.
  const matters = place.key.startsWith('link ') || plan.box.by('device', place.key.slice(7)).length > 0;
  return pulled(matters ? readings.plan : plan, faultKey(trial.fault));
}
