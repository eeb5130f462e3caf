import { derive, deriveBy, memo, type Plan, addressesOn, interfacesOf } from '../../plan';
import {
  isMember,
  type Bridge,
  type Fabric,
  type Flood,
  type State,
  stateKey,
  vidsById,
  type WiredPort,
} from '../wiring';
import { fabric, floodFrom } from './reach';

export { fabric } from './reach';

const places = memo(
  ({ bridges }: Fabric) => new Map(bridges.map(({ device }, at): [string, number] => [device, at])),
);
/** The place of a box among the bridges of the fabric; -1 for a device that passes no frames. */
export const bridgeAt = (plan: Plan, device: string): number => places(fabric(plan)).get(device) ?? -1;

/** A port by which somebody uses a VLAN: an access or voice port, or the inside of a box that lives or routes in it. */
export interface VlanUser {
  readonly port: WiredPort;
  readonly state: State;
}

/** The VLANs a box itself takes part in: by an interface or an address in them, or because its inner port says so. */
const livesIn = (plan: Plan, device: string, inner: WiredPort): Set<string> =>
  new Set([
    ...interfacesOf(plan, device).flatMap((item) => [
      ...(item.vlan === null ? [] : [item.vlan]),
      ...addressesOn(plan, item.id).map((address) => plan.subnet.get(address.subnet)!.vlan),
    ]),
    ...(inner.untagged === null ? [] : [inner.untagged]),
    ...(inner.taggedMode === 'list' ? inner.tagged : []),
  ]);

/** The access and voice ports of a bridge, each under every VLAN it is in. */
const portUsers = memo((bridge: Bridge) =>
  bridge.ports.flatMap((port): { readonly vlan: string; readonly port: WiredPort }[] => {
    if (port.number === 0 || !port.enabled || port.defective) return [];
    if (port.role !== 'access' && port.role !== 'voice') return [];
    return [port.untagged, port.voice].flatMap((vlan) => (vlan === null ? [] : [{ vlan, port }]));
  }),
);

/** Who uses each VLAN, by VLAN record id. Trunks that only pass it on are no users. */
const usersByVlan = derive((plan) => {
  const users = new Map<string, VlanUser[]>();
  const vids = vidsById(plan);
  const add = (vlan: string, port: WiredPort, bridge: number) => {
    const user = { port, state: { bridge, vid: vids.get(vlan)! } };
    const list = users.get(vlan);
    if (list) list.push(user);
    else users.set(vlan, [user]);
  };
  fabric(plan).bridges.forEach((bridge, at) => {
    if (!bridge.box.vlanAware) return;
    const inner = bridge.ports.find((port) => port.number === 0);
    if (inner) for (const vlan of livesIn(plan, bridge.device, inner)) add(vlan, inner, at);
    for (const { vlan, port } of portUsers(bridge)) add(vlan, port, at);
  });
  return users;
});
const NOBODY: readonly VlanUser[] = [];
export const usersOf = deriveBy(
  (plan, vlan: string): readonly VlanUser[] => usersByVlan(plan).get(vlan) ?? NOBODY,
);

/** The inner port must be a member for the box itself to be reached in a VLAN. */
function reaches({ bridges }: Fabric, user: VlanUser): boolean {
  if (user.port.number !== 0) return true;
  const bridge = bridges[user.state.bridge]!;
  const facts = bridge.facts[bridge.ports.findIndex(({ number }) => number === 0)];
  return facts != null && isMember(facts, user.state.vid);
}

/** Users of a VLAN that hear each other. */
export interface Island {
  readonly users: readonly VlanUser[];
  readonly flood: Flood;
}

/**
 * The parts a VLAN falls into: users in the first one's broadcast, then those of the next that it does not reach. One
 * island is a VLAN that works.
 */
export const islandsOf = deriveBy((plan, vlan: string): readonly Island[] => {
  const made = fabric(plan);
  let left = usersOf(plan, vlan).filter((user) => reaches(made, user));
  const islands: Island[] = [];
  while (left.length > 0) {
    const reached = floodFrom(plan, left[0]!.state);
    const users = left.filter((user) => reached.came.has(stateKey(user.state)));
    islands.push({ users, flood: reached });
    left = left.filter((user) => !reached.came.has(stateKey(user.state)));
  }
  return islands;
});
