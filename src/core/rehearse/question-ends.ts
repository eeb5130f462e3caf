import { type Family, type IpAddress, familyOf } from '../address';
import { type Plan, addressesOn, interfacesOf, subnetsOf } from '../plan';
import { holdersOf, routersIn } from '../model/routing';
import { workingUplinks } from '../model/uplink';
import {
  type Host,
  farAddress,
  hostAt,
  newcomer,
  outsideAddress,
  residentIn,
  residentWhereFull,
} from './host';
import { newcomerAt } from './newcomer-at';
import type { ProbeQuestion, Sender } from './question';

/** Who sends the packet of a question, and to which address. */

/** Who sends, or why there is nobody to send. */
export function senderHost(
  plan: Plan,
  from: Sender,
  to: IpAddress | null,
  today: string | null,
): Host | string {
  if ('internet' in from || 'tunnel' in from) return 'it is no host of this site';
  if ('port' in from || 'ssid' in from) return newcomerAt(plan, from, to, today);
  if ('vlan' in from) {
    const { name } = plan.vlan.get(from.vlan)!;
    const family = to === null ? undefined : familyOf(to);
    return (
      newcomer(plan, from.vlan, { kind: 'assumed', device: null }, `a laptop in ${name}`, family, to) ??
      residentWhereFull(plan, from.vlan, family, to) ??
      `${name} has no addresses`
    );
  }
  const addresses = interfacesOf(plan, from.device).flatMap((item) => addressesOn(plan, item.id));
  const { name } = plan.device.get(from.device)!;
  const fitting = addresses.filter(({ address }) => to === null || familyOf(address) === familyOf(to));
  // A box with several addresses sends from the one that is in the network of the receiver, if there is one.
  const near = fitting.find(({ subnet }) => {
    const held = to === null ? [] : holdersOf(plan, to);
    return held.some((other) => other.subnet === subnet);
  });
  const chosen = near ?? fitting[0];
  if (chosen) return hostAt(plan, chosen);
  return addresses.length === 0 ? `${name} has no address` : `${name} has no IPv${familyOf(to!)} address`;
}

/** In a segment somebody who is there already is the best witness; where nobody is, a device as it would be leased. */
function inSegment(plan: Plan, vlan: string): IpAddress | Host | string {
  const { name } = plan.vlan.get(vlan)!;
  for (const subnet of subnetsOf(plan, vlan)) {
    const resident = residentIn(plan, subnet);
    if (resident) return resident.address;
  }
  return (
    newcomer(plan, vlan, { kind: 'assumed', device: null }, `a device in ${name}`) ??
    `${name} has no addresses`
  );
}

/** The address asked for, or who is imagined there, or why there is nobody. The gateway answers for nobody but itself. */
export function receiverAddress(
  plan: Plan,
  { from, to }: ProbeQuestion,
  today: string | null,
): IpAddress | Host | string {
  if ('address' in to) return to.address;
  if ('internet' in to) return farAddress(plan);
  if ('gateway' in to) {
    if ('internet' in from) {
      const [uplink] = workingUplinks(plan);
      return uplink ? outsideAddress(plan, uplink) : 'no uplink works';
    }
    if ('tunnel' in from) {
      const [leg] = routersIn(plan).get(plan.tunnel.get(from.tunnel)!.device)?.legs ?? [];
      return leg?.address ?? 'its router has no address inside';
    }
    const host = senderHost(plan, from, null, today);
    return typeof host === 'string' ? host : (host.gateway ?? `${host.title} has no gateway`);
  }
  if ('vlan' in to) return inSegment(plan, to.vlan);
  const { name } = plan.device.get(to.device)!;
  return addressesOfDevice(plan, from, to.device)[0] ?? `${name} has no address`;
}

/** Who asks and whom, as the probe takes them. `from` is null for somebody in the Internet; `imagined` is who is only thought to be there. */
export interface QuestionEnds {
  readonly from: Host | null;
  readonly to: IpAddress;
  readonly imagined: Host | null;
}
/** The ends of a question; why there are none, as a text. */
export function questionEnds(
  plan: Plan,
  question: ProbeQuestion,
  today: string | null,
): QuestionEnds | string {
  const receiver = receiverAddress(plan, question, today);
  if (typeof receiver === 'string') return receiver;
  const imagined = typeof receiver === 'object' ? receiver : null;
  const to = typeof receiver === 'object' ? receiver.address : receiver;
  if ('internet' in question.from) return { from: null, to, imagined };
  const from = senderHost(plan, question.from, to, today);
  return typeof from === 'string' ? from : { from, to, imagined };
}

/** The addresses of a device, first those of a family that the sender has, of these IPv4 before IPv6. */
export function addressesOfDevice(plan: Plan, from: Sender, device: string): IpAddress[] {
  const own =
    'device' in from
      ? new Set(addressesIn(plan, from.device).map(familyOf))
      : 'vlan' in from
        ? new Set(subnetsOf(plan, from.vlan).map(({ prefix }) => familyOf(prefix.address)))
        : new Set<Family>([4, 6]);
  const order = (address: IpAddress) => (own.has(familyOf(address)) ? 0 : 8) + familyOf(address);
  return addressesIn(plan, device).sort((a, b) => order(a) - order(b));
}
const addressesIn = (plan: Plan, device: string): IpAddress[] =>
  interfacesOf(plan, device).flatMap((item) => addressesOn(plan, item.id).map(({ address }) => address));
