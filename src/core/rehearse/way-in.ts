import { type IpAddress, contains, familyOf, formatAddress } from '../address';
import {
  type Forward,
  type Plan,
  type Remedy,
  type Uplink,
  addressesOn,
  gatewaysOf,
  interfacesOf,
  subnetsOf,
} from '../plan';
import { type Wanted, wantedText } from '../model/policy';
import { routersIn } from '../model/routing';
import {
  forwardedTo,
  forwardsOf,
  letsForwardsIn,
  protocolsMeet,
  uplinkDown,
  uplinksOf,
} from '../model/uplink';
import { outsideAddress } from './host';
import type { Entrance } from './packet-walk';
import { forwardFor } from './router-ways';

/** How somebody in the Internet gets in: to an outside address, by a forward, or over IPv6 straight to a device. */

export interface WayIn extends Entrance {
  /** Whom the packet is sent to, and the port there. */
  readonly to: IpAddress;
  readonly port: number;
}
export interface NoWayIn {
  readonly why: string;
  readonly remedies: readonly Remedy[];
}

const shut = (why: string, remedies: readonly Remedy[] = []): NoWayIn => ({ why, remedies });

/** Why an uplink carries nothing to a router here; null when it does. */
function unserved(plan: Plan, uplink: Uplink): string | null {
  const down = uplinkDown(plan, uplink.id);
  if (down !== null) return `${uplink.name} is down: ${down}`;
  return routersIn(plan).has(uplink.device) ? null : `the device of ${uplink.name} does not route`;
}

/** Why nobody outside gets as far as the gateway on an uplink; null when somebody may. */
function unreached(plan: Plan, uplink: Uplink): string | null {
  const dead = unserved(plan, uplink);
  if (dead !== null) return dead;
  if (uplink.segment !== null) {
    const [gateway] = subnetsOf(plan, uplink.segment).flatMap(({ id }) => gatewaysOf(plan, id));
    const front = gateway && plan.device.get(plan.interface.get(gateway.interface)!.device)!.name;
    const own = plan.device.get(uplink.device)!.name;
    return `${own} stands behind ${front ?? 'another router'}, which forwards nothing to it`;
  }
  const { works, why } = letsForwardsIn(uplink);
  return works === false ? `${uplink.name}: ${why}` : null;
}

function by(plan: Plan, uplink: Uplink, forward: Forward | null, to: IpAddress, port: number): WayIn {
  const { works, why } = letsForwardsIn(uplink);
  const unknown = works === null && familyOf(to) === 4 ? why : null;
  return { router: routersIn(plan).get(uplink.device)!, uplink, forward, to, port, unknown };
}

/** IPv6 is routed: whoever has an address of a delegated prefix is sent packets, and the filter says the rest. */
function routedIn(plan: Plan, to: IpAddress, port: number): WayIn | NoWayIn {
  const uplink = uplinksOf(plan).find(({ delegated }) => delegated !== null && contains(delegated, to));
  if (!uplink)
    return shut(
      `${formatAddress(to)} is in no prefix that a provider delegates here, so nobody outside has a way to it`,
    );
  const dead = unserved(plan, uplink);
  if (dead !== null) return shut(dead);
  if (uplink.noForwards) return shut(`${uplink.name}: nothing is let in on this uplink`);
  return by(plan, uplink, null, to, port);
}

/** Does a forward lead to a port of a device, or where none is asked for of an address? */
function leads(
  plan: Plan,
  forward: Forward,
  { device, to, wanted }: { readonly device: string | null; readonly to: IpAddress; readonly wanted: Wanted },
): boolean {
  const last = forward.inside + forward.to - forward.from;
  const fits = wanted.protocol !== 'icmp' && protocolsMeet(forward.protocol, wanted.protocol);
  if (
    !forward.enabled ||
    forwardedTo(plan, forward) === null ||
    !fits ||
    wanted.port < forward.inside ||
    wanted.port > last
  )
    return false;
  return device === null
    ? addressesOn(plan, forward.target).some(({ address }) => address === to)
    : plan.interface.get(forward.target)!.device === device;
}

/** The way by which the Internet gets to an address, or to a device by whatever leads to it; or why it does not. */
export function wayIn(plan: Plan, device: string | null, to: IpAddress, wanted: Wanted): WayIn | NoWayIn {
  const uplinks = uplinksOf(plan).filter(({ enabled }) => enabled);
  const asked = uplinks.find((uplink) => outsideAddress(plan, uplink) === to);
  if (asked) {
    const why = unreached(plan, asked);
    return why === null ? by(plan, asked, forwardFor(plan, asked, wanted), to, wanted.port) : shut(why);
  }
  if (familyOf(to) === 6) return routedIn(plan, to, wanted.port);
  let closed: string | null = null;
  for (const uplink of uplinks) {
    const forward = forwardsOf(plan, uplink.id).find((one) => leads(plan, one, { device, to, wanted }));
    if (!forward) continue;
    closed = unreached(plan, uplink);
    if (closed === null)
      return by(
        plan,
        uplink,
        forward,
        outsideAddress(plan, uplink),
        forward.from + (wanted.port - forward.inside),
      );
  }
  return closed !== null ? shut(closed) : unforwarded(plan, device, to, wanted);
}

function unforwarded(plan: Plan, device: string | null, to: IpAddress, wanted: Wanted): NoWayIn {
  const open = uplinksOf(plan).find((uplink) => unreached(plan, uplink) === null);
  const card =
    device === null
      ? undefined
      : interfacesOf(plan, device).find((item) => addressesOn(plan, item.id).length > 0);
  const name = device === null ? formatAddress(to) : plan.device.get(device)!.name;
  return shut(
    `no forward leads to ${name} for ${wantedText(wanted)}`,
    open && card && wanted.protocol !== 'icmp'
      ? [
          {
            label: `Forward a port of ${open.name} to ${name}`,
            operation: 'addForward',
            input: { uplink: open.id, target: card.id, inside: wanted.port, protocol: wanted.protocol },
          },
        ]
      : [],
  );
}
