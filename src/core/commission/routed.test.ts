import { readFileSync } from 'node:fs';
import { readPlanFile } from '../formats';
import { type Plan, boxOf } from '../plan';
import { done, without } from '../testing/plans';
import { deviceNamed, portNamed } from '../testing/gear';
import { orderOf, plannedState, presentState, reachedFrom, sheetOf } from './index';
import { ROUTED } from './reach';

/** A house that is set up: the family may open the gateway’s pages and reach what is managed, devices may not. */
const house = readPlanFile(readFileSync('demo/1-row-house.json', 'utf8'));
const zone = (plan: Plan, name: string) => [...plan.zone.values()].find((one) => one.name === name)!.id;
const reachedIn = (plan: Plan, number: number) =>
  new Map(
    [...reachedFrom(plannedState(plan), portNamed(plan, 'sw-cellar', number).id)].map(([device, far]) => [
      plan.device.get(device)!.name,
      far >= ROUTED,
    ]),
  );
// Ports 3 and 6 are taken; whoever sits there unplugged what was there.
const free = (plan: Plan, ...numbers: number[]) =>
  numbers.reduce((site, number) => {
    const port = portNamed(site, 'sw-cellar', number).id;
    const cable = [...site.cable.values()].find(({ from, to }) => from === port || to === port);
    return cable ? without(site, { table: 'cable', id: cable.id }) : site;
  }, plan);

test('the page of the gateway opens where the plan lets it, and over it what the zones let through', () => {
  const plan = free(house, 3, 6);
  // One access point hangs in the family’s VLAN by a mistake of this plan, and is reached there.
  expect([...reachedIn(plan, 6)].sort()).toEqual([
    ['ap-attic', false],
    ['ap-flat', true],
    ['ap-ground', true],
    ['gw-1', true],
    ['sw-cellar', true],
  ]);
  expect([...reachedIn(plan, 3)]).toEqual([]);
  const shut = done(plan, 'decidePairs', {
    pairs: [{ from: zone(plan, 'Family'), to: zone(plan, 'Management') }],
    decision: 'deny',
    services: [],
  });
  expect([...reachedIn(shut, 6).keys()].sort()).toEqual(['ap-attic', 'gw-1']);
});

test('a site that works is changed from a desk, with the address that everybody gets there', () => {
  const plan = free(house, 6);
  const devices = [...plan.box.values()].flatMap(({ device, vlanAware }) => (vlanAware ? [device] : []));
  const recorded = done(plan, 'setPresent', { devices, set: { state: 'as-planned', asOf: 1 } });
  const { id } = [...plan.vlan.values()].find(({ name }) => name === 'Family')!;
  const renamed = done(recorded, 'edit', { table: 'vlan', id, set: { name: 'Household' } });
  const now = presentState(renamed, undefined, new Map([[1, plan]]));
  const { seats } = sheetOf(renamed, now, orderOf(now, plannedState(renamed)).entries);
  expect(new Set(seats.map(({ socket }) => socket))).toEqual(new Set([portNamed(plan, 'sw-cellar', 6).id]));
  const routed = seats.filter(({ given }) => given).flatMap(({ steps }) => steps);
  expect(routed.map(({ does }) => does)).toContain('Set its other pages: Addresses, DHCP');
  for (const { given, laptop } of seats) expect(laptop === null).toBe(given);
  // A gateway that comes new has nothing of that yet.
  const gateway = deviceNamed(plan, 'gw-1').id;
  const fresh = done(renamed, 'setPresent', { devices: [gateway], set: { state: 'as-it-comes' } });
  const state = presentState(fresh, undefined, new Map([[1, plan]]));
  expect(reachedFrom(state, portNamed(plan, 'sw-cellar', 6).id).get(gateway) ?? 0).toBeLessThan(ROUTED);
  expect(boxOf(plan, gateway)!.layer3).toBe(true);
});
