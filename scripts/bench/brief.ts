import { typedCable } from '../../src/core/edit';
import { propose, weaknessOf } from '../../src/core/brief';
import { type Plan, finish } from '../../src/core/plan';
import { done } from '../../src/core/testing/plans';
import { plantOf } from './brief-plant';
import { show } from './measure';

/** What each thing costs when it is added, plugged in and assigned by the operations a user has, in milliseconds. */
function byOperations(plan: Plan, things: number): number {
  const vlan = [...plan.vlan.values()].find(({ purpose }) => purpose === 'staff')!;
  const subnet = [...plan.subnet.values()].find((one) => one.vlan === vlan.id)!;
  let made = done(plan, 'addDevice', { model: { shelf: 'switch-48p' }, name: 'sw-by-hand', managed: false });
  const start = performance.now();
  for (let i = 1; i <= things; i++) {
    made = done(made, 'addHost', { subnet: subnet.id, kind: 'computer', name: `by-hand-${i}` });
    made = done(made, 'connect', typedCable(made, `sw-by-hand ${i} = by-hand-${i}`));
    const port = [...made.port.values()].find(
      ({ device, number }) => number === i && made.device.get(device)!.name === 'sw-by-hand',
    )!;
    made = done(made, 'assignPorts', { ports: [port.id], role: 'access', vlan: vlan.id });
  }
  return (performance.now() - start) / things;
}

const THINGS = 2000;
const MEASURED = 40;
const plan = plantOf(THINGS);
const start = performance.now();
const proposal = finish(propose(plan));
const took = performance.now() - start;
console.log(
  `Brief: ${THINGS} things in 8 places: ${proposal.hardware.switches.length} switches, ${proposal.hardware.accessPoints.length} access points, ${proposal.steps.length} records`,
);
const each = byOperations(proposal.plan, MEASURED);
show('  the proposal', took, { name: `thing by thing, ${MEASURED} measured`, ms: each * THINGS });
const before = performance.now();
const { tried, points } = finish(weaknessOf(proposal));
show(`  ${tried} failures rehearsed, ${points} of them single points`, performance.now() - before);
