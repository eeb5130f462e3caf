import { type IpAddress, contains, familyOf } from '../../address';
import { type Plan, subnetsOf } from '../../plan';
import { anyGuards } from '../../model/guards';
import type { Hop } from '../../model/switching';
import { type Leg, type Router, holdersOf } from '../../model/routing';
import { type Place, deliver, placeOf } from '../frames';
import { type GuardStop, type Sender, arpStops, packet6Stops, packetStops, passagesOf } from './at-hop';

/** Who stands at one end of a wire: with the address it speaks from there. */
export interface WireEnd {
  readonly title: string;
  readonly place: Place;
  readonly vlan: string;
  readonly address: IpAddress;
}

/** A router at one of its legs. */
export const atLeg = (
  plan: Plan,
  { device }: Pick<Router, 'device'>,
  { vlan, address }: Pick<Leg, 'vlan' | 'address'>,
): WireEnd => ({ title: device.name, place: placeOf(plan, device.id), vlan, address });

/** An address as boxes in a segment know it; one that nobody has there was leased, where anything is. */
function senderIn(plan: Plan, vlan: string, address: IpAddress): Sender {
  const here = holdersOf(plan, address).filter(({ subnet }) => plan.subnet.get(subnet)!.vlan === vlan);
  const leased =
    here.length > 0
      ? here.some(({ assignment }) => assignment === 'reservation')
      : subnetsOf(plan, vlan).some(
          ({ id, prefix }) => contains(prefix, address) && plan.pool.group(id).size > 0,
        );
  return { address, records: here.map(({ id }) => id), leased };
}

/**
 * What guards do to a packet on a wire: to the ARP that asks for the receiver, to the answer, and to the packet itself. Null
 * where they let all of it pass.
 */
export function stoppedOnWire(
  plan: Plan,
  from: WireEnd,
  to: WireEnd,
  hops: readonly Hop[],
  sender: IpAddress,
): GuardStop | null {
  if (!anyGuards(plan)) return null;
  const way = passagesOf(hops);
  // Neighbours are found by link-local addresses, which source guard lets pass.
  if (familyOf(to.address) === 6)
    return packet6Stops(plan, way, senderIn(plan, from.vlan, sender))[0] ?? null;
  const asked = arpStops(plan, way, senderIn(plan, from.vlan, from.address));
  const back = passagesOf(deliver(plan, to.place, to.vlan, from.place, from.vlan).hops);
  const [first] = [
    ...asked,
    ...arpStops(plan, back, senderIn(plan, to.vlan, to.address)),
    ...packetStops(plan, way, senderIn(plan, from.vlan, sender)),
  ];
  return first ?? null;
}
