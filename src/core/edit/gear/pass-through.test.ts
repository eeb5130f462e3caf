import { typedCable } from '../../edit';
import { FindingsEngine } from '../../findings';
import { interfacesOf, subnetOf } from '../../plan';
import { probe } from '../../rehearse';
import { deviceNamed, portNamed, put, soundGear, vlanFor } from '../../testing/gear';
import { done } from '../../testing/plans';

const gear = soundGear();
const ping = { protocol: 'icmp', port: 8 } as const;

test('a computer behind a telephone is in the segment of the port, the telephone in that of voice', () => {
  const staff = vlanFor(gear, 'staff').id;
  let plan = put(gear, 'port', portNamed(gear, 'sw-a', 4), { untagged: staff, pvid: staff });
  plan = done(plan, 'passThrough', { device: deviceNamed(plan, 'phone').id });
  plan = done(plan, 'addHost', { subnet: subnetOf(plan, staff, 4)!.id, name: 'behind', kind: 'computer' });
  plan = done(plan, 'connect', typedCable(plan, 'phone 2 = behind'));
  const from = (name: string) => ({ device: deviceNamed(plan, name).id });
  for (const name of ['behind', 'phone']) {
    const answer = probe(plan, { from: from(name), to: { gateway: true }, wanted: ping });
    expect([name, answer.works, answer.assumed]).toEqual([name, true, false]);
  }
  const way = probe(plan, { from: from('behind'), to: from('desk'), wanted: ping });
  expect(way.forth.map(({ what }) => what)).toContain('phone');
  expect(way.works).toBe(true);
  const stops = new FindingsEngine(plan).all().filter(({ severity }) => severity === 'stop');
  expect(stops).toEqual([]);
  expect(interfacesOf(plan, deviceNamed(plan, 'phone').id)).toHaveLength(1);
});
test('where it is not plugged in, or the port has nothing without a tag, it says what is missing', () => {
  const loose = [...gear.cable.values()].find(({ from, to }) =>
    [from, to].includes(portNamed(gear, 'sw-a', 4).id),
  )!;
  const phone = deviceNamed(gear, 'phone').id;
  expect(() => done(done(gear, 'disconnect', { cable: loose.id }), 'passThrough', { device: phone })).toThrow(
    /is not plugged in, so nobody knows/,
  );
  const bare = put(gear, 'port', portNamed(gear, 'sw-a', 4), { untagged: null, pvid: null });
  expect(() => done(bare, 'passThrough', { device: phone })).toThrow(/sends nothing without a tag/);
  expect(() => done(gear, 'passThrough', { device: deviceNamed(gear, 'desk').id })).toThrow(
    /is no telephone/,
  );
});
