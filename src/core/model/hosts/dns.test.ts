import { addressesOn, interfacesOf, subnetsOf, withRecord } from '../../plan';
import { deviceNamed, put, soundGear, vlanFor } from '../../testing/gear';
import { dnsText, typedDns } from './dns';

const sound = soundGear();
const [subnet] = subnetsOf(sound, vlanFor(sound, 'staff').id);
const camera = interfacesOf(sound, deviceNamed(sound, 'cam-1').id)[0]!;
const hub = withRecord(sound, 'interface', 'cardofhub', {
  ...camera,
  id: 'cardofhub',
  device: deviceNamed(sound, 'hub').id,
});
const dns = [{ interface: camera.id }, { interface: 'cardofhub' }, { literal: 0xc0000235 }];
const plan = put(hub, 'subnet', subnet!, { dns });
const now = plan.subnet.get(subnet!.id)!;

test('servers are shown by address and read back as what they are, hosts and all', () => {
  const text = dnsText(plan, now);
  expect(text).toMatch(/^10\.\S+, no address, 192\.0\.2\.53$/);
  expect(typedDns(plan, now, text)).toEqual(dns);
  expect(typedDns(plan, now, `198.51.100.1, ${text}`)).toEqual([{ literal: 0xc6336401 }, ...dns]);
});

test('one that was taken out and is typed by its address is that address from then on', () => {
  const address = dnsText(plan, { ...now, dns: [dns[0]!] });
  expect(typedDns(plan, { ...now, dns: [] }, address)).toEqual([
    { literal: addressesOn(plan, camera.id)[0]!.address },
  ]);
});

test('hosts are typed by name, with commas or spaces between; who is not there is refused', () => {
  expect(typedDns(plan, { ...now, dns: [] }, 'cam-1 192.0.2.53')).toEqual([dns[0], dns[2]]);
  expect(typedDns(plan, now, ' ')).toEqual([]);
  expect(() => typedDns(plan, now, 'attic')).toThrow('“attic” is neither an address nor a host of this site');
});
