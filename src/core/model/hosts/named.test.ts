import { vlanFor, soundGear, deviceNamed } from '../../testing/gear';
import { interfacesOf } from '../../plan';
import { interfaceNamed, interfacesNamed, namesOfInterfaces } from './named';

const plan = soundGear();
const staff = vlanFor(plan, 'staff').id;

test('of a router the interface in the segment is meant, of another device its first', () => {
  const item = interfaceNamed(plan, ' GW-1 ', staff);
  expect([item.device, item.vlan]).toEqual([deviceNamed(plan, 'gw-1').id, staff]);
  expect(interfaceNamed(plan, 'cam-1', staff)).toBe(interfacesOf(plan, deviceNamed(plan, 'cam-1').id)[0]);
});
test('several are read back as they were written, and none is none', () => {
  const ids = interfacesNamed(plan, 'gw-1, cam-1 gw-1', staff);
  expect(namesOfInterfaces(plan, ids)).toBe('gw-1, cam-1');
  expect(interfacesNamed(plan, 'none', staff)).toEqual([]);
});
test('who is not there, or has no address, is said', () => {
  expect(() => interfaceNamed(plan, 'nobody', staff)).toThrow('“nobody” is no host of this site');
  expect(() => interfaceNamed(plan, 'hub', staff)).toThrow('hub has no address here');
});
