import { vlanFor, soundGear, deviceNamed, put } from '../../testing/gear';
import { addressesOn, interfacesOf } from '../../plan';
import { deviceMeant, deviceTyped, interfaceNamed, interfacesNamed, namesOfInterfaces } from './named';

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

describe('two devices of a name', () => {
  const camera = deviceNamed(plan, 'cam-1');
  const till = deviceNamed(plan, 'till');
  const called = put(plan, 'device', till, { name: 'Cam-1' });
  const [there] = addressesOn(plan, interfacesOf(plan, till.id)[0]!.id);
  const apart = put(called, 'subnet', plan.subnet.get(there!.subnet)!, { domain: 'Till.example.net' });

  test('are told apart by their domains', () => {
    expect(deviceMeant(apart, 'cam-1.till.EXAMPLE.net', 'host')!.id).toBe(till.id);
    expect(deviceTyped(apart, apart.device.get(till.id)!)).toBe('Cam-1.till.example.net');
    const [seen] = addressesOn(plan, interfacesOf(plan, camera.id)[0]!.id);
    const both = put(apart, 'subnet', apart.subnet.get(seen!.subnet)!, { domain: 'door.example.net' });
    expect(() => deviceMeant(both, 'CAM-1', 'host')).toThrow(
      /^“CAM-1” may be (cam-1\.door|Cam-1\.till)\.example\.net or (cam-1\.door|Cam-1\.till)\.example\.net; write it with its domain\.$/,
    );
  });
  test('are refused where nothing tells them apart', () =>
    expect(() => deviceMeant(called, 'cam-1', 'host')).toThrow(
      /^2 devices are called “cam-1”, at [\d.]+ and [\d.]+; rename one of them first\.$/,
    ));
  test('of which one suits, that is meant', () => {
    expect(deviceMeant(called, 'cam-1', 'host', ({ id }) => id === camera.id)).toBe(
      called.device.get(camera.id),
    );
    expect(interfaceNamed(called, 'cam-1', plan.subnet.get(there!.subnet)!.vlan).device).toBe(till.id);
  });
  test('stay who they are in a list that is read back', () => {
    const ids = [till, camera].map(({ id }) => interfacesOf(called, id)[0]!.id);
    expect(interfacesNamed(called, namesOfInterfaces(called, ids), staff, ids)).toEqual(ids);
  });
});

test('a name with a space in it is one name', () => {
  const spaced = put(plan, 'device', deviceNamed(plan, 'cam-1'), { name: 'front door' });
  const [card] = interfacesOf(plan, deviceNamed(plan, 'cam-1').id);
  expect(interfacesNamed(spaced, 'gw-1, front door', staff)).toContain(card!.id);
});
