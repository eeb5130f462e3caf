import { typedCable } from '../edit';
import { type Plan, addressesOn, subnetOf } from '../plan';
import { deviceNamed, portNamed, put, vlanFor } from './gear';
import { cardOf, uplinkNamed } from './internet';
import { done, nextSeed, prefix } from './plans';

/** Sites whose outside is more than one line: IPv6 beside IPv4, and a router behind the router, for tests. */

export const DELEGATED = '2001:db8:40::/48';

/** IPv6 in the segments of staff and cameras, delegated by the first provider; `desk` and `cam-1` have an address of it each. */
export function dualStack(sound: Plan): Plan {
  let plan = put(sound, 'uplink', uplinkNamed(sound, 'fibre'), { delegated: prefix(DELEGATED) });
  for (const [purpose, name, net] of [
    ['staff', 'desk', '2001:db8:40:30'],
    ['cameras', 'cam-1', '2001:db8:40:20'],
  ] as const) {
    const { id: vlan } = vlanFor(plan, purpose);
    plan = done(plan, 'addSubnet', { vlan, prefix: `${net}::/64` });
    const item = cardOf(plan, name);
    const address = {
      id: nextSeed(),
      interface: item.id,
      subnet: subnetOf(plan, vlan, 6)!.id,
      address: prefix(`${net}::11/128`).address,
      assignment: 'static',
      gateway: false,
      note: '',
    };
    plan = put(plan, 'address', address as never, {});
  }
  return plan;
}

/** A second router in the staff segment, with a workshop of its own behind it, a press in there and a forward to it. */
export function behindRouter(sound: Plan): Plan {
  let plan = done(sound, 'addDevice', { name: 'gw-2', model: { shelf: 'gateway-6' } });
  const inner = deviceNamed(plan, 'gw-2').id;
  plan = done(plan, 'addUplink', { device: inner, name: 'inner' });
  const staff = vlanFor(plan, 'staff').id;
  plan = done(plan, 'standBehind', { uplink: uplinkNamed(plan, 'inner').id, segment: staff });
  plan = done(plan, 'addSegment', { purpose: 'servers' });
  const workshop = vlanFor(plan, 'servers');
  plan = put(plan, 'vlan', workshop, { internet: true });
  const item = [...plan.interface.values()].find(
    ({ device, vlan }) => device === deviceNamed(plan, 'gw-1').id && vlan === workshop.id,
  )!;
  plan = put(plan, 'interface', item, { device: inner });
  const subnet = subnetOf(plan, workshop.id, 4)!.id;
  plan = done(plan, 'addHost', { subnet, name: 'press', kind: 'controller', assignment: 'static' });
  const outside = plan.port.get(uplinkNamed(plan, 'inner').port!)!.number;
  for (const line of [`gw-2 ${outside} = sw-b 3`, 'gw-2 2 = press'])
    plan = done(plan, 'connect', typedCable(plan, line));
  const assign = (name: string, number: number, fields: object) => {
    plan = done(plan, 'assignPorts', { ports: [portNamed(plan, name, number).id], ...fields });
  };
  assign('sw-b', 3, { role: 'access', vlan: staff });
  assign('gw-2', 0, { role: 'trunk', tagged: [workshop.id] });
  assign('gw-2', 2, { role: 'access', vlan: workshop.id });
  const uplink = uplinkNamed(plan, 'inner').id;
  return done(plan, 'addForward', { uplink, target: cardOf(plan, 'press').id, inside: 443, from: 8443 });
}

/** The address of a device in a family. */
export const addressOf = (plan: Plan, name: string, family: 4 | 6) =>
  addressesOn(plan, cardOf(plan, name).id).find(
    ({ address }) => (typeof address === 'number' ? 4 : 6) === family,
  )!.address;
