import { type Plan, type Device, type Port, type Remedy, gatewaysOf, subnetsOf, portTitle } from '../plan';
import {
  portsTitle,
  type Flood,
  type Origin,
  type State,
  enters,
  flood,
  leaves,
  stateKey,
  egress,
  bridgeOf,
  isMember,
  linksAt,
  portsOf,
  type WiredPort,
  wiredPort,
} from '../model/wiring';
import { accessPointOf } from '../model/wireless';
import { carryRemedy } from './remedies';
import {
  keptFloods,
  missingPorts,
  type Hop,
  hopsTo,
  boxesInOrder,
  bridgeAt,
  fabric,
  seatsIn,
  membersOfVlan,
  hearsTag,
  walkTo,
  deafTo,
} from '../model/switching';

/** Frames between two who are to be on one wire: whether they arrive, and by which boxes. */

/** Where somebody stands who sends or hears frames. */
export type Place =
  /** A laptop plugged into a port of a box. */
  | { readonly kind: 'plug'; readonly port: Port }
  /** An end device with its cable. */
  | { readonly kind: 'socket'; readonly device: string }
  /** A box itself: its routing, its pages, its DHCP. */
  | { readonly kind: 'inside'; readonly device: string; readonly bridge: number }
  /** Somebody on a wireless network of a box: in its VLAN behind the box’s inner port. `of` is who, null for a laptop. */
  | {
      readonly kind: 'air';
      readonly device: string;
      readonly bridge: number;
      readonly ssid: string;
      readonly of: string | null;
    }
  /** A device whose cable or ports nobody recorded: taken to be in the segment of its address. */
  | { readonly kind: 'assumed'; readonly device: string | null };

export interface Delivery {
  readonly hops: readonly Hop[];
  /** What stops the frame; null when it arrives. */
  readonly why: string | null;
  readonly remedies: readonly Remedy[];
  /** Something on the way is not recorded and was taken to be as it should. */
  readonly assumed: boolean;
}

export function placeOf(plan: Plan, device: string): Place {
  const bridge = bridgeAt(plan, device);
  if (bridge >= 0) return { kind: 'inside', device, bridge };
  const cabled = portsOf(plan, device).some((port) => linksAt(plan, port).length > 0);
  if (cabled) return { kind: 'socket', device };
  return joinedBy(plan, device) ?? { kind: 'assumed', device };
}

/** Where somebody is who joins a network at an access point; where that one’s ports are not recorded, where it is itself. */
export function onAir(plan: Plan, device: string, ssid: string, of: string | null = null): Place {
  const bridge = bridgeAt(plan, device);
  return bridge >= 0 ? { kind: 'air', device, bridge, ssid, of } : placeOf(plan, device);
}

/** A device without a cable is at the first access point that sends the network it joins; null where it joins none. */
function joinedBy(plan: Plan, device: string): Place | null {
  const at = accessPointOf(plan, device);
  const bridge = at === null ? -1 : bridgeAt(plan, at.device);
  return at && bridge >= 0 ? { kind: 'air', ...at, bridge, of: device } : null;
}

const nameOf = (plan: Plan, device: string): string => plan.device.get(device)!.name;
/** The inner port of a box and what it does to frames; neither trees nor rings block it. */
function innerOf(plan: Plan, device: string) {
  const { ports, facts } = bridgeOf(plan, device);
  const at = ports.findIndex(({ number }) => number === 0);
  return { port: ports[at]!, facts: facts[at] };
}
const knowsVlans = (plan: Plan, bridge: number): boolean => boxesInOrder(plan)[bridge]!.vlanAware;

/** A telephone tags its frames with the VLAN announced to it, when that is the one of its address. */
function tagSent(plan: Plan, device: Device, into: WiredPort, vlan: string): number {
  return device.kind === 'phone' && into.voice === vlan ? plan.vlan.get(vlan)!.vid : 0;
}

/** Where the frames of somebody who stands in a segment get into a VLAN; null where that is not recorded, or they do not. */
export function stateOf(plan: Plan, place: Place, vlan: string): State | null {
  const { origin } = originOf(plan, place, vlan);
  if (!origin || 'state' in origin) return origin && origin.state;
  const { bridges, seats } = fabric(plan);
  const seat = seats.get(origin.port)!;
  const entered = enters(bridges[seat.bridge]!, seat.port, origin.tag);
  return entered && 'vid' in entered ? { bridge: seat.bridge, vid: entered.vid } : null;
}

interface Sent {
  readonly origin: Origin | null;
  readonly why: string | null;
}

/** Where a box itself speaks and listens in a segment: in its VLAN, or without a tag where it knows no VLANs. */
export const insideState = (plan: Plan, bridge: number, vlan: string): State => ({
  bridge,
  vid: knowsVlans(plan, bridge) ? plan.vlan.get(vlan)!.vid : 0,
});

/** The inside of the router of a segment, where its ports are recorded. */
function atRouter(plan: Plan, vlan: string): State | undefined {
  for (const subnet of subnetsOf(plan, vlan))
    for (const gateway of gatewaysOf(plan, subnet.id)) {
      const { device } = plan.interface.get(gateway.interface)!;
      const bridge = bridgeAt(plan, device);
      if (bridge >= 0) return insideState(plan, bridge, vlan);
    }
  return undefined;
}

/** Where the frames of somebody begin who means to speak in a VLAN; no origin where the wiring is not recorded. */
export function originOf(plan: Plan, place: Place, vlan: string): Sent {
  const { vid } = plan.vlan.get(vlan)!;
  if (place.kind === 'plug') return { origin: { port: place.port.id, tag: 0 }, why: null };
  if (place.kind === 'inside' || place.kind === 'air') {
    const { facts } = innerOf(plan, place.device);
    if (!facts || (knowsVlans(plan, place.bridge) && !isMember(facts, vid)))
      return { origin: null, why: `${nameOf(plan, place.device)} itself is not in VLAN ${vid}` };
    return { origin: { state: insideState(plan, place.bridge, vlan) }, why: null };
  }
  if (place.kind === 'socket')
    for (const port of portsOf(plan, place.device))
      for (const link of linksAt(plan, port))
        if (seatsIn(plan).has(link.to)) {
          const tag = tagSent(plan, plan.device.get(place.device)!, wiredPort(plan, link.to), vlan);
          return { origin: { port: link.to, tag }, why: null };
        }
  // Somebody whose cable is not recorded speaks from where the segment is: at its router, else wherever it is used.
  const state =
    place.kind === 'assumed' ? (atRouter(plan, vlan) ?? membersOfVlan(plan, vlan)[0]?.state) : undefined;
  return { origin: state ? { state } : null, why: null };
}

/** The way of a flood out by a port to somebody there, with a tag they hear; null when it does not leave there like that. */
function leavingBy(
  plan: Plan,
  covered: Flood,
  seat: { readonly bridge: number; readonly port: number },
  hears: (tag: number) => boolean,
): Hop[] | null {
  const bridge = fabric(plan).bridges[seat.bridge]!;
  for (const [key, { port, from }] of covered.came) {
    if (Math.floor(key / 4096) !== seat.bridge) continue;
    // Never back out of the port it began at.
    if (port === seat.port && from === null) continue;
    const state: State = { bridge: seat.bridge, vid: key % 4096 };
    const tag = leaves(bridge, seat.port, state.vid);
    if (tag !== null && hears(tag))
      return hopsTo(plan, covered, state, { left: bridge.ports[seat.port]!, tagOut: tag });
  }
  return null;
}

/** Does a flood get to a laptop plugged into a port? */
export function reachesPlug(plan: Plan, covered: Flood, port: Port): boolean {
  const seat = fabric(plan).seats.get(port.id);
  return seat !== undefined && leavingBy(plan, covered, seat, (tag) => tag === 0) !== null;
}

/** The state in which a flood gets to somebody who listens in a VLAN, and how it leaves there; null when it does not. */
function heardBy(
  plan: Plan,
  covered: Flood,
  place: Place,
  vlan: string,
): { readonly hops: Hop[]; readonly assumed: boolean } | null {
  const { bridges, seats } = fabric(plan);
  const { vid } = plan.vlan.get(vlan)!;
  switch (place.kind) {
    case 'socket': {
      for (const socket of portsOf(plan, place.device))
        for (const link of linksAt(plan, socket)) {
          const seat = seats.get(link.to);
          if (!seat) continue;
          const at = wiredPort(plan, link.to);
          const found = leavingBy(plan, covered, seat, (tag) => hearsTag(plan, socket, at, tag));
          if (found) return { hops: found, assumed: false };
        }
      return null;
    }
    case 'inside':
    case 'air': {
      const { port: left, facts } = innerOf(plan, place.device);
      const state = insideState(plan, place.bridge, vlan);
      const member = facts && (!knowsVlans(plan, place.bridge) || isMember(facts, vid));
      if (!member || !covered.came.has(stateKey(state))) return null;
      return {
        hops: hopsTo(plan, covered, state, { left, tagOut: egress(facts, vid) ?? 0 }),
        assumed: false,
      };
    }
    case 'plug': {
      const seat = seats.get(place.port.id);
      const found = seat && leavingBy(plan, covered, seat, (tag) => tag === 0);
      return found ? { hops: found, assumed: false } : null;
    }
    case 'assumed':
      for (const came of covered.came.keys())
        if (came % 4096 === vid && bridges[Math.floor(came / 4096)]!.box.vlanAware)
          return { hops: [], assumed: true };
      return null;
  }
}

const titleOf = (plan: Plan, place: Place): string =>
  place.kind === 'plug'
    ? portTitle(plan, place.port)
    : holderOf(place) === null
      ? 'the laptop'
      : nameOf(plan, holderOf(place)!);
/** The device that stands there itself. */
const holderOf = (place: Exclude<Place, { kind: 'plug' }>): string | null =>
  place.kind === 'air' ? place.of : place.device;

/** Why an end device does not hear a flood that gets into its socket; null where none does. */
function unheardAt(plan: Plan, covered: Flood, device: string): string | null {
  const { bridges, seats } = fabric(plan);
  for (const socket of portsOf(plan, device))
    for (const { to } of linksAt(plan, socket)) {
      const seat = seats.get(to);
      const last = seat && leavingBy(plan, covered, seat, () => true)?.at(-1);
      if (last && bridges[seat.bridge]!.device === last.device)
        return deafTo(nameOf(plan, device), last.tagOut);
    }
  return null;
}

/** Why a frame does not get there, as far as the cables tell, and what would carry it. */
function stoppedBy(plan: Plan, from: Place, to: Place, vlan: string): Pick<Delivery, 'why' | 'remedies'> {
  const segment = plan.vlan.get(vlan)!;
  const { vid, code } = segment;
  const missing = missingPorts(plan, vlan);
  const remedies = missing.length ? [carryRemedy(`Carry ${vid} ${code} where it is needed`, segment)] : [];
  const start =
    from.kind === 'plug' ? from.port : from.kind === 'socket' ? socketPort(plan, from.device) : null;
  const target = to.kind === 'plug' ? undefined : plan.device.get(to.device ?? '');
  const why = start && target ? walkTo(plan, start, target).why : null;
  const lacking = missing.length ? `${portsTitle(plan, missing)} would have to carry VLAN ${vid}` : null;
  return {
    why: why ?? lacking ?? `no frame of VLAN ${vid} gets from ${titleOf(plan, from)} to ${titleOf(plan, to)}`,
    remedies,
  };
}

/** The port of a box that an end device is plugged into. */
export function socketPort(plan: Plan, device: string): Port | null {
  for (const port of portsOf(plan, device))
    for (const link of linksAt(plan, port)) if (seatsIn(plan).has(link.to)) return plan.port.get(link.to)!;
  return null;
}

/** Floods worth remembering: many questions begin at the same place. */
const floodBy = keptFloods((key: string): Origin => {
  const [kind, at, tag] = key.split(' ') as [string, string, string];
  return kind === 'state'
    ? { state: { bridge: Math.floor(Number(at) / 4096), vid: Number(at) % 4096 } }
    : { port: at, tag: Number(tag) };
}, 'boxes');
const floodOf = (plan: Plan, origin: Origin): Flood =>
  floodBy(plan, 'state' in origin ? `state ${stateKey(origin.state)}` : `port ${origin.port} ${origin.tag}`);

/** How far somebody is heard who speaks in a VLAN: the boxes, not who hears it there; null where it cannot begin. */
export function spreadBy(plan: Plan, place: Place, vlan: string): Flood | null {
  const { origin } = originOf(plan, place, vlan);
  return origin ? flood(fabric(plan), origin, 'boxes') : null;
}

/** Two on one network of one access point, which passes nothing between its clients; null where they are not. */
function keptApart(plan: Plan, from: Place, to: Place): string | null {
  if (from.kind !== 'air' || to.kind !== 'air' || from.device !== to.device || from.ssid !== to.ssid)
    return null;
  const { name, isolated } = plan.ssid.get(from.ssid)!;
  return isolated ? `${nameOf(plan, from.device)} keeps the clients of ${name} apart` : null;
}

/**
 * The boxes on the way of a frame within a segment, null where it does not arrive, and the flood it is part of; null where
 * nobody recorded the way.
 */
export function wayOf(
  plan: Plan,
  from: Place,
  vlan: string,
  to: Place,
): { readonly hops: readonly Hop[] | null; readonly flood: Flood } | null {
  if (from.kind === 'assumed' || to.kind === 'assumed' || keptApart(plan, from, to) !== null) return null;
  const { origin } = originOf(plan, from, vlan);
  if (!origin) return null;
  const flood = floodOf(plan, origin);
  return { hops: heardBy(plan, flood, to, vlan)?.hops ?? null, flood };
}

/** Whether a frame of somebody in one segment is heard by somebody who listens in another, mostly the same. */
export function deliver(plan: Plan, from: Place, vlan: string, to: Place, listens: string): Delivery {
  const { origin, why } = originOf(plan, from, vlan);
  if (why !== null) return { hops: [], why, remedies: [], assumed: false };
  const apart = keptApart(plan, from, to);
  if (apart !== null) return { hops: [], why: apart, remedies: [], assumed: false };
  if (!origin) {
    // Neither wiring nor segment is on any box: two who are meant for the same segment are taken to share it.
    const same = vlan === listens;
    return {
      hops: [],
      why: same ? null : `${titleOf(plan, from)} and ${titleOf(plan, to)} are in different segments`,
      remedies: [],
      assumed: true,
    };
  }
  const heard = heardBy(plan, floodOf(plan, origin), to, listens);
  if (heard) {
    // Boxes between two of whom one is not cabled in the plan would be guesses.
    const assumed = heard.assumed || from.kind === 'assumed';
    return { hops: assumed ? [] : heard.hops, why: null, remedies: [], assumed };
  }
  if (to.kind === 'assumed' && vlan === listens && membersOfVlan(plan, vlan).length === 0)
    return { hops: [], why: null, remedies: [], assumed: true };
  const unheard = to.kind === 'socket' ? unheardAt(plan, floodOf(plan, origin), to.device) : null;
  if (unheard !== null) return { hops: [], why: unheard, remedies: [], assumed: false };
  return { hops: [], ...stoppedBy(plan, from, to, listens), assumed: false };
}
