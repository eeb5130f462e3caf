import { type IpAddress, familyOf } from '../address';
import { type Plan, addressesOn, boxOf, derive, groupBy, interfacesOf, presentOf } from '../plan';
import {
  type Bridge,
  DEFAULT_VID,
  type Fabric,
  type Link,
  type PortFacts,
  portFacts,
  wiredFabric,
} from '../model/wiring';

/** Boxes as they are set at a moment, on the way from how they came to what the plan says. */

/** Where a box listens to whoever sets it up. */
export interface Management {
  /** Null for one as it comes whose address nobody looked up. */
  readonly address: IpAddress | null;
  readonly length: number;
  /** The VLAN it hears that in. */
  readonly vid: number;
}
/** Two boxes with the same of this answer to the same address: it is that, or where it is not known the model. */
const answersTo = ({ address }: Management, model: string): string => String(address ?? model);

export interface BoxState {
  readonly bridge: Bridge;
  /** Null for a box that nobody sets up: a plain switch, or one for which no address is planned. */
  readonly management: Management | null;
  /** The VLANs that are made on it. */
  readonly vids: ReadonlySet<number>;
}

/** All boxes, in the order of the fabric of their plan. */
export interface SiteState {
  readonly boxes: readonly BoxState[];
  readonly seats: Fabric['seats'];
  readonly links: Fabric['links'];
  /** Devices whose cables to other boxes are not plugged in yet. */
  readonly apart: ReadonlySet<string>;
  /** The same object as long as nothing changed that frames between boxes depend on. */
  readonly ways: object;
}

/** Has a box a single socket on its case, like an access point? */
export const hasOneSocket = ({ bridge }: BoxState): boolean =>
  bridge.ports.filter(({ number }) => number > 0).length === 1;

/** A box as it comes: every port as the factory made it, an address of its own in VLAN 1. */
export interface AsItComes {
  readonly address: IpAddress | null;
  readonly length: number;
}
/** The boxes that are as they come: all that are to be set up, but for those of which somebody said otherwise. */
export const comesOf = derive((plan): ReadonlyMap<string, AsItComes> => {
  const found = new Map<string, AsItComes>();
  for (const { device, vlanAware } of plan.box.values()) {
    const { state, address, length } = presentOf(plan, device);
    if (vlanAware && state === 'as-it-comes') found.set(device, { address, length });
  }
  return found;
});

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

/** The site as planned. */
export function plannedState(plan: Plan): SiteState {
  const { bridges, seats, links } = wiredFabric(plan);
  const boxes = bridges.map((bridge): BoxState => ({
    bridge,
    management: bridge.box.vlanAware ? plannedManagement(plan, bridge.device) : null,
    vids: vidsIn(bridge.facts),
  }));
  return { boxes, seats, links, apart: new Set(), ways: {} };
}

/**
 * The site before work begins: the boxes of `comes` as they come, the others as planned. Boxes that come with the same
 * address never meet on one wire: they stand apart until they have their own. So does a new box with one socket, which is set
 * up before it is hung.
 */
export function presentState(plan: Plan, comes: ReadonlyMap<string, AsItComes> = comesOf(plan)): SiteState {
  const planned = plannedState(plan);
  const boxes = planned.boxes.map((box): BoxState => {
    const { device, ports } = box.bridge;
    const own = comes.get(device);
    if (!own || !box.management) return box;
    const factory = boxOf(plan, device)!;
    // The socket for the provider is that as it comes.
    const facts = ports.map((port, at) =>
      port.role === 'uplink'
        ? box.bridge.facts[at]!
        : portFacts({ ...port, role: 'undecided', enabled: true }, factory, () => 0),
    );
    return {
      bridge: { ...box.bridge, facts },
      management: { ...own, vid: DEFAULT_VID },
      vids: new Set([DEFAULT_VID]),
    };
  });
  const by = groupBy(
    boxes.filter(({ management }) => management !== null),
    ({ bridge, management }) => answersTo(management!, boxOf(plan, bridge.device)!.model),
  );
  const alike = [...by.values()].filter((all) => all.length > 1).flat();
  const hung = boxes.filter((box) => comes.has(box.bridge.device) && hasOneSocket(box));
  const apart = new Set([...alike, ...hung].map(({ bridge }) => bridge.device));
  return { ...planned, boxes, apart, ways: {} };
}

/** Does a port belong to a box that stands apart? */
function standsApart({ boxes, seats, apart }: SiteState, port: string): boolean {
  const seat = seats.get(port);
  return seat !== undefined && apart.has(boxes[seat.bridge]!.bridge.device);
}
/** May somebody sit there: is nothing plugged in? Of a box that stands apart no cable is, and an access point has no other socket. */
export const isVacant = (state: SiteState, port: string): boolean =>
  !state.links.has(port) || standsApart(state, port);

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
