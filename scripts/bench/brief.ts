import { typedCable } from '../../src/core/edit';
import { propose, weaknessOf } from '../../src/core/brief';
import { type Plan, finish, siteOf, withRecord } from '../../src/core/plan';
import { done, emptySite, prefix } from '../../src/core/testing/plans';
import { show } from './measure';

/** A plant of so many things that are listed one by one, in eight places, with people who come and go. */
function plantOf(count: number): Plan {
  const site = emptySite({ kind: 'industrial' });
  let plan = withRecord(site, 'site', 'site', { ...siteOf(site), space: [prefix('10.0.0.0/12')] });
  const kinds = [
    'workstation',
    'controller',
    'camera',
    'telephone',
    'sensor',
    'operator-panel',
    'printer',
    'server',
  ];
  kinds.forEach((thing, i) => {
    plan = done(plan, 'addNeed', { thing, count: count / kinds.length, place: `Hall ${i + 1}` });
  });
  for (const thing of ['laptop', 'guest'])
    plan = done(plan, 'addNeed', { thing, count: 100, place: 'Hall 1', link: 'wireless' });
  for (const name of ['fibre', 'mobile']) plan = done(plan, 'addLine', { name, outside: 'public' });
  for (const [from, to] of [
    ['cameras', 'internet'],
    ['guest', 'staff'],
    ['control-cell', 'staff'],
  ])
    plan = done(plan, 'addWish', { from, to, decision: 'deny' });
  return plan;
}

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
