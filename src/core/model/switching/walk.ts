import { boxOf, type Plan, type Device, type Port, portTitle } from '../../plan';
import {
  type Bridge,
  enters,
  leaves,
  type Tag,
  blocks,
  isEvery,
  tagOf,
  type Link,
  type WiredPort,
  portsOf,
} from '../wiring';
import { treesOf } from '../tree';
import type { Hop } from './follow';
import { fabric } from './reach';

/** How far a frame gets on its way, and what stops it there; null when nothing does. */
export interface Walked {
  readonly hops: readonly Hop[];
  readonly why: string | null;
}

/**
 * Does a device hear frames with this tag in its socket, from a port of a box? Who has no VLANs of its own hears those without a
 * tag; a telephone also those of the VLAN announced to it, and none without a tag where its record says so.
 */
export function hearsTag(plan: Plan, socket: WiredPort, at: WiredPort, tag: Tag): boolean {
  if (boxOf(plan, socket.device)) return true;
  if (plan.device.get(socket.device)!.kind !== 'phone') return tag === 0;
  if (tag === 0) return socket.accepts !== 'tagged';
  return at.voice !== null && plan.vlan.get(at.voice)!.vid === tag;
}

/** Why a device does not hear a tag. */
export const deafTo = (name: string, tag: Tag): string =>
  tag === 0
    ? `${name} takes tagged frames only, and this one comes without a tag`
    : `${name} does not read this tag, and the frame is tagged ${tag}`;

/** Why a port lets no frame pass at all. */
function shut(plan: Plan, port: WiredPort): string {
  const title = portTitle(plan, port);
  if (port.defective) return `${title} is defective`;
  if (port.role === 'uplink') return `${title} faces a provider`;
  return port.role === 'parked' ? `${title} is parked` : `${title} is off`;
}

const named = (vid: number) => `VLAN ${vid}`;

const refusals = {
  'untagged-refused': () => 'takes tagged frames only, and this one comes without a tag',
  'no-pvid': () => 'puts untagged frames in no VLAN',
  'tagged-refused': (tag: Tag) => `refuses tagged frames, and this one is tagged ${tag}`,
  blocked: () => 'is blocked by a spanning tree or a ring',
  aside: () => 'stands aside: the other end has no place in its LACP bundle',
  'not-a-member': (tag: Tag) => `is no member of ${tag === 0 ? 'its own PVID' : named(tag)}`,
} as const;

/** Who blocks a port: a tree or a ring, or its own bundle. */
const stopping = (plan: Plan, { id }: WiredPort) => (treesOf(plan).aside.has(id) ? 'aside' : 'blocked');

/** What a bridge makes of a frame at one of its ports: the VLAN it is in from there on, or why it goes no further. */
function admitted(plan: Plan, bridge: Bridge, index: number, tag: Tag): number | string {
  const facts = bridge.facts[index];
  const port = bridge.ports[index]!;
  if (!facts) return shut(plan, port);
  const entered = enters(bridge, index, tag)!;
  if ('vid' in entered) return entered.vid;
  const { refused } = entered;
  return `${portTitle(plan, port)} ${refusals[refused === 'blocked' ? stopping(plan, port) : refused](tag)}`;
}

/** The tag a frame leaves a port with, or why it does not. */
function sent(plan: Plan, bridge: Bridge, index: number, vid: number): Tag | string {
  const facts = bridge.facts[index];
  const port = bridge.ports[index]!;
  if (!facts) return shut(plan, port);
  const tag = leaves(bridge, index, vid);
  if (tag !== null) return tag;
  const stopped = blocks(facts, vid) && (!bridge.box.vlanAware || tagOf(facts, vid) !== null);
  return `${portTitle(plan, port)} ${stopped ? refusals[stopping(plan, port)]() : `does not carry ${named(vid)}`}`;
}

/**
 * The links of a shortest way of cables from a bridge to a device, whatever VLANs its ports carry. A way that no tree or
 * ring blocks as a whole is better than one that is shorter.
 */
const cablesTo = (plan: Plan, from: number, device: string): Link[] | null =>
  shortestTo(plan, from, device, true) ?? shortestTo(plan, from, device, false);

function shortestTo(plan: Plan, from: number, device: string, open: boolean): Link[] | null {
  const { bridges, seats, links } = fabric(plan);
  const shutAt = (id: string): boolean => {
    const seat = seats.get(id);
    const set = seat && bridges[seat.bridge]!.facts[seat.port]?.blocked;
    return set != null && isEvery(set);
  };
  const way = new Map<number, Link | null>([[from, null]]);
  const back = (last: Link | null): Link[] => {
    const found: Link[] = [];
    for (let link = last; link; link = way.get(seats.get(link.from)!.bridge)!) found.unshift(link);
    return found;
  };
  for (const at of way.keys()) {
    if (bridges[at]!.device === device) return back(way.get(at)!);
    for (const port of bridges[at]!.ports)
      for (const link of links.get(port.id) ?? []) {
        if (open && (shutAt(link.from) || shutAt(link.to))) continue;
        const next = seats.get(link.to)?.bridge;
        if (next === undefined && plan.port.get(link.to)!.device === device)
          return [...back(way.get(at)!), link];
        if (next !== undefined && !way.has(next)) way.set(next, link);
      }
  }
  return null;
}

/** Follows a laptop's untagged frame from a port along the cables to a device, up to where it is stopped. */
export function walkTo(plan: Plan, start: Port, device: Device): Walked {
  const { bridges, seats } = fabric(plan);
  const seat = seats.get(start.id);
  if (!seat)
    return { hops: [], why: `${portTitle(plan, start)} is the socket of a device; frames start at a box` };
  const way = cablesTo(plan, seat.bridge, device.id);
  const hops: Hop[] = [];
  const begins = bridges[seat.bridge]!.device;
  if (!way) return { hops, why: `No cable leads from ${plan.device.get(begins)!.name} to ${device.name}` };
  let bridge = bridges[seat.bridge]!;
  let entered: Port = start;
  let tagIn: Tag = 0;
  let inside = admitted(plan, bridge, seat.port, tagIn);
  for (const link of way) {
    if (typeof inside === 'string') return { hops, why: inside };
    const left = plan.port.get(link.from)!;
    const tag = sent(plan, bridge, seats.get(link.from)!.port, inside);
    if (typeof tag === 'string') return { hops, why: tag };
    hops.push({ device: bridge.device, entered, tagIn, vid: inside, left, tagOut: tag });
    const next = seats.get(link.to);
    if (!next)
      return {
        hops,
        why: hearsTag(plan, plan.port.get(link.to)!, left, tag) ? null : deafTo(device.name, tag),
      };
    bridge = bridges[next.bridge]!;
    entered = plan.port.get(link.to)!;
    tagIn = tag;
    inside = admitted(plan, bridge, next.port, tag);
  }
  if (typeof inside === 'string') return { hops, why: inside };
  const inner = portsOf(plan, device.id).findIndex((port) => port.number === 0);
  const tag =
    inner < 0 ? `${device.name} has no inside that could hear it` : sent(plan, bridge, inner, inside);
  return { hops, why: typeof tag === 'string' ? tag : null };
}
