import type { IpAddress } from '../address';
import { type BoxModel, type Plan, boxOf, groupBy, modelOf, presentOf, siteOf } from '../plan';
import { DEFAULT_VID, type PortFacts, portFacts } from '../model/wiring';
import { isOnAir } from './air-seats';
import { type Formers, NO_FORMERS, formerBox, isSetUp } from './formers';
import { pagesLeft } from './pages/left';
import { allOf } from './routed';
import {
  ALONE,
  type BoxState,
  type Management,
  type SiteState,
  hasOneSocket,
  placeIn,
  plannedState,
  socketIn,
} from './state';

/** The site before work begins: boxes as they come, as somebody found them, or as they were set up some time ago. */

/** A box as it comes: every port as the factory made it, an address of its own in VLAN 1 or one port to begin at. */
export interface AsItComes {
  readonly address: IpAddress | null;
  readonly length: number;
  readonly way?: BoxModel['way'];
  /** The number of the port that answers until the first restart. */
  readonly port?: number | null;
}
/**
 * The boxes that are as they come, or that somebody only found: all that are to be set up, but for those that are recorded as
 * planned. What is not said of a box is taken from what is known of its model.
 */
export function comesOf(plan: Plan, formers: Formers = NO_FORMERS): ReadonlyMap<string, AsItComes> {
  const found = new Map<string, AsItComes>();
  for (const { device, vlanAware } of plan.box.values()) {
    const { state, address, length } = presentOf(plan, device);
    if (!vlanAware || isSetUp(plan, device, formers)) continue;
    const known = modelOf(plan, device);
    const own = address === null && known ? known : { address, length };
    // What was in use answers at every port again.
    const ways = state !== 'as-found' && known ? { way: known.way, port: known.port } : {};
    found.set(device, { address: own.address, length: own.length, ...ways });
  }
  return found;
}

/** The port that a box is begun at, and the box behind it. */
const alone = socketIn(ALONE);

/** Every port as the factory made it. */
function factoryFacts(plan: Plan, { bridge }: BoxState): (PortFacts | null)[] {
  const factory = boxOf(plan, bridge.device)!;
  // The socket for the provider is that as it comes.
  return bridge.ports.map((port, at) =>
    isOnAir(port)
      ? null
      : port.role === 'uplink'
        ? bridge.facts[at]!
        : portFacts({ ...port, role: 'undecided', enabled: true }, factory, () => 0),
  );
}

/** A box with every port as the factory made it, found as it comes. */
export function asItComes(plan: Plan, box: BoxState, own: AsItComes): BoxState {
  const { bridge } = box;
  const { address, length, way = 'any-port', port } = own;
  const facts = factoryFacts(plan, box);
  const vids = new Set([DEFAULT_VID]);
  const begin =
    way === 'one-port' ? bridge.ports.findIndex(({ number }) => number > 0 && number === port) : -1;
  if (begin >= 0) {
    const inside = bridge.ports.findIndex(({ number }) => number === 0);
    const begun = facts.map((one, at) => (at === begin || at === inside ? alone : one));
    const management: Management = { address, length, vid: ALONE, way: 'one-port' };
    return { ...box, routed: [], bridge: { ...bridge, facts: begun }, management, vids };
  }
  const found: Management = { address, length, vid: DEFAULT_VID };
  const management: Management =
    way === 'link-local'
      ? { ...found, address: null, way }
      : way === 'console'
        ? { ...found, address: null, vid: ALONE, way }
        : found;
  return { ...box, routed: [], bridge: { ...bridge, facts }, management, vids };
}

/** A box as it was set up; ports it got since are as the factory makes them. */
function asItWas(plan: Plan, box: BoxState, former: SiteState): BoxState {
  const was = former.boxes[placeIn(former, box.bridge.device)];
  if (!was) return box;
  const before = new Map(was.bridge.ports.map(({ id }, at) => [id, was.bridge.facts[at]!]));
  const factory = factoryFacts(plan, box);
  const facts = box.bridge.ports.map(({ id }, at) => (before.has(id) ? before.get(id)! : factory[at]!));
  const management = was.management ?? { address: null, length: 24, vid: DEFAULT_VID };
  const routed = box.routed.filter((vid) => was.routed.includes(vid));
  const vids = new Set([DEFAULT_VID, ...was.vids]);
  return { ...box, bridge: { ...box.bridge, facts }, management, vids, routed };
}

/** Two boxes with the same of this answer to the same address: it is that, or where it is not known the model. */
const answersTo = ({ address }: Management, model: string): string => String(address ?? model);

/** Which boxes stand apart at first: their cables to other boxes are not plugged in. */
function apartIn(plan: Plan, state: SiteState, comes: ReadonlyMap<string, AsItComes>): ReadonlySet<string> {
  const news = state.boxes.filter(
    ({ bridge, management }) => management !== null && comes.has(bridge.device),
  );
  const isOnBench = siteOf(plan).staging === 'bench';
  const isTaken = ({ bridge, management }: BoxState) =>
    management!.way === 'one-port' &&
    bridge.ports.some(({ id }, at) => bridge.facts[at]?.pvid === ALONE && state.links.has(id));
  const answering = state.boxes.filter(
    ({ management }) => management !== null && management.way === undefined,
  );
  const by = groupBy(answering, ({ bridge, management }) =>
    answersTo(management!, boxOf(plan, bridge.device)!.model),
  );
  const alike = [...by.values()].filter((all) => all.length > 1).flat();
  const first = news.filter(
    (box) =>
      presentOf(plan, box.bridge.device).state !== 'as-found' &&
      (isOnBench || hasOneSocket(box) || isTaken(box)),
  );
  return new Set([...alike, ...first].map(({ bridge }) => bridge.device));
}

/**
 * The site before work begins: the boxes of `comes` as they come, others as they were at the change they are recorded at, the
 * rest as planned. Boxes that come with the same address never meet on one wire: they stand apart until they have their own. So
 * does a new box with one socket, which is set up before it is hung, one that is begun at a port with a cable planned, and on
 * the bench every new box.
 */
export function presentState(
  plan: Plan,
  given?: ReadonlyMap<string, AsItComes>,
  formers: Formers = NO_FORMERS,
): SiteState {
  const comes = given ?? comesOf(plan, formers);
  const planned = plannedState(plan);
  const states = new Map<Plan, SiteState>();
  const stateOf = (former: Plan): SiteState => {
    const known = states.get(former) ?? plannedState(former);
    states.set(former, known);
    return known;
  };
  const boxes = planned.boxes.map((box): BoxState => {
    const { device } = box.bridge;
    const own = comes.get(device);
    if (!box.management) return box;
    const former = formerBox(plan, device, formers);
    if (!own && !former) return box;
    const left = { ...box, pages: pagesLeft(plan, device, formers) };
    return own ? asItComes(plan, left, own) : asItWas(plan, left, stateOf(former!));
  });
  const access = allOf([planned, ...states.values()].map((one) => one.access));
  const state = { ...planned, boxes, access, ways: {} };
  return { ...state, apart: apartIn(plan, state, comes) };
}
