import { type Device, type Plan, type Port, devicesNamed, vlansOf } from '../plan';
import { portsOf } from '../model/wiring';
import { typedCable } from '../edit';
import { done, emptySite } from './plans';

/** A small site with boxes, and words for what is done to it. */

export const named = (plan: Plan, name: string): Device => devicesNamed(plan, name)[0]!;
export const port = (plan: Plan, name: string, number: number): Port =>
  portsOf(plan, named(plan, name).id).find((candidate) => candidate.number === number)!;
export const vlan = (plan: Plan, purpose: string) => vlansOf(plan).find((item) => item.purpose === purpose)!;
export const add = (plan: Plan, model: string, name: string) =>
  done(plan, 'addDevice', { model: { shelf: model }, name });
export const cable = (plan: Plan, text: string) => done(plan, 'connect', typedCable(plan, text));
export const assign = (plan: Plan, ports: Port[], role: string, fields: object = {}) =>
  done(plan, 'assignPorts', { ports: ports.map((item) => item.id), role, ...fields });

/** A gateway, two switches and a camera segment; sw-a 24 to sw-b 24, gw-1 2 to sw-a 1. */
export function cupboard(): Plan {
  let plan = emptySite();
  for (const purpose of ['management', 'cameras', 'staff', 'voice', 'parking'])
    plan = done(plan, 'addSegment', { purpose });
  plan = done(plan, 'equipDevice', { device: named(plan, 'gw-1').id, model: { shelf: 'gateway-6' } });
  plan = add(add(plan, 'switch-24p', 'sw-a'), 'switch-24p', 'sw-b');
  plan = cable(cable(plan, 'gw-1 2 = sw-a 1'), 'SW-A 24 = sw-b 24');
  const trunks = [
    port(plan, 'gw-1', 2),
    port(plan, 'sw-a', 1),
    port(plan, 'sw-a', 24),
    port(plan, 'sw-b', 24),
  ];
  plan = assign(plan, trunks, 'trunk', { vlan: null, tagged: [vlan(plan, 'management').id] });
  return plan;
}
