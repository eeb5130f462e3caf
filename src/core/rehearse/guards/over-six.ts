import { type Plan, type Subnet, gatewaysOf } from '../../plan';
import { anyGuards } from '../../model/guards';
import { type Place, placeOf, wayOf } from '../frames';
import { type GuardStop, type Passage, advertStops, offer6Stops, passagesOf } from './at-hop';

/** What guards keep from somebody new over IPv6: the announcement of the router, the leases of servers. */
export interface KeptOverSix {
  /** Why no router announces itself there; null where one is heard, or nobody knows by which boxes. */
  readonly router: string | null;
  readonly lease: string | null;
}

const NOTHING: KeptOverSix = { router: null, lease: null };

export function keptOverSix(plan: Plan, { id, vlan }: Subnet, place: Place): KeptOverSix {
  if (!anyGuards(plan)) return NOTHING;
  /** Why none of some cards is heard; one that no guard stops is enough. */
  const silenced = (
    cards: readonly string[],
    stopped: (plan: Plan, way: readonly Passage[]) => readonly GuardStop[],
  ): string | null => {
    const stops = cards.map((card) => {
      const hops = wayOf(plan, placeOf(plan, plan.interface.get(card)!.device), vlan, place)?.hops;
      return hops ? (stopped(plan, passagesOf(hops))[0]?.why ?? null) : null;
    });
    return stops.every((why) => why !== null) ? (stops[0] ?? null) : null;
  };
  return {
    router: silenced(
      gatewaysOf(plan, id).map(({ interface: card }) => card),
      advertStops,
    ),
    lease: silenced(
      [...plan.pool.group(id).values()].flatMap(({ servedBy }) => servedBy),
      offer6Stops,
    ),
  };
}
