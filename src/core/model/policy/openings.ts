import { type Forward, type Plan, type Zone, addressesOn, portsText } from '../../plan';
import { forwardsOf, targetOf, uplinksOf } from '../uplink';
import { zoneOfVlan } from './zones';

/** The forwards in force that lead from a zone outside into another: they open what the matrix keeps shut. */
export function forwardsInto(plan: Plan, from: Zone, to: Zone): readonly Forward[] {
  if (from.uplinks.length === 0) return [];
  return uplinksOf(plan)
    .filter(({ id, enabled, noForwards }) => from.uplinks.includes(id) && enabled && !noForwards)
    .flatMap(({ id }) => forwardsOf(plan, id))
    .filter(
      ({ enabled, target }) =>
        enabled &&
        addressesOn(plan, target).some(
          ({ subnet }) => zoneOfVlan(plan, plan.subnet.get(subnet)!.vlan)?.id === to.id,
        ),
    );
}

/** A forward in words: `recorder tcp 443`, by the ports it has inside. */
export function forwardText(plan: Plan, forward: Forward): string {
  const { protocol, inside, from, to } = forward;
  return `${targetOf(plan, forward).name} ${portsText(protocol, inside, inside + to - from)}`;
}
