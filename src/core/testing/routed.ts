import { type Plan, subnetOf } from '../plan';
import { routedBehind } from './behind';
import { deviceNamed, portNamed, put, vlanFor } from './gear';
import { done, nextSeed } from './plans';
import { zoneNamed } from './policy';

/** A site whose segments are routed in two places, for tests. */

/** A layer-3 switch behind a transit segment, whose segment may talk to the devices. With `back` the gateway knows the way back. */
export const behindSwitch = (sound: Plan, back: boolean): Plan => opened(routedBehind(sound, back));
const opened = (plan: Plan): Plan => {
  const zoned = done(plan, 'ownZone', { vlan: vlanFor(plan, 'control-cell').id });
  const cell = [...zoned.zone.values()].find(({ vlans }) =>
    vlans.includes(vlanFor(plan, 'control-cell').id),
  )!;
  return done(zoned, 'decidePairs', {
    pairs: [{ from: cell.id, to: zoneNamed(zoned, 'Devices').id }],
    decision: 'allow',
    services: [],
  });
};

/**
 * The switch of `behindSwitch` with a leg in a segment of the gateway's too, and no filter of its own: what it sends there does
 * not pass the gateway, and what is sent from there does.
 */
export function besideGateway(behind: Plan, purpose: string): Plan {
  const core = deviceNamed(behind, 'core').id;
  const { id: vlan } = vlanFor(behind, purpose);
  let plan = behind;
  for (const [name, number] of [
    ['gw-1', 3],
    ['core', 1],
    ['core', 0],
  ] as const) {
    const port = portNamed(plan, name, number);
    plan = put(plan, 'port', port, { tagged: [...port.tagged, vlan] });
  }
  plan = put(
    plan,
    'box',
    [...plan.box.values()].find(({ device }) => device === core)!,
    { filter: 'none' },
  );
  const [item] = [...plan.interface.values()].filter(({ device }) => device === core);
  const leg = { ...item!, id: nextSeed(), vlan, mac: null, name: '' };
  plan = put(plan, 'interface', leg, {});
  const subnet = subnetOf(plan, vlan, 4)!;
  const address = (subnet.prefix.address as number) + 250;
  const fixed = { interface: leg.id, subnet: subnet.id, gateway: false, note: '', assignment: 'static' };
  return put(plan, 'address', { ...fixed, id: nextSeed(), address } as never, {});
}
