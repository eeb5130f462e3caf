import { type Plan, type Uplink, type Vlan, subnetsOf, vlansOf } from '../plan';
import { cellVerdict, zoneOfVlan } from '../model/policy';
import { homeOf } from './classes';
import { probe } from './probe';
import { PING } from './question';

/** Routers behind routers, told truthfully: who reaches whom as built, on one box with segments, and with separate gear. */

export interface Reached {
  readonly from: Vlan;
  readonly to: Vlan;
  /** As the plan is: by translation outwards, hardly ever inwards. */
  readonly built: boolean;
  /** Were all segments on one box, with the matrix of this site; null where a segment is in no zone. */
  readonly oneBox: boolean | null;
}

export interface Cascade {
  readonly uplink: Uplink;
  /** The segments behind the inner router, and those of the outer one. */
  readonly inner: readonly Vlan[];
  readonly outer: readonly Vlan[];
  readonly reached: readonly Reached[];
}

function reachedIn(plan: Plan, from: Vlan, to: Vlan, today: string | null): Reached {
  const [a, b] = [zoneOfVlan(plan, from.id), zoneOfVlan(plan, to.id)];
  return {
    from,
    to,
    built: probe(plan, { from: { vlan: from.id }, to: { vlan: to.id }, wanted: PING }, today).delivered,
    oneBox: a && b ? cellVerdict(plan, a, b, PING, from.id).passes : null,
  };
}

/** Every router that stands behind another, with who reaches whom by ping. Separate equipment reaches nobody. */
export function cascadesOf(plan: Plan, today: string | null): Cascade[] {
  return [...plan.uplink.values()].flatMap((uplink) => {
    if (uplink.segment === null) return [];
    const outerRouter = homeOf(plan, uplink.segment).router;
    const of = (device: string | undefined) =>
      vlansOf(plan).filter(
        ({ id }) => subnetsOf(plan, id).length > 0 && homeOf(plan, id).router?.device.id === device,
      );
    const inner = of(uplink.device);
    const outer = outerRouter ? of(outerRouter.device.id) : [];
    const pairs = [
      ...inner.flatMap((a) => outer.map((b) => [a, b] as const)),
      ...outer.flatMap((a) => inner.map((b) => [a, b] as const)),
    ];
    return [{ uplink, inner, outer, reached: pairs.map(([a, b]) => reachedIn(plan, a, b, today)) }];
  });
}
