import { readFileSync } from 'node:fs';
import { readPlanFile } from '../formats';
import { Draft, type Plan } from '../plan';
import { wiredFabric } from '../model/wiring';
import { done } from '../testing/plans';
import { deviceNamed } from '../testing/gear';
import { cutOffsIn, orderOf, plannedState, presentState, reachedFrom, sheetOf, socketTitle } from './index';

/** A house that is set up, in which every socket is in use or off. */
function house(): Plan {
  const plan = readPlanFile(readFileSync('demo/1-row-house.json', 'utf8'));
  const { seats, links } = wiredFabric(plan);
  const draft = new Draft(plan, 'full');
  for (const { id, number } of plan.port.values())
    if (number > 0 && seats.has(id) && !links.has(id)) draft.update('port', id, { enabled: false });
  return draft.plan;
}
/** The order after the name of a segment changed, from where everything was set up. */
function changed(plan: Plan) {
  const devices = [...plan.box.values()].flatMap(({ device, vlanAware }) => (vlanAware ? [device] : []));
  const recorded = done(plan, 'setPresent', { devices, set: { state: 'as-planned', asOf: 1 } });
  const { id } = [...plan.vlan.values()].find(({ name }) => name === 'Family')!;
  const site = done(recorded, 'edit', { table: 'vlan', id, set: { name: 'Household' } });
  const now = presentState(site, undefined, new Map([[1, plan]]));
  const order = orderOf(now, plannedState(site));
  expect(cutOffsIn(now, order.entries)).toEqual([]);
  return { site, now, order, ...sheetOf(site, now, order.entries) };
}
const kinds = (plan: Plan, from: readonly string[], to: 'camera' | 'computer'): Plan => {
  const draft = new Draft(plan, 'kinds');
  for (const { id, kind } of plan.device.values())
    if (from.includes(kind)) draft.update('device', id, { kind: to });
  return draft.plan;
};

test('where every socket is in use, a desk lends its own, and no camera does', () => {
  const { site, seats } = changed(kinds(house(), ['camera'], 'computer'));
  const wired = seats.filter(({ air }) => !air);
  expect(wired.length).toBeGreaterThan(0);
  for (const { lent } of wired) expect(site.device.get(lent!)!.kind).toBe('computer');
  // One access point hangs in another segment by a mistake of this plan: over the air it is reached all the same.
  expect(seats.filter(({ air }) => air).map(({ device }) => site.device.get(device)!.name)).toEqual([
    'ap-ground',
  ]);
});

test('where nobody lends one, a wireless network of an access point that is set up will do', () => {
  const { site, now, seats, order } = changed(kinds(house(), ['computer', 'phone', 'printer'], 'camera'));
  const [first] = seats;
  expect([first!.air, first!.lent]).toEqual([true, null]);
  expect(socketTitle(site, first!.socket!)).toMatch(/^wireless network \S.*, ap-/);
  expect(site.device.get(first!.device)!.kind).toBe('access-point');
  expect(seats.flatMap(({ steps }) => steps).length).toBeGreaterThan(0);
  expect(order.entries.some(({ kind }) => kind === 'console')).toBe(false);
  // One that comes new sends nothing before its page is set.
  const fresh = done(site, 'setPresent', { devices: [first!.device], set: { state: 'as-it-comes' } });
  const before = presentState(fresh, undefined, new Map([[1, site]]));
  expect(reachedFrom(now, first!.socket!).size).toBeGreaterThan(0);
  expect(reachedFrom(before, first!.socket!).size).toBe(0);
  expect(deviceNamed(site, 'gw-1')).toBeDefined();
});
