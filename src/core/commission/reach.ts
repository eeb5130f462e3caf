import {
  type Fabric,
  type PortFacts,
  type State,
  egress,
  enters,
  flood,
  leaves,
  stateKey,
} from '../model/wiring';
import { ALONE, type BoxState, type SiteState, fabricIn, maySit } from './state';

/** Which boxes somebody reaches who sits at a socket. */

/** Where a frame of a box in its management VLAN arrives again, back the way that one came. */
function comesBack(
  fabric: Fabric,
  came: ReturnType<typeof flood>['came'],
  at: State,
  /** Whoever asks: a laptop, which hears untagged frames only, or a router, which hears its VLANs. */
  asks: 'laptop' | 'router' = 'laptop',
): boolean {
  let here = at;
  for (;;) {
    const { from, link, port } = came.get(stateKey(here))!;
    if (port === null) return true;
    const tag = leaves(fabric.bridges[here.bridge]!, port, here.vid);
    if (from === null) return asks === 'router' || tag === 0;
    if (tag === null) return false;
    const seat = fabric.seats.get(link!.from)!;
    const entered = enters(fabric.bridges[seat.bridge]!, seat.port, tag);
    if (!entered || 'refused' in entered || entered.vid !== from.vid) return false;
    here = from;
  }
}

/** The same by any way at all. */
function answers(fabric: Fabric, from: State, socket: string): boolean {
  const seat = fabric.seats.get(socket)!;
  const bridge = fabric.bridges[seat.bridge]!;
  for (const key of flood(fabric, { state: from }, 'boxes').came.keys())
    if (Math.floor(key / 4096) === seat.bridge && leaves(bridge, seat.port, key % 4096) === 0) return true;
  return false;
}

type Reached = ReadonlyMap<string, number>;
const known = new WeakMap<
  object,
  Map<string, { readonly facts: PortFacts | null; readonly reached: Reached }>
>();
/** How far somebody at a socket gets: the boxes that hear them and answer, with the number of links between. */
export function reachedFrom(state: SiteState, socket: string): Reached {
  const { bridge, port } = state.seats.get(socket)!;
  const facts = state.boxes[bridge]!.bridge.facts[port]!;
  let bySocket = known.get(state.ways);
  if (!bySocket) known.set(state.ways, (bySocket = new Map()));
  const before = bySocket.get(socket);
  if (before && before.facts === facts) return before.reached;
  const reached = reach(state, socket);
  bySocket.set(socket, { facts, reached });
  return reached;
}

/** Farther than over any wire: over a router, or by an address of its own in another segment than it is set up in. */
export const ROUTED = 1000;

/** Does the box itself send into a VLAN? */
function speaksIn({ bridge }: BoxState, vid: number): boolean {
  const inside = bridge.ports.findIndex(({ number }) => number === 0);
  const facts = inside < 0 ? null : bridge.facts[inside];
  return !!facts && egress(facts, vid) !== null;
}
const linksTo = (came: ReturnType<typeof flood>['came'], here: State): number => {
  let links = 0;
  for (let next = came.get(stateKey(here))!.from; next; next = came.get(stateKey(next))!.from) links++;
  return links;
};

function reach(state: SiteState, socket: string): Reached {
  if (!maySit(state, socket)) return new Map();
  const fabric = fabricIn(state);
  const seat = state.seats.get(socket)!;
  const { came } = flood(fabric, { port: socket, tag: 0 }, 'boxes');
  const found = new Map<string, number>();
  const byAddress = new Map<string, string>();
  const twice = new Set<string>();
  const isBack = (here: State) => comesBack(fabric, came, here) || answers(fabric, here, socket);
  state.boxes.forEach((box, at) => {
    const { bridge, management } = box;
    // One that is begun at a port of its own, or at its console, is reached by no other wire.
    if (!management || (management.vid === ALONE && at !== seat.bridge)) return;
    const here: State = { bridge: at, vid: management.vid };
    if (management.way === 'console' || !came.has(stateKey(here)) || !speaksIn(box, management.vid)) return;
    // Two that answer to one address: nobody knows which of them is meant.
    const other = byAddress.get(String(management.address));
    if (management.address !== null && other !== undefined) {
      twice.add(other).add(bridge.device);
      return;
    }
    byAddress.set(String(management.address), bridge.device);
    if (isBack(here)) found.set(bridge.device, linksTo(came, here));
  });
  for (const device of twice) found.delete(device);
  state.boxes.forEach((box, at) => {
    for (const vid of box.routed) {
      const here: State = { bridge: at, vid };
      if (!came.has(stateKey(here)) || !speaksIn(box, vid) || !isBack(here)) continue;
      overRouter(state, fabric, here, linksTo(came, here), found);
    }
  });
  return found;
}

/** The boxes that are reached by a router where it is heard: itself, and what it lets through to. */
function overRouter(
  { boxes, access }: SiteState,
  fabric: Fabric,
  at: State,
  links: number,
  found: Map<string, number>,
): void {
  const router = boxes[at.bridge]!;
  const add = (device: string, far: number) => {
    if (!found.has(device)) found.set(device, ROUTED + links + far);
  };
  if (router.management && access.opens(at.vid)) add(router.bridge.device, 0);
  const managed = new Set(boxes.map(({ management }) => management?.vid));
  for (const vid of router.routed) {
    if (vid === at.vid || !managed.has(vid) || !access.lets(at.vid, vid) || !speaksIn(router, vid)) continue;
    const { came } = flood(fabric, { state: { bridge: at.bridge, vid } }, 'boxes');
    boxes.forEach((box, other) => {
      const here: State = { bridge: other, vid };
      if (other === at.bridge || box.management?.vid !== vid || box.management.way !== undefined) return;
      if (came.has(stateKey(here)) && speaksIn(box, vid) && comesBack(fabric, came, here, 'router'))
        add(box.bridge.device, linksTo(came, here));
    });
  }
}
