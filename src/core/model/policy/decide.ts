import { type IpAddress, contains } from '../../address';
import { derive, type Plan, type Device, type Zone, type RecordRef } from '../../plan';
import { type PlainRule, ruleHolds, plainRulesOf } from './analyse';
import { type TrafficRange, rangesMeet } from './traffic-range';
import { filterOf } from './enforce';
import { serviceNames } from './services';
import { boxesOfRule, onLine, serviceAt, servicesSpans } from './traffic';
import { isOutside, passing, zoneOfTunnel, zoneOfUplink, zoneOfVlan, zonesOf } from './zones';

/** What a box that filters makes of one packet. */

/** A port of tcp or udp, a type of icmp. */
export interface Wanted {
  readonly protocol: 'tcp' | 'udp' | 'icmp';
  readonly port: number;
}

export const wantedText = ({ protocol, port }: Wanted): string =>
  protocol === 'icmp' ? (port === 8 ? 'ping' : `icmp ${port}`) : `${protocol} ${port}`;

/**
 * One side of a packet at a box: in a segment, outside an uplink, behind a tunnel, or the box itself; outside for a box that has no
 * uplink of its own; or in no zone, with the reason.
 */
export type PacketSide =
  | { readonly vlan: string }
  | { readonly outside: true }
  | { readonly nowhere: string }
  | { readonly uplink: string }
  | { readonly tunnel: string }
  | { readonly gateway: true };

export interface Verdict {
  readonly passes: boolean;
  /** Why, in words that stand alone. */
  readonly why: string;
  /** The rule or cell that says so; null where it is what is usual. */
  readonly on: RecordRef | null;
  readonly zones: { readonly from: Zone; readonly to: Zone } | null;
}

export function zoneOfSide(plan: Plan, side: PacketSide): Zone | undefined {
  if ('vlan' in side) return zoneOfVlan(plan, side.vlan);
  if ('nowhere' in side) return undefined;
  if ('outside' in side) return zonesOf(plan).find(isOutside);
  if ('uplink' in side) return zoneOfUplink(plan, side.uplink);
  if ('tunnel' in side) return zoneOfTunnel(plan, side.tunnel);
  return zonesOf(plan).find(({ gateway }) => gateway);
}

/** The boxes of traffic of every rule, worked out once for a plan. */
const spoken = derive((plan) => plainRulesOf(plan).map((rule) => ({ rule, boxes: boxesOfRule(plan, rule) })));

const meets = (boxes: readonly TrafficRange[], packet: TrafficRange) =>
  boxes.some((box) => rangesMeet(box, packet));
const point = (at: bigint): readonly [bigint, bigint] => [at, at];

/** The first rule that holds on a box and speaks of a packet. */
export function ruleFor(
  plan: Plan,
  box: string,
  from: IpAddress,
  to: IpAddress,
  wanted: Wanted,
  today: string | null,
): { readonly rule: PlainRule; readonly place: number } | null {
  const packet: TrafficRange = [
    point(onLine(from)),
    point(onLine(to)),
    point(serviceAt(wanted.protocol, wanted.port)),
  ];
  const at = spoken(plan).findIndex(
    ({ rule, boxes }) =>
      ruleHolds(rule, today) && (rule.device === null || rule.device === box) && meets(boxes, packet),
  );
  return at < 0 ? null : { rule: spoken(plan)[at]!.rule, place: at + 1 };
}

/** Does a set of services hold a port? */
export const includesService = (plan: Plan, services: readonly string[], wanted: Wanted): boolean => {
  const at = serviceAt(wanted.protocol, wanted.port);
  return servicesSpans(plan, services).some(([from, to]) => from <= at && at <= to);
};

const pass = (passes: boolean, why: string, on: RecordRef | null = null, zones: Verdict['zones'] = null) => ({
  passes,
  why,
  on,
  zones,
});

/** What the cell of two zones, or what is usual, says of a service. `sender` is the segment the packet is from. */
export function cellVerdict(
  plan: Plan,
  from: Zone,
  to: Zone,
  wanted: Wanted,
  sender: string | null,
): Verdict {
  const zones = { from, to };
  const { decision, services, cell, why } = passing(plan, from, to);
  const on = cell ? { table: 'cell' as const, id: cell.id } : null;
  const pair = `${from.name} to ${to.name}`;
  if (decision === 'services') {
    const named = includesService(plan, services, wanted);
    return pass(named, `${pair}: only ${serviceNames(plan, services)}`, on, zones);
  }
  if (decision === 'wish') {
    const wish = sender === null ? undefined : plan.vlan.get(sender);
    const may = wish?.internet ?? false;
    return pass(may, `${wish?.name ?? pair} ${may ? 'may' : 'may not'} reach the Internet`, on, zones);
  }
  return pass(
    decision === 'allow',
    `${pair}: ${cell ? (decision === 'allow' ? 'everything passes' : 'nothing passes') : why}`,
    on,
    zones,
  );
}

/**
 * Whether the first packet of a conversation passes a box: explicit rules from the top, then an opening a forward made,
 * then the cell of the two zones, else what is usual. A box without a filter passes everything. Where no zone is recorded
 * nothing was decided and nothing is filtered, except that nothing comes in from outside unasked.
 */
export function decide(
  plan: Plan,
  device: Device,
  packet: { readonly from: IpAddress; readonly to: IpAddress; readonly wanted: Wanted },
  sides: { readonly from: PacketSide; readonly to: PacketSide; readonly opened?: RecordRef },
  today: string | null,
): Verdict {
  if (filterOf(plan, device) === 'none') return pass(true, `${device.name} has no filter`);
  const spoke = ruleFor(plan, device.id, packet.from, packet.to, packet.wanted, today);
  const [from, to] = [zoneOfSide(plan, sides.from), zoneOfSide(plan, sides.to)];
  const zones = from && to ? { from, to } : null;
  if (spoke) {
    const { rule, place } = spoke;
    const { note } = plan.rule.get(rule.id)!;
    const words = `rule ${place}${note ? `, ${note},` : ''} ${rule.action === 'allow' ? 'allows it' : 'denies it'}`;
    return pass(rule.action === 'allow', words, { table: 'rule', id: rule.id }, zones);
  }
  if (sides.opened) return pass(true, 'the forward opens it', sides.opened, zones);
  const outside = 'uplink' in sides.from;
  if (zonesOf(plan).length === 0)
    return outside
      ? pass(false, 'from outside nothing comes in unasked')
      : pass(true, 'no zones are recorded, so nothing is filtered');
  if (zones)
    return cellVerdict(
      plan,
      zones.from,
      zones.to,
      packet.wanted,
      'vlan' in sides.from ? sides.from.vlan : null,
    );
  const lost = from ? sides.to : sides.from;
  if ('nowhere' in lost) return pass(false, lost.nowhere);
  const what = 'vlan' in lost ? plan.vlan.get(lost.vlan)!.name : 'the other side';
  const self = 'vlan' in sides.from && 'vlan' in sides.to && sides.from.vlan === sides.to.vlan;
  return pass(self, `${what} is in no zone, so nothing is allowed to it or from it`);
}

/** Is an address inside one of the site's subnets, and in which VLAN? */
export function vlanOfAddress(plan: Plan, address: IpAddress): string | null {
  for (const subnet of plan.subnet.values()) if (contains(subnet.prefix, address)) return subnet.vlan;
  return null;
}
