import {
  type Collection,
  memo,
  type Plan,
  type Cell,
  type PlainVlan,
  type Zone,
  derive,
  plainVlansOf,
  deriveBy,
  inRank,
} from '../../plan';

/** Zones, who is in them, and what passes between two of them when no rule speaks. */

const inOrder = memo((zones: Collection<Zone>) => [...zones.values()].sort(inRank));
export const zonesOf = (plan: Plan): readonly Zone[] => inOrder(plan.zone);

const zoneByName = memo(
  (zones: Collection<Zone>) => new Map(inOrder(zones).map((zone) => [zone.name.toLowerCase(), zone])),
);
/** The zone that is called so, capitals or not. */
export const zoneCalled = (plan: Plan, name: string): Zone | undefined =>
  zoneByName(plan.zone).get(name.toLowerCase());

/** Is a zone this segment and nothing else? */
export const isJust = ({ vlans, uplinks, tunnels, gateway }: Zone, vlan: string): boolean =>
  !gateway && uplinks.length === 0 && tunnels.length === 0 && vlans.length === 1 && vlans[0] === vlan;

const zoneByVlan = memo((zones: Collection<Zone>) => {
  const found = new Map<string, Zone>();
  for (const zone of inOrder(zones)) for (const id of zone.vlans) if (!found.has(id)) found.set(id, zone);
  return found;
});
/** The zone of a VLAN: the first that has it, should it be in two. */
export const zoneOfVlan = (plan: Plan, vlan: string): Zone | undefined => zoneByVlan(plan.zone).get(vlan);

/** The first zone of an uplink or a tunnel, should it be in two. */
export const zoneOfUplink = (plan: Plan, uplink: string): Zone | undefined =>
  zonesOf(plan).find(({ uplinks }) => uplinks.includes(uplink));
export const zoneOfTunnel = (plan: Plan, tunnel: string): Zone | undefined =>
  zonesOf(plan).find(({ tunnels }) => tunnels.includes(tunnel));

/** What of its members is really in a zone: what is in an earlier one too counts there. */
export const ownMembers = (plan: Plan, zone: Zone): Pick<Zone, 'vlans' | 'uplinks' | 'tunnels'> => ({
  vlans: zone.vlans.filter((id) => zoneOfVlan(plan, id)?.id === zone.id),
  uplinks: zone.uplinks.filter((id) => zoneOfUplink(plan, id)?.id === zone.id),
  tunnels: zone.tunnels.filter((id) => zoneOfTunnel(plan, id)?.id === zone.id),
});

/** Does a zone lie outside: are there uplinks in it? */
export const isOutside = (zone: Zone): boolean => zone.uplinks.length > 0;
export const vlansOfZone = (plan: Plan, zone: Zone): readonly PlainVlan[] =>
  plan.zone.get(zone.id) === zone ? membersBy(plan, zone.id) : membersOf(plan, zone);
const membersOf = (plan: Plan, zone: Zone): readonly PlainVlan[] =>
  plainVlansOf(plan).filter(({ id }) => zone.vlans.includes(id));
const membersBy = deriveBy((plan, id: string) => membersOf(plan, plan.zone.get(id)!));

/** By zone and by the other zone. */
const cells = memo((all: Collection<Cell>) => {
  const found = new Map<string, Map<string, Cell>>();
  for (const cell of all.values()) {
    let row = found.get(cell.from);
    if (!row) found.set(cell.from, (row = new Map()));
    row.set(cell.to, cell);
  }
  return found;
});
/** What is recorded for a pair; undefined where it is as usual. */
export const cellOf = (plan: Plan, from: string, to: string): Cell | undefined =>
  cells(plan.cell).get(from)?.get(to);

/** What the gateway answers from any segment inside. */
export const gatewayServices = ['stddhcp', 'stddns', 'stdntp', 'stdping'] as const;
/** What opening its pages needs besides. */
export const managementServices = ['stdhttp', 'stdssh'] as const;

export interface Passing {
  /** `wish`: as each segment's wish for the Internet says, where those in the zone differ. */
  readonly decision: 'allow' | 'deny' | 'services' | 'wish';
  readonly services: readonly string[];
  /** The cell that says so; null where it is what is usual. */
  readonly cell: Cell | null;
  readonly why: string;
}

const usual = (decision: Passing['decision'], why: string, services: readonly string[] = []): Passing => ({
  decision,
  services,
  cell: null,
  why,
});

/** What is usual, each said once: thousands of pairs share it. */
const USUAL = {
  together: usual('allow', 'its members may talk'),
  apart: usual('deny', 'its members are kept apart'),
  unasked: usual('deny', 'from outside nothing comes in unasked'),
  itself: usual('allow', 'the gateway itself may go anywhere'),
  needed: usual('services', 'what a segment needs of the gateway', gatewayServices),
  managing: usual('services', 'what a segment needs of the gateway, and its pages', [
    ...gatewayServices,
    ...managementServices,
  ]),
  byWish: usual('wish', 'some of its segments may reach the Internet'),
  online: usual('allow', 'its segments may reach the Internet'),
  offline: usual('deny', 'its segments may not reach the Internet'),
  between: usual('deny', 'between zones nothing passes unless it is allowed'),
};

/**
 * What passes from one zone to another: what the cell says, else what is usual. Usual is: within a zone as the zone says;
 * from outside nothing unsolicited; to the Internet as the segments' wishes say; to the gateway DHCP, DNS, NTP and ping,
 * and its pages only from zones that manage; from the gateway everything; between zones inside nothing.
 */
export function passing(plan: Plan, from: Zone, to: Zone): Passing {
  const cell = cellOf(plan, from.id, to.id);
  if (cell) return { decision: cell.decision, services: cell.services, cell, why: 'as decided here' };
  if (from.id === to.id) return from.inside === 'allow' ? USUAL.together : USUAL.apart;
  if (isOutside(from)) return USUAL.unasked;
  if (from.gateway && from.vlans.length === 0) return USUAL.itself;
  if (to.gateway && to.vlans.length === 0) return from.manages ? USUAL.managing : USUAL.needed;
  if (isOutside(to)) {
    const wishes = new Set(vlansOfZone(plan, from).map(({ internet }) => internet));
    if (wishes.size > 1) return USUAL.byWish;
    return wishes.has(true) ? USUAL.online : USUAL.offline;
  }
  return USUAL.between;
}

/** What passes in every pair of zones, row by row in their order. */
export const passingOfPairs = derive((plan): readonly Passing[] => {
  const zones = zonesOf(plan);
  return zones.flatMap((from) => zones.map((to) => passing(plan, from, to)));
});
