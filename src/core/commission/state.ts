import { type IpAddress, familyOf } from '../address';
import { type Device, type Plan, addressesOn, groupBy, interfacesOf } from '../plan';
import { type Bridge, type Fabric, type Link, type PortFacts, VidSet, wiredFabric } from '../model/wiring';
import { airSeats, withAir } from './air-seats';
import type { PlainPage } from './pages/plain';
import { type Access, accessOf, routedVids } from './routed';

/** Boxes as they are set at a moment, on the way from how they came to what the plan says. */

/** No VLAN has this number (IEEE 802.1Q-2022 table 9-2): the port a box is begun at stands alone as long as it is in it. */
export const ALONE = 4095;

/** A port that a laptop sits at: one VLAN untagged, and nothing else. */
export const socketIn = (vid: number): PortFacts => ({
  pvid: vid,
  untagged: vid,
  tagged: new VidSet(false, new Set()),
  accepts: 'all',
  ingressFilter: false,
  blocked: null,
});

/** Where a box listens to whoever sets it up. */
export interface Management {
  /** Null for one as it comes whose address nobody looked up. */
  readonly address: IpAddress | null;
  readonly length: number;
  /** The VLAN it hears that in. */
  readonly vid: number;
  /** How it is found while it is as it comes, where that is no address at any port. */
  readonly way?: 'one-port' | 'link-local' | 'console';
}

export interface BoxState {
  readonly bridge: Bridge;
  /** Null for a box that nobody sets up: a plain switch, or one for which no address is planned. */
  readonly management: Management | null;
  /** The VLANs that are made on it. */
  readonly vids: ReadonlySet<number>;
  /** The VLANs a router answers and routes in all the while, from before work begins until it ends; none for other boxes. */
  readonly routed: readonly number[];
  /** The other pages that have something left to set. */
  readonly pages: readonly PlainPage[];
}

/** All boxes, in the order of the fabric of their plan. */
export interface SiteState {
  readonly boxes: readonly BoxState[];
  readonly seats: Fabric['seats'];
  readonly links: Fabric['links'];
  /** Devices whose cables to other boxes are not plugged in yet. */
  readonly apart: ReadonlySet<string>;
  readonly access: Access;
  /** What is plugged in at sockets whose device can do without for a while, by port. */
  readonly lent: ReadonlyMap<string, string>;
  /** What whoever joins a wireless network is in, by the id that stands for its socket, once it is on the air. */
  readonly air: ReadonlyMap<string, PortFacts>;
  /** The same object as long as nothing changed that frames between boxes depend on. */
  readonly ways: object;
}

/** Has a box a single socket on its case, like an access point? */
export const hasOneSocket = ({ bridge }: BoxState): boolean =>
  bridge.ports.filter(({ number }) => number > 0).length === 1;

/** The address a box is set up at, as planned: in a management segment, else its first of IPv4. */
export function plannedManagement(plan: Plan, device: string): Management | null {
  const found = interfacesOf(plan, device)
    .flatMap(({ id }) => addressesOn(plan, id))
    .filter(({ address, assignment }) => familyOf(address) === 4 && assignment !== 'virtual')
    .map(({ address, subnet: id }) => {
      const subnet = plan.subnet.get(id)!;
      const { vid, purpose } = plan.vlan.get(subnet.vlan)!;
      return { address, length: subnet.prefix.length, vid, first: purpose === 'management' };
    });
  const best = found.find(({ first }) => first) ?? found[0];
  return best ? { address: best.address, length: best.length, vid: best.vid } : null;
}

const vidsIn = (facts: readonly (PortFacts | null)[]): Set<number> =>
  new Set(
    facts.flatMap((port) =>
      port === null
        ? []
        : [port.pvid, port.untagged, ...(port.tagged.except ? [] : port.tagged.vids)].filter(
            (vid): vid is number => vid !== null,
          ),
    ),
  );

/** Devices that nobody misses for a quarter of an hour; a machine or a camera is none of them. */
const LENDS: readonly Device['kind'][] = ['computer', 'phone', 'printer'];

/** The sockets that could be borrowed, by port. */
function lentIn(plan: Plan, { seats, links }: Pick<Fabric, 'seats' | 'links'>): ReadonlyMap<string, string> {
  const lent = new Map<string, string>();
  for (const [port, [link, ...more]] of links) {
    const other = link && more.length === 0 && !seats.has(link.to) ? plan.port.get(link.to) : undefined;
    if (other && seats.has(port) && LENDS.includes(plan.device.get(other.device)!.kind))
      lent.set(port, other.device);
  }
  return lent;
}

/** The site as planned. */
export function plannedState(plan: Plan): SiteState {
  const fabric = wiredFabric(plan);
  const { links } = fabric;
  const air = new Map(airSeats(plan).map(({ id, vid }) => [id, socketIn(vid)]));
  const byBox = groupBy(airSeats(plan), ({ device }) => device);
  const seats = new Map(fabric.seats);
  const bridges = fabric.bridges.map((bridge, at) => {
    const networks = bridge.box.vlanAware ? byBox.get(bridge.device) : undefined;
    if (!networks) return bridge;
    const ports = withAir(bridge, networks);
    ports.forEach(({ id }, port) => seats.set(id, { bridge: at, port }));
    return { ...bridge, ports, facts: ports.map(({ id }, i) => air.get(id) ?? bridge.facts[i] ?? null) };
  });
  const boxes = bridges.map((bridge): BoxState => ({
    bridge,
    management: bridge.box.vlanAware ? plannedManagement(plan, bridge.device) : null,
    vids: vidsIn(bridge.facts),
    routed: bridge.box.vlanAware ? routedVids(plan, bridge.device) : [],
    pages: [],
  }));
  const lent = lentIn(plan, fabric);
  return { boxes, seats, links, apart: new Set(), access: accessOf(plan), lent, air, ways: {} };
}

/** Does a port belong to a box that stands apart? */
function standsApart({ boxes, seats, apart }: SiteState, port: string): boolean {
  const seat = seats.get(port);
  return seat !== undefined && apart.has(boxes[seat.bridge]!.bridge.device);
}
/** May somebody sit there: is nothing plugged in? Of a box that stands apart no cable is, and an access point has no other socket. */
export const isVacant = (state: SiteState, port: string): boolean =>
  !state.links.has(port) || standsApart(state, port);

/** May somebody sit there, if need be by unplugging a device that can do without for a while? */
export const maySit = (state: SiteState, port: string): boolean =>
  isVacant(state, port) || state.lent.has(port);

/** Who is unplugged there meanwhile; null where nobody is. */
export const lenderOf = (state: SiteState, port: string): string | null =>
  isVacant(state, port) ? null : (state.lent.get(port) ?? null);

const live = new WeakMap<SiteState, Fabric>();
/** The links between boxes that are plugged in. */
function linksOfState(state: SiteState): Fabric['links'] {
  const { seats, links, apart } = state;
  if (apart.size === 0) return links;
  const isApart = (port: string) => standsApart(state, port);
  const found = new Map<string, readonly Link[]>();
  for (const [port, all] of links) {
    const left = all.filter(({ from, to }) => !seats.has(to) || !(isApart(from) || isApart(to)));
    if (left.length > 0) found.set(port, left);
  }
  return found;
}
const plugged = new WeakMap<ReadonlySet<string>, Fabric['links']>();
/** What frames can do now. */
export function fabricIn(state: SiteState): Fabric {
  const known = live.get(state);
  if (known) return known;
  let links = plugged.get(state.apart);
  if (!links) plugged.set(state.apart, (links = linksOfState(state)));
  const made: Fabric = { bridges: state.boxes.map(({ bridge }) => bridge), seats: state.seats, links };
  live.set(state, made);
  return made;
}

/** The place of a device among the boxes; −1 for none. */
export const placeIn = ({ boxes }: SiteState, device: string): number =>
  boxes.findIndex(({ bridge }) => bridge.device === device);

/** The same site with one box as it is now; `ways` where frames between boxes go as before. */
export const withBox = (state: SiteState, at: number, box: BoxState, ways: object = {}): SiteState => ({
  ...state,
  boxes: state.boxes.with(at, box),
  ways,
});
