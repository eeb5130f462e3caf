import { derive, deriveBy, type Plan, addressesOn, interfacesOf } from '../../plan';
import {
  isMember,
  bridgeOf,
  fabricOf,
  type Flood,
  type State,
  stateKey,
  vidsById,
  type WiredPort,
} from '../wiring';
import { networksAt } from '../wireless';
import { floodFrom } from './reach';

/** The boxes in the order of the fabric, and whether each knows VLANs: what ports do leaves this as it is. */
export const boxesInOrder = derive(
  (plan): readonly { readonly device: string; readonly vlanAware: boolean }[] =>
    fabricOf(plan).bridges.map(({ device, box }) => ({ device, vlanAware: box.vlanAware })),
);
const places = derive(
  (plan): ReadonlyMap<string, number> => new Map(boxesInOrder(plan).map(({ device }, at) => [device, at])),
);
/** The place of a box among the bridges of the fabric; -1 for a device that passes no frames. */
export const bridgeAt = (plan: Plan, device: string): number => places(plan).get(device) ?? -1;

/** A port by which somebody uses a VLAN: an access or voice port, or the inside of a box that lives or routes in it. */
export interface VlanMember {
  readonly port: WiredPort;
  readonly state: State;
  /** Is the port itself a member? Only the inside of a box can be meant for a VLAN without being in it. */
  readonly member: boolean;
}

/** The VLANs a box itself takes part in: by an interface, an address or a wireless network in them, or because its inner port says so. */
const livesIn = (plan: Plan, device: string, inner: WiredPort): Set<string> =>
  new Set([
    ...interfacesOf(plan, device).flatMap((item) => [
      ...(item.vlan === null ? [] : [item.vlan]),
      ...addressesOn(plan, item.id).map((address) => plan.subnet.get(address.subnet)!.vlan),
    ]),
    ...networksAt(plan, device).flatMap(({ vlan }) => vlan ?? []),
    ...(inner.untagged === null ? [] : [inner.untagged]),
    ...(inner.taggedMode === 'list' ? inner.tagged : []),
  ]);

/** The VLANs that a box and its access and voice ports use, each use under the VLAN’s record id. */
const usersAt = deriveBy((plan, device: string): readonly (readonly [string, VlanMember])[] => {
  const bridge = bridgeOf(plan, device);
  if (!bridge.box.vlanAware) return [];
  const at = bridgeAt(plan, device);
  const vids = vidsById(plan);
  const inside = bridge.facts[bridge.ports.findIndex(({ number }) => number === 0)];
  const isIn = ({ number }: WiredPort, vid: number): boolean =>
    number !== 0 || (inside != null && isMember(inside, vid));
  const use = (vlan: string, port: WiredPort): [string, VlanMember] => [
    vlan,
    { port, state: { bridge: at, vid: vids.get(vlan)! }, member: isIn(port, vids.get(vlan)!) },
  ];
  const inner = bridge.ports.find((port) => port.number === 0);
  return [
    ...(inner ? [...livesIn(plan, device, inner)].map((vlan) => use(vlan, inner)) : []),
    ...bridge.ports.flatMap((port) => {
      if (port.number === 0 || !port.enabled || port.defective) return [];
      if (port.role !== 'access' && port.role !== 'voice') return [];
      return [port.untagged, port.voice].flatMap((vlan) => (vlan === null ? [] : [use(vlan, port)]));
    }),
  ];
});

/** Who uses each VLAN, by VLAN record id. Trunks that only pass it on are no users. */
const usersByVlan = derive((plan): ReadonlyMap<string, readonly VlanMember[]> => {
  const users = new Map<string, VlanMember[]>();
  for (const device of places(plan).keys())
    for (const [vlan, user] of usersAt(plan, device)) {
      const list = users.get(vlan);
      if (list) list.push(user);
      else users.set(vlan, [user]);
    }
  return users;
});
const NOBODY: readonly VlanMember[] = [];
export const membersOfVlan = deriveBy(
  (plan, vlan: string): readonly VlanMember[] => usersByVlan(plan).get(vlan) ?? NOBODY,
);

/** Users of a VLAN that hear each other. */
export interface Island {
  readonly users: readonly VlanMember[];
  readonly flood: Flood;
}

/**
 * The parts a VLAN falls into: users in the first one's broadcast, then those of the next that it does not reach. One
 * island is a VLAN that works.
 */
export const islandsOf = deriveBy((plan, vlan: string): readonly Island[] => {
  let left = membersOfVlan(plan, vlan).filter(({ member }) => member);
  const islands: Island[] = [];
  while (left.length > 0) {
    const reached = floodFrom(plan, left[0]!.state);
    const users = left.filter((user) => reached.came.has(stateKey(user.state)));
    islands.push({ users, flood: reached });
    left = left.filter((user) => !reached.came.has(stateKey(user.state)));
  }
  return islands;
});
