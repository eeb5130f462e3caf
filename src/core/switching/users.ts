import { memo } from '../plan/memo';
import type { Plan } from '../plan/plan';
import type { Device, Port } from '../plan/records';
import { interfacesOf } from '../plan/view';
import { isMember } from './facts';
import { type Fabric, type Flood, type State, fabricOf, flood, stateKey } from './fabric';

export const fabric = memo((plan: Plan) => fabricOf(plan));

/** A port by which somebody uses a VLAN: an access or voice port, or the inside of a box that lives or routes in it. */
export interface VlanUser {
  readonly port: Port;
  readonly state: State;
}

/** Does the box itself take part in a VLAN: by an interface in it, or because its inner port says so? */
export const livesIn = (plan: Plan, device: Device['id'], inner: Port, vlan: string): boolean =>
  interfacesOf(plan, device).some((item) => item.vlan === vlan) ||
  inner.untagged === vlan ||
  (inner.taggedMode === 'list' && inner.tagged.includes(vlan));

/** Who uses each VLAN, by VLAN record id. Trunks that only pass it on are no users. */
const usersByVlan = memo((plan: Plan) => {
  const users = new Map<string, VlanUser[]>();
  const add = (vlan: string, port: Port, bridge: number) => {
    const user = { port, state: { bridge, vid: plan.vlan.get(vlan)!.vid } };
    const list = users.get(vlan);
    if (list) list.push(user);
    else users.set(vlan, [user]);
  };
  const { bridges } = fabric(plan);
  bridges.forEach((bridge, at) => {
    if (!bridge.box.vlanAware) return;
    for (const port of bridge.ports) {
      if (port.number === 0) {
        const routed = interfacesOf(plan, bridge.device).flatMap((item) => item.vlan ?? []);
        const own = [
          ...(port.untagged === null ? [] : [port.untagged]),
          ...(port.taggedMode === 'list' ? port.tagged : []),
        ];
        for (const vlan of new Set([...routed, ...own])) add(vlan, port, at);
      } else if (port.enabled && !port.defective && (port.role === 'access' || port.role === 'voice')) {
        if (port.untagged !== null) add(port.untagged, port, at);
        if (port.voice !== null) add(port.voice, port, at);
      }
    }
  });
  return users;
});
export const usersOf = (plan: Plan, vlan: string): readonly VlanUser[] => usersByVlan(plan).get(vlan) ?? [];

/** The inner port must be a member for the box itself to be reached in a VLAN. */
function reaches({ bridges }: Fabric, user: VlanUser): boolean {
  if (user.port.number !== 0) return true;
  const bridge = bridges[user.state.bridge]!;
  const facts = bridge.facts[bridge.ports.indexOf(user.port)];
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
export function islandsOf(plan: Plan, vlan: string): Island[] {
  const made = fabric(plan);
  let left = usersOf(plan, vlan).filter((user) => reaches(made, user));
  const islands: Island[] = [];
  while (left.length > 0) {
    const reached = flood(made, { state: left[0]!.state });
    const users = left.filter((user) => reached.came.has(stateKey(user.state)));
    islands.push({ users, flood: reached });
    left = left.filter((user) => !reached.came.has(stateKey(user.state)));
  }
  return islands;
}
