import { type Plan, addressesOf, hostOf, subnetOf } from '../../plan';
import { linksAt, portsOf } from '../../model/wiring';
import { ask } from '../../testing/asking';
import { deviceNamed, portNamed, soundGear, vlanFor } from '../../testing/gear';
import { done } from '../../testing/plans';
import { perform } from '..';

const sound = soundGear();
const subnet = (purpose: string) => subnetOf(sound, vlanFor(sound, purpose).id, 4)!;
const addressOf = (name: string) =>
  [...sound.subnet.values()]
    .flatMap(({ id }) => addressesOf(sound, id))
    .find((one) => hostOf(sound, one).device.name === name)!;
const moved = (names: readonly string[], purpose: string) =>
  perform(
    sound,
    {
      operation: 'moveHostsToSubnet',
      input: { addresses: names.map((name) => addressOf(name).id), subnet: subnet(purpose).id },
    },
    'along',
  );
/** The port of a box that a device is plugged into. */
const portOf = (plan: Plan, name: string) => {
  const [far] = portsOf(plan, deviceNamed(plan, name).id).flatMap((own) => linksAt(plan, own));
  return plan.port.get(far!.to)!;
};
const gateway = (plan: Plan, purpose: string) =>
  hostOf(
    plan,
    addressesOf(plan, subnet(purpose).id).find((one) => one.gateway)!,
  ).device.name;

describe('a host moved to another segment', () => {
  test('takes the port along at which it is alone, and gets to its router', () => {
    expect(moved(['cam-1', 'cam-2'], 'staff').label).toBe(
      '2 fixed addresses moved to Staff, and with them sw-a 3, sw-b 1',
    );
    const plan = done(sound, 'moveHostsToSubnet', {
      addresses: [addressOf('cam-1').id],
      subnet: subnet('guest').id,
    });
    expect(portOf(plan, 'cam-1')).toMatchObject({ role: 'access', untagged: vlanFor(plan, 'guest').id });
    expect(ask(plan, 'cam-1', gateway(plan, 'guest'), 'ping').delivered).toBe(true);
    // The port of the other camera is none of its business.
    expect(portOf(plan, 'cam-2')).toEqual(portOf(sound, 'cam-2'));
  });
  test('by a typed address too', () => {
    const plan = done(sound, 'moveHost', { address: addressOf('cam-1').id, to: '10.20.40.77' });
    expect(plan.vlan.get(portOf(plan, 'cam-1').untagged!)!.purpose).toBe('guest');
    // Within its segment nothing else changes.
    const within = done(sound, 'moveHost', { address: addressOf('cam-1').id, to: '10.20.20.77' });
    expect(portOf(within, 'cam-1')).toBe(portOf(sound, 'cam-1'));
  });
  test('leaves what others share, and a port that calls for telephones', () => {
    expect(moved(['till'], 'cameras').steps.map(({ table }) => table)).toEqual(['address']);
    expect(moved(['phone'], 'cameras').steps.map(({ table }) => table)).toEqual(['address']);
    expect(portNamed(sound, 'sw-a', 4).role).toBe('voice');
  });
  test('stays at its port where it lives in the old segment too', () => {
    const two = done(sound, 'addAddress', {
      device: deviceNamed(sound, 'cam-1').id,
      subnet: subnet('cameras').id,
    });
    const plan = done(two, 'moveHostsToSubnet', {
      addresses: [addressOf('cam-1').id],
      subnet: subnet('staff').id,
    });
    expect(portOf(plan, 'cam-1')).toEqual(portOf(sound, 'cam-1'));
  });
});
