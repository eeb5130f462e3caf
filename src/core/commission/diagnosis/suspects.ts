import {
  type FaultKind,
  Readings,
  type Spot,
  type Trial,
  endDevices,
  faultKinds,
  pluggedIn,
  seenIn,
  stepsOf,
  trialKey,
  withSteps,
} from '../../exercises';
import { type Draft, type Plan, derive, deriveBy } from '../../plan';
import { type Fault, faultKey, outOfTouch } from '../../rehearse';
import { socketGroups } from '../tests';
import { type Place, placeOfStep } from './place';

/** What may have gone wrong: every single deviation from the plan that people make. */

/** A host that lets in nobody from other networks, which nobody looked up. */
const hostFirewall: FaultKind = {
  id: 'host-firewall',
  level: 2,
  station: 'addresses',
  since: 'since a device was exchanged',
  spots: (plan) =>
    endDevices(plan)
      .filter(({ device }) => device.firewall === 'unknown' || device.firewall === 'none')
      .map(({ device }) => ({
        told: `The firewall of ${device.name} itself lets in nobody from outside its own network.`,
        near: [device.id],
        edit: (draft: Draft) => draft.update('device', device.id, { firewall: 'own-subnet' }),
      })),
};

/** What was tried: as the rehearsal tries it, or something that was pulled. */
export type Tried = Trial | { readonly kind: 'fault'; readonly fault: Fault };

export interface Suspect {
  readonly kind: string;
  readonly told: string;
  readonly near: readonly string[];
  readonly place: Place;
  /** Every kind is as likely as every other, and each of its spots as the others. */
  readonly weight: number;
  /** What whoever tries it sees on a site with this deviation. */
  readonly seen: (trial: Tried) => string;
}

interface Possible {
  readonly kind: FaultKind;
  readonly spot: Spot;
  readonly weight: number;
}

const possible = derive((plan): readonly Possible[] => {
  // The sockets that are tried are mostly free, and may be in any segment.
  const tried = socketGroups(plan).map(({ port }) => port);
  const sockets = [...new Set([...tried, ...pluggedIn(plan).map(({ port }) => port)])];
  return [...faultKinds, hostFirewall].flatMap((kind) => {
    const all = [...kind.spots(plan), ...sockets.flatMap((port) => kind.spotsAt?.(plan, port) ?? [])];
    const spots = [...new Map(all.map((spot) => [spot.told, spot])).values()];
    return spots.map((spot) => ({ kind, spot, weight: 1 / spots.length }));
  });
});

/** How many deviations there are. */
export const countOf = (plan: Plan): number => possible(plan).length;

/** Who is out of touch while something is pulled. */
export const pulled = deriveBy((plan, key: string): string =>
  outOfTouch(plan, JSON.parse(key) as Fault).join(' '),
);

/** What is seen on a site with one deviation. */
function see(plan: Plan, readings: Readings, place: Place, trial: Tried): string {
  if (trial.kind !== 'fault') return seenIn(plan, trial, readings.of(trial));
  // What does not touch the links and the boxes between them is pulled with the same outcome.
  const matters = place.key.startsWith('link ') || plan.box.by('device', place.key.slice(7)).length > 0;
  return pulled(matters ? readings.plan : plan, faultKey(trial.fault));
}

/** What is known of a deviation: where it is, and what is seen of it, by what is tried. */
interface Known {
  readonly place: Place;
  readonly seen: Map<string, string>;
}
/**
 * By place among the deviations; null where one does not go into the plan. Kept for as long as the plan, as whoever writes
 * down one more test asks all of them again. The sites themselves are not kept: there are hundreds.
 */
class Suspicions {
  readonly known: (Known | null | undefined)[] = [];
  constructor(readonly today: string | null) {}
}
const suspicions = new WeakMap<Plan, Suspicions>();
function suspicionsOf(plan: Plan, today: string | null): Suspicions {
  const kept = suspicions.get(plan);
  if (kept?.today === today) return kept;
  const made = new Suspicions(today);
  suspicions.set(plan, made);
  return made;
}

const keyOf = (trial: Tried): string => (trial.kind === 'fault' ? faultKey(trial.fault) : trialKey(trial));

/** Every deviation by itself; null where it does not go into the plan, so that they can be counted. */
export function* suspectsOf(plan: Plan, today: string | null): Generator<Suspect | null, void> {
  const { known: all } = suspicionsOf(plan, today);
  for (const [at, { kind, spot, weight }] of possible(plan).entries()) {
    let made: Readings | null = null;
    const readings = (): Readings =>
      (made ??= new Readings(withSteps(plan, stepsOf(plan, spot, 'suspect'))!, today));
    let known = all[at];
    if (known === undefined) {
      const steps = stepsOf(plan, spot, 'suspect');
      const broken = withSteps(plan, steps);
      known = broken && steps[0] ? { place: placeOfStep(plan, steps[0]), seen: new Map() } : null;
      all[at] = known;
      if (broken) made = new Readings(broken, today);
    }
    if (known === null) {
      yield null;
      continue;
    }
    const { place, seen } = known;
    yield {
      kind: kind.id,
      told: spot.told,
      near: spot.near,
      place,
      weight,
      seen: (trial) => {
        const key = keyOf(trial);
        let what = seen.get(key);
        if (what === undefined) seen.set(key, (what = see(plan, readings(), place, trial)));
        return what;
      },
    };
  }
}
