import { boxOf, derive, deriveBy, memo, plainVlansOf, type Plan, type Box, pick } from '../../plan';
import {
  type Assumption,
  type Ingress,
  type PortFacts,
  type Tag,
  blocks,
  egress,
  ingress,
  portFacts,
} from './facts';
import { type Link, type WiredPort, isPassive, linksOf, wiredPorts } from './wiring';

/** A box that passes frames between its ports, with what each port does to them. */
export interface Bridge {
  readonly device: string;
  readonly box: WiredBox;
  readonly ports: readonly WiredPort[];
  /** By place in `ports`; null where no frame passes. A box without VLANs has no facts, only open ports. */
  readonly facts: readonly (PortFacts | null)[];
}

/**
 * What becomes of a frame that arrives at a port of a box: the VLAN it is in (in a box without VLANs the tag it wears), or
 * why it is dropped. Null where no frame passes.
 */
export function enters(
  { box, facts }: Pick<Bridge, 'box' | 'facts'>,
  index: number,
  tag: Tag,
): Ingress | null {
  const port = facts[index];
  if (!port) return null;
  if (box.vlanAware) return ingress(port, tag);
  return blocks(port, tag) ? { refused: 'blocked' } : { vid: tag };
}

/** The tag with which a frame leaves a box by a port; null when it does not. */
export function leaves({ box, facts }: Bridge, index: number, vid: number): Tag | null {
  const port = facts[index];
  if (!port) return null;
  if (box.vlanAware) return egress(port, vid);
  return blocks(port, vid) ? null : vid;
}

/** The ids of VLANs as numbers. */
export const vidsById = derive(
  (plan): ReadonlyMap<string, number> => new Map(plainVlansOf(plan).map(({ id, vid }) => [id, vid])),
);

const OF_BOX = [
  'device',
  'vlanAware',
  'passes',
  'layer3',
  'filter',
  'spanningTree',
  'factory',
  'baseMac',
  'powerFeeds',
] as const satisfies readonly (keyof Box)[];
/** What of a box says what it does with frames. */
export type WiredBox = Pick<Box, (typeof OF_BOX)[number]>;
const wiredOf = memo((box: Box): WiredBox => pick(box, OF_BOX));
const wiredBox = deriveBy((plan, device: string): WiredBox => wiredOf(boxOf(plan, device)!));

/** The boxes with ports that frames pass between. */
const bridging = derive((plan): readonly string[] => {
  const devices = new Set([...plan.box.values()].map(({ device }) => device));
  return [...devices].filter(
    (device) => !isPassive(plan.device.get(device)!.kind) && wiredPorts(plan, device).length > 0,
  );
});

const makeBridge = (assume: Assumption) => {
  const factsFor = memo((box: WiredBox) =>
    memo((vids: ReadonlyMap<string, number>) =>
      memo((port: WiredPort) => portFacts(port, box, (id) => vids.get(id)!, assume)),
    ),
  );
  return (plan: Plan, device: string): Bridge => {
    const box = wiredBox(plan, device);
    const ports = wiredPorts(plan, device);
    // Made once for each port as it is: a box is mostly looked at again because of one of them.
    const factsOf = factsFor(box)(vidsById(plan));
    return { device, box, ports, facts: ports.map(factsOf) };
  };
};
const bridges = { works: deriveBy(makeBridge('works')), leaks: deriveBy(makeBridge('leaks')) } as const;
/** A box with what its ports do for sure. */
export const bridgeOf = bridges.works;

/** The ports by which a frame in a VLAN (in a box without VLANs: with a tag) can leave a bridge. */
const waysOut = memo((bridge: Bridge) => {
  // Listed VLANs are found by one pass over the lists; "all but" sets and boxes without VLANs are asked each time.
  const listed = new Map<number, number[]>();
  const asked: number[] = [];
  bridge.facts.forEach((facts, i) => {
    if (!facts) return;
    if (!bridge.box.vlanAware || facts.tagged.except) return void asked.push(i);
    const vids =
      facts.untagged === null ? facts.tagged.vids : new Set([...facts.tagged.vids, facts.untagged]);
    for (const vid of vids) {
      const ports = listed.get(vid);
      if (ports) ports.push(i);
      else listed.set(vid, [i]);
    }
  });
  const none: readonly number[] = [];
  return (vid: number): readonly number[] => {
    const ports = listed.get(vid) ?? none;
    if (asked.length === 0) return ports;
    const more = asked.filter((i) => leaves(bridge, i, vid) !== null);
    return [...ports, ...more];
  };
});

/** Where the port of a bridge stands. */
export interface Seat {
  readonly bridge: number;
  readonly port: number;
}

/** Every bridge of a plan and how their ports are joined: what a frame can do, ready to be asked. */
export interface Fabric {
  readonly bridges: readonly Bridge[];
  /** The seat of a port of a bridge, by port id; ports of end devices have none. */
  readonly seats: ReadonlyMap<string, Seat>;
  readonly links: ReadonlyMap<string, readonly Link[]>;
}

const sameSeats = (a: Bridge, b: Bridge): boolean =>
  a === b || (a.ports.length === b.ports.length && a.ports.every((port, i) => port.id === b.ports[i]!.id));

/** The seats of all ports; those of an earlier fabric as long as no port came, went or changed its place. */
function seatsOf(bridges: readonly Bridge[], before: Fabric | undefined): Fabric['seats'] {
  if (
    before?.bridges.length === bridges.length &&
    bridges.every((bridge, i) => sameSeats(bridge, before.bridges[i]!))
  )
    return before.seats;
  const seats = new Map<string, Seat>();
  bridges.forEach((bridge, at) => {
    bridge.ports.forEach((port, i) => seats.set(port.id, { bridge: at, port: i }));
  });
  return seats;
}

const makeFabric =
  (assume: Assumption) =>
  (plan: Plan, before?: Fabric): Fabric => {
    const made = bridging(plan).map((device) => bridges[assume](plan, device));
    return { bridges: made, seats: seatsOf(made, before), links: linksOf(plan) };
  };
const wired = { works: derive(makeFabric('works')), leaks: derive(makeFabric('leaks')) } as const;
/** The boxes as they are wired, whatever trees and rings block, with what their ports do for sure. */
export const wiredFabric = wired.works;
/** The same, or with what ports may let through by mistake. */
export const fabricOf = (plan: Plan, assume: Assumption = 'works'): Fabric => wired[assume](plan);

/** Somebody who hears a frame: the port of an end device or the inner port of a box, and the tag it arrives with. */
export interface Heard {
  readonly port: string;
  readonly tag: Tag;
  /** The last box the frame was in, and the link it came over; null where it never was in one, or heard inside. */
  readonly from: State | null;
  readonly link: Link | null;
}

/** How a state was first reached: from which state, over which link. */
export interface Came {
  readonly from: State | null;
  readonly link: Link | null;
  /** The tag on that link. */
  readonly tag: Tag;
  /** The port of this bridge the frame came in by; null where it started inside. */
  readonly port: number | null;
}

/** A frame in a bridge: the VLAN it is in, or in a box without VLANs the tag it wears. */
export interface State {
  readonly bridge: number;
  readonly vid: number;
}

export interface Flood {
  readonly heard: readonly Heard[];
  /** Every state the frame gets to, by `bridge * 4096 + vid`. */
  readonly came: ReadonlyMap<number, Came>;
}

/** Where a link leads: to a port of a bridge, or to somebody who is none. */
interface FarEnd {
  readonly link: Link;
  readonly seat: Seat | null;
}
interface Joints {
  readonly seats: Fabric['seats'];
  /** By bridge and port. */
  readonly far: readonly (readonly (readonly FarEnd[])[])[];
  /** By bridge: the ports that lead to other bridges. */
  readonly inward: readonly (readonly number[])[];
}
const NOWHERE: readonly FarEnd[] = [];
const joints = new WeakMap<object, Joints>();
/** How bridges are joined; the same for all fabrics with the same cables and ports, whatever the ports do. */
function jointsOf({ bridges, seats, links }: Fabric): Joints {
  const known = joints.get(links);
  if (known?.seats === seats) return known;
  const far = bridges.map(({ ports }) =>
    ports.map(
      ({ id, number }) =>
        (number > 0 && links.get(id)?.map((link) => ({ link, seat: seats.get(link.to) ?? null }))) || NOWHERE,
    ),
  );
  const inward = far.map((ports) => ports.flatMap((ends, i) => (ends.some(({ seat }) => seat) ? [i] : [])));
  const made = { seats, far, inward };
  joints.set(links, made);
  return made;
}

/** The ports of each bridge that lead to other bridges: only by those does a frame get from one to another. */
export const inwardPorts = (fabric: Fabric): Joints['inward'] => jointsOf(fabric).inward;

export const stateKey = ({ bridge, vid }: State): number => bridge * 4096 + vid;

/** Where a frame begins: sent by a box itself in one of its VLANs, or arriving at a port of a bridge with a tag. */
export type Origin = { readonly state: State } | { readonly port: string; readonly tag: Tag };

/**
 * Who hears a broadcast (IEEE 802.1Q-2022 clause 8.6 without learning: a frame to everybody). It leaves by every member
 * port but the one it came in by, and each port sends each VLAN once, where trees and
 * rings let it. Exact in both directions of a link: what leaves one end need not be admitted at the other. With `only` boxes the
 * list of who hears it stays empty, for those who ask how far it gets and not who is there.
 */
export function flood(fabric: Fabric, origin: Origin, only: 'boxes' | 'all' = 'all'): Flood {
  const { bridges, seats } = fabric;
  const { far, inward } = jointsOf(fabric);
  const came = new Map<number, Came>();
  const heard = new Map<string, Heard>();
  // A state is expanded by all its ports but the entry; should it be entered by another port too, by that entry as well.
  const pending: { state: State; only: number | null; not: number | null }[] = [];
  const twice = new Set<number>();

  const enter = (state: State, port: number | null, how: Came) => {
    const at = stateKey(state);
    const known = came.get(at);
    if (!known) {
      came.set(at, how);
      pending.push({ state, only: null, not: port });
      return;
    }
    const first = known.port;
    if (first === null || first === port || twice.has(at)) return;
    twice.add(at);
    pending.push({ state, only: first, not: null });
  };
  const hear = (port: string, tag: Tag, from: State | null, link: Link | null) => {
    const known = heard.get(port);
    if (known?.tag === tag) return;
    // Few hear a frame with two different tags.
    heard.set(known ? `${port} ${tag}` : port, { port, tag, from, link });
  };
  const arrive = (seat: Seat, tag: Tag, from: State | null, link: Link | null) => {
    const entered = enters(bridges[seat.bridge]!, seat.port, tag);
    if (!entered || 'refused' in entered) return;
    enter({ bridge: seat.bridge, vid: entered.vid }, seat.port, { from, link, tag, port: seat.port });
  };
  const leave = (state: State, index: number) => {
    const bridge = bridges[state.bridge]!;
    const tag = leaves(bridge, index, state.vid);
    if (tag === null) return;
    const port = bridge.ports[index]!;
    if (port.number === 0) {
      hear(port.id, tag, state, null);
      return;
    }
    for (const { link, seat } of far[state.bridge]![index]!)
      if (seat) arrive(seat, tag, state, link);
      else hear(link.to, tag, state, link);
  };

  if ('state' in origin) {
    const inside = bridges[origin.state.bridge]!.ports.findIndex((port) => port.number === 0);
    const port = inside < 0 ? null : inside;
    enter(origin.state, port, { from: null, link: null, tag: 0, port });
  } else {
    const seat = seats.get(origin.port);
    if (seat) arrive(seat, origin.tag, null, null);
    else hear(origin.port, origin.tag, null, null);
  }
  // First in, first out, so that the way to each state is a shortest one.
  for (const next of pending) {
    if (next.only !== null) leave(next.state, next.only);
    else
      for (const i of only === 'boxes'
        ? inward[next.state.bridge]!
        : waysOut(bridges[next.state.bridge]!)(next.state.vid))
        if (i !== next.not) leave(next.state, i);
  }
  return { heard: [...heard.values()], came };
}
