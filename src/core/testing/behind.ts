import { typedCable } from '../edit';
import { type Plan, gatewaysOf, subnetOf } from '../plan';
import { deviceNamed, portNamed, put, vlanFor } from './gear';
import { done, nextSeed } from './plans';

/** A site whose segments are routed in two places, for tests. */

/**
 * A layer-3 switch routes a segment of its own, and reaches the rest over a transit
 * segment. With `back` the gateway knows the way back.
 */
export function routedBehind(sound: Plan, back: boolean): Plan {
  let plan = done(sound, 'addDevice', { name: 'core', model: { shelf: 'layer3-24' } });
  const core = deviceNamed(plan, 'core').id;
  for (const purpose of ['transit', 'control-cell']) plan = done(plan, 'addSegment', { purpose });
  const cell = vlanFor(plan, 'control-cell');
  const transit = subnetOf(plan, vlanFor(plan, 'transit').id, 4)!;
  const gateway = deviceNamed(plan, 'gw-1').id;
  const item = [...plan.interface.values()].find(
    ({ device, vlan }) => device === gateway && vlan === cell.id,
  )!;
  plan = put(plan, 'interface', item, { device: core });
  plan = done(plan, 'addHost', {
    subnet: subnetOf(plan, cell.id, 4)!.id,
    name: 'press',
    kind: 'controller',
  });
  for (const line of ['gw-1 3 = core 1', 'core 2 = press'])
    plan = done(plan, 'connect', typedCable(plan, line));
  const assign = (name: string, numbers: number[], fields: object) => {
    const ports = numbers.map((number) => portNamed(plan, name, number).id);
    plan = done(plan, 'assignPorts', { ports, ...fields });
  };
  const uplink = { role: 'trunk', tagged: [transit.vlan] };
  assign('gw-1', [3], uplink);
  assign('core', [1], uplink);
  assign('core', [0], { role: 'trunk', tagged: [transit.vlan, cell.id] });
  assign('core', [2], { role: 'access', vlan: cell.id });
  const inside = portNamed(plan, 'gw-1', 0);
  assign('gw-1', [0], { role: 'trunk', tagged: [...inside.tagged, transit.vlan], vlan: inside.untagged });
  const id = nextSeed();
  const leg = { id, device: core, kind: 'vlan', vlan: transit.vlan, mac: null, name: '' };
  plan = put(plan, 'interface', { ...item, ...leg } as never, {});
  const near = gatewaysOf(plan, transit.id)[0]!.address as number;
  // A transit link is a /31: the other of its two addresses is the switch's.
  const via = near ^ 1;
  const leased = { interface: id, subnet: transit.id, gateway: false, note: '', assignment: 'static' };
  plan = put(plan, 'address', { ...leased, id: nextSeed(), address: via } as never, {});
  plan = done(plan, 'addRoute', { device: core, prefix: '0.0.0.0/0', via: dotted(near) });
  const { prefix: far } = subnetOf(plan, cell.id, 4)!;
  return back
    ? done(plan, 'addRoute', {
        device: gateway,
        prefix: `${dotted(far.address as number)}/${far.length}`,
        via: dotted(via),
      })
    : plan;
}
export const dotted = (n: number): string => [24, 16, 8, 0].map((bits) => (n >>> bits) & 255).join('.');
