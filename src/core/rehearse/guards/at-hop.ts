import { formatAddress, type IpAddress } from '../../address';
import { type Plan, portTitle } from '../../plan';
import { boundAt, guardsOf, portGuardsOf } from '../../model/guards';
import type { Hop } from '../../model/switching';

/** What the guards of a box do to a frame that comes in by a port, hop by hop on its way. */

/** What guards see of a frame at one box: the port it came in by, null for the inside, and the VLAN it is in. */
export interface Passage {
  readonly device: string;
  readonly port: string | null;
  readonly vid: number;
}
/** The way of a frame as guards see it. */
export const passagesOf = (hops: readonly Hop[]): Passage[] =>
  hops.map(({ device, entered, vid }) => ({
    device,
    port: entered && entered.number !== 0 ? entered.id : null,
    vid,
  }));

/** Where a guard stops a frame, and why. */
export interface GuardStop {
  readonly device: string;
  readonly port: string;
  readonly why: string;
}

/** Whose frame it is: the records of its address in its segment, and whether the address was leased. */
export interface Sender {
  /** Null for one that nobody recorded: leased, or made by the device for itself. */
  readonly address: IpAddress | null;
  readonly records: readonly string[];
  readonly leased: boolean;
}

type AtPort = Passage & { readonly port: string };
type Rule = (
  at: AtPort,
  guards: NonNullable<ReturnType<ReturnType<typeof guardsOf>['get']>>,
) => string | null;

/** Where a rule stops a frame, were it to get there; the inside of a box is never guarded against itself. */
function stopsBy(plan: Plan, way: readonly Passage[], rule: Rule): GuardStop[] {
  const stops: GuardStop[] = [];
  for (const { device, port, vid } of way) {
    if (port === null) continue;
    const guards = guardsOf(plan, device).get(vid);
    const why = guards ? rule({ device, port, vid }, guards) : null;
    if (why !== null) stops.push({ device, port, why });
  }
  return stops;
}

const named = (plan: Plan, device: string): string => plan.device.get(device)?.name ?? 'a box';
const drops = (plan: Plan, { device, port }: AtPort, what: string): string =>
  `${named(plan, device)} drops ${what} at ${portTitle(plan, plan.port.get(port)!)}`;

/** An answer of a DHCP server: dropped where a port is not trusted for it. */
export const offerStops = (plan: Plan, way: readonly Passage[]): readonly GuardStop[] =>
  stopsBy(plan, way, (at, { snooping }) =>
    snooping && !portGuardsOf(plan, at.port).trustsDhcp
      ? `${drops(plan, at, 'answers of DHCP servers')}, which is not trusted for them`
      : null,
  );

/** Does a box on the way write into a request by which port it came (RFC 3046)? */
const isWritten = (plan: Plan, way: readonly Passage[], until: string | null): boolean => {
  for (const { device, port, vid } of way) {
    if (device === until) return false;
    const guards = guardsOf(plan, device).get(vid);
    if (guards?.snooping && guards.option82 && port !== null && !portGuardsOf(plan, port).trustsDhcp)
      return true;
  }
  return false;
};

/**
 * A request of a DHCP client: a second box that guards takes it for forged once the first has written option 82 into it
 * (RFC 3046 section 2.1), unless the port is trusted.
 */
export const requestStops = (plan: Plan, way: readonly Passage[]): readonly GuardStop[] =>
  stopsBy(plan, way, (at, { snooping }) =>
    snooping && !portGuardsOf(plan, at.port).trustsDhcp && isWritten(plan, way, at.device)
      ? `${drops(plan, at, 'requests that carry option 82')}, which is not trusted`
      : null,
  );
/** Does a request arrive with option 82, which a relay drops from who is no relay (RFC 3046 section 2.1)? */
export const isMarked = (plan: Plan, way: readonly Passage[]): boolean => isWritten(plan, way, null);

/** What a box knows of an address: entered by hand, or learned from the lease it saw. */
const isBound = (plan: Plan, device: string, { records, leased }: Sender, watches: boolean): boolean =>
  (leased && watches) || records.some((id) => boundAt(plan, device).has(id));

function unbound(plan: Plan, device: string, { address, leased }: Sender): string {
  const box = named(plan, device);
  const it = address === null ? 'it' : formatAddress(address);
  if (leased) return `${box} watches no leases there, so it knows none for ${it}`;
  return address === null
    ? `${box} knows of no address that a device makes for itself`
    : `${box} has no binding for ${it}`;
}

/** ARP of somebody: dropped where a port is not trusted for it and nothing binds the address. */
export const arpStops = (plan: Plan, way: readonly Passage[], sender: Sender): readonly GuardStop[] =>
  stopsBy(plan, way, (at, guards) =>
    guards.inspection &&
    !portGuardsOf(plan, at.port).trustsArp &&
    !isBound(plan, at.device, sender, guards.snooping)
      ? `${drops(plan, at, 'its ARP')}: ${unbound(plan, at.device, sender)}`
      : null,
  );

/** A packet of somebody: dropped where a port is not trusted and nothing binds the address of its sender. */
export const packetStops = (plan: Plan, way: readonly Passage[], sender: Sender): readonly GuardStop[] =>
  stopsBy(plan, way, (at, guards) =>
    guards.sourceGuard &&
    !portGuardsOf(plan, at.port).trustsDhcp &&
    !isBound(plan, at.device, sender, guards.snooping)
      ? `${drops(plan, at, 'its packets')}: ${unbound(plan, at.device, sender)}`
      : null,
  );

/** The same over IPv6, where it is leases of DHCPv6 that a box may have seen (RFC 7513). */
export const packet6Stops = (plan: Plan, way: readonly Passage[], sender: Sender): readonly GuardStop[] =>
  stopsBy(plan, way, (at, guards) =>
    guards.sourceGuard6 &&
    !portGuardsOf(plan, at.port).trustsDhcp &&
    !isBound(plan, at.device, sender, guards.dhcp6Guard)
      ? `${drops(plan, at, 'its IPv6 packets')}: ${unbound(plan, at.device, sender)}`
      : null,
  );

/** An advertisement of a router over IPv6: dropped where a port is not trusted for it (RFC 6105). */
export const advertStops = (plan: Plan, way: readonly Passage[]): readonly GuardStop[] =>
  stopsBy(plan, way, (at, { raGuard }) =>
    raGuard && !portGuardsOf(plan, at.port).trustsRouters
      ? `${drops(plan, at, 'router advertisements')}, which is not trusted for them`
      : null,
  );

/** An answer of a DHCPv6 server (RFC 7610). */
export const offer6Stops = (plan: Plan, way: readonly Passage[]): readonly GuardStop[] =>
  stopsBy(plan, way, (at, { dhcp6Guard }) =>
    dhcp6Guard && !portGuardsOf(plan, at.port).trustsDhcp
      ? `${drops(plan, at, 'answers of DHCPv6 servers')}, which is not trusted for them`
      : null,
  );
