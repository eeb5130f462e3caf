import { formatAddress, type IpAddress } from '../../address';
import { type Plan, portTitle } from '../../plan';
import { boundAt, guardsOf, portGuardsOf } from '../../model/guards';
import type { Hop } from '../../model/switching';
import type { WiredPort } from '../../model/wiring';

/** What the guards of a box do to a frame that comes in by a port, hop by hop on its way. */

/** Where a guard stops a frame, and why. */
export interface GuardStop {
  readonly device: string;
  readonly port: WiredPort;
  readonly why: string;
}

/** Whose frame it is: the records of its address in its segment, and whether the address was leased. */
export interface Sender {
  readonly address: IpAddress;
  readonly records: readonly string[];
  readonly leased: boolean;
}

type Rule = (
  hop: Hop & { readonly entered: WiredPort },
  guards: NonNullable<ReturnType<ReturnType<typeof guardsOf>['get']>>,
) => string | null;

/** The hops at which a rule stops a frame, were it to get there; the inside of a box is never guarded against itself. */
function stopsBy(plan: Plan, hops: readonly Hop[], rule: Rule): GuardStop[] {
  const stops: GuardStop[] = [];
  for (const hop of hops) {
    const { device, entered, vid } = hop;
    if (!entered || entered.number === 0) continue;
    const guards = guardsOf(plan, device).get(vid);
    const why = guards ? rule({ ...hop, entered }, guards) : null;
    if (why !== null) stops.push({ device, port: entered, why });
  }
  return stops;
}

const named = (plan: Plan, device: string): string => plan.device.get(device)?.name ?? 'a box';
const drops = (
  plan: Plan,
  { device, entered }: Hop & { readonly entered: WiredPort },
  what: string,
): string => `${named(plan, device)} drops ${what} at ${portTitle(plan, entered)}`;

/** An answer of a DHCP server: dropped where a port is not trusted for it. */
export const offerStops = (plan: Plan, hops: readonly Hop[]): readonly GuardStop[] =>
  stopsBy(plan, hops, (hop, { snooping }) =>
    snooping && !portGuardsOf(plan, hop.entered.id).trustsDhcp
      ? `${drops(plan, hop, 'answers of DHCP servers')}, which is not trusted for them`
      : null,
  );

/** Does a box on the way write into a request by which port it came (RFC 3046)? */
const isWritten = (plan: Plan, hops: readonly Hop[], until: string | null): boolean => {
  for (const { device, entered, vid } of hops) {
    if (device === until) return false;
    const guards = guardsOf(plan, device).get(vid);
    if (guards?.snooping && guards.option82 && entered && !portGuardsOf(plan, entered.id).trustsDhcp)
      return true;
  }
  return false;
};

/**
 * A request of a DHCP client: a second box that guards takes it for forged once the first has written option 82 into it
 * (RFC 3046 section 2.1), unless the port is trusted.
 */
export const requestStops = (plan: Plan, hops: readonly Hop[]): readonly GuardStop[] =>
  stopsBy(plan, hops, (hop, { snooping }) =>
    snooping && !portGuardsOf(plan, hop.entered.id).trustsDhcp && isWritten(plan, hops, hop.device)
      ? `${drops(plan, hop, 'requests that carry option 82')}, which is not trusted`
      : null,
  );
/** Does a request arrive with option 82, which a relay drops from who is no relay (RFC 3046 section 2.1)? */
export const isMarked = (plan: Plan, hops: readonly Hop[]): boolean => isWritten(plan, hops, null);

/** What a box knows of an address: entered by hand, or learned from the lease it saw. */
const isBound = (
  plan: Plan,
  device: string,
  { records, leased }: Sender,
  { snooping }: { readonly snooping: boolean },
): boolean => (leased && snooping) || records.some((id) => boundAt(plan, device).has(id));

const unbound = (plan: Plan, device: string, { address, leased }: Sender): string =>
  leased
    ? `${named(plan, device)} watches no leases there, so it knows none for ${formatAddress(address)}`
    : `${named(plan, device)} has no binding for ${formatAddress(address)}`;

/** ARP of somebody: dropped where a port is not trusted for it and nothing binds the address. */
export const arpStops = (plan: Plan, hops: readonly Hop[], sender: Sender): readonly GuardStop[] =>
  stopsBy(plan, hops, (hop, guards) =>
    guards.inspection &&
    !portGuardsOf(plan, hop.entered.id).trustsArp &&
    !isBound(plan, hop.device, sender, guards)
      ? `${drops(plan, hop, 'its ARP')}: ${unbound(plan, hop.device, sender)}`
      : null,
  );

/** A packet of somebody: dropped where a port is not trusted and nothing binds the address of its sender. */
export const packetStops = (plan: Plan, hops: readonly Hop[], sender: Sender): readonly GuardStop[] =>
  stopsBy(plan, hops, (hop, guards) =>
    guards.sourceGuard &&
    !portGuardsOf(plan, hop.entered.id).trustsDhcp &&
    !isBound(plan, hop.device, sender, guards)
      ? `${drops(plan, hop, 'its packets')}: ${unbound(plan, hop.device, sender)}`
      : null,
  );

/** An advertisement of a router over IPv6: dropped where a port is not trusted for it (RFC 6105). */
export const advertStops = (plan: Plan, hops: readonly Hop[]): readonly GuardStop[] =>
  stopsBy(plan, hops, (hop, { raGuard }) =>
    raGuard && !portGuardsOf(plan, hop.entered.id).trustsRouters
      ? `${drops(plan, hop, 'router advertisements')}, which is not trusted for them`
      : null,
  );

/** An answer of a DHCPv6 server (RFC 7610). */
export const offer6Stops = (plan: Plan, hops: readonly Hop[]): readonly GuardStop[] =>
  stopsBy(plan, hops, (hop, { dhcp6Guard }) =>
    dhcp6Guard && !portGuardsOf(plan, hop.entered.id).trustsDhcp
      ? `${drops(plan, hop, 'answers of DHCPv6 servers')}, which is not trusted for them`
      : null,
  );
