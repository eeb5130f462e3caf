import {
  type FaultKind,
  Readings,
  type Spot,
  endDevices,
  faultKinds,
  pluggedIn,
  stepsOf,
  withSteps,
} from '../../exercises';
import { type Draft, type Plan, derive } from '../../plan';
import { socketGroups } from '../tests';
import { type Place, placeOfStep } from './place';
import { type Tried, knownOf, seeing } from './seen';

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

/** A site with a deviation in it, and where that is; null where it does not go into the plan. */
function brokenBy(plan: Plan, { spot }: Possible): { readonly site: Plan; readonly place: Place } | null {
  const steps = stepsOf(plan, spot, 'suspect');
  const site = withSteps(plan, steps);
  return site && steps[0] ? { site, place: placeOfStep(plan, steps[0]) } : null;
}

/** Every deviation by itself; null where it does not go into the plan, so that they can be counted. */
export function* suspectsOf(plan: Plan, today: string | null): Generator<Suspect | null, void> {
  const known = knownOf(plan, today);
  for (const [at, one] of possible(plan).entries()) {
    let site: Plan | undefined;
    if (known[at] === undefined) {
      const broken = brokenBy(plan, one);
      known[at] = broken && { place: broken.place, seen: new Map() };
      site = broken?.site;
    }
    const { kind, spot, weight } = one;
    let readings: Readings | undefined;
    // Only where something is asked that was not asked before.
    const read = () => (readings ??= new Readings(site ?? brokenBy(plan, one)!.site, today));
    yield (
      known[at] && {
        kind: kind.id,
        told: spot.told,
        near: spot.near,
        place: known[at].place,
        weight,
        seen: seeing(plan, known[at], read),
      }
    );
  }
}
