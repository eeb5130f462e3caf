import { type Plan, subnetOf, interfacesOf } from '../plan';

import { contains } from '../address';
import { deviceNamed, portNamed, put, vlanFor } from '../testing/gear';
import { done } from '../testing/plans';
import { soundWireless, ssidNamed } from '../testing/wireless';
import { classesOf } from './classes';
import { discover } from './dhcp';
import { deliver, onAir, placeOf } from './frames';
import { plugIn } from './plug-in';
import { probe } from './probe';
import { whatIf } from './what-if';
import { typedEntry, typedReceiver, typedSender } from './typed';

const sound = soundWireless();
const staff = vlanFor(sound, 'staff');
const at = (name: string, ap = 'ap', plan = sound) => ({
  ssid: ssidNamed(plan, name).id,
  at: deviceNamed(plan, ap).id,
});
const ping = { protocol: 'icmp', port: 8 } as const;
const asks = (plan: Plan, from: string, to: string) =>
  probe(plan, { from: typedSender(plan, from), to: typedReceiver(plan, to), wanted: ping }, null);
/** A laptop without a cable that joins a network. */
function joined(plan: Plan, name: string, purpose: string, ssid: string): Plan {
  const subnet = subnetOf(plan, vlanFor(plan, purpose).id, 4)!;
  const made = done(plan, 'addHost', { subnet: subnet.id, name, kind: 'computer', assignment: 'static' });
  const [card] = interfacesOf(made, deviceNamed(made, name).id);
  return done(made, 'edit', {
    table: 'interface',
    id: card!.id,
    set: { joins: ssidNamed(made, ssid).id },
  });
}

describe('joining a wireless network', () => {
  test('lands in its segment, is leased there and has the gateway', () => {
    const found = plugIn(sound, at('Office'));
    expect(found).toMatchObject({ works: true, vlan: { id: staff.id } });
    expect(found.sentence).toMatch(
      /^you land in Staff, get [\d.]+–[\d.]+ from gw-1 and have [\d.]+ on gw-1 as gateway$/,
    );
    expect(plugIn(sound, at('Guests')).sentence).toContain('you do not hear the others on it');
  });

  test.each<[string, () => Plan, RegExp]>([
    [
      'sent nowhere there',
      () => put(sound, 'ssid', ssidNamed(sound, 'Office'), { bands: ['6'] }),
      /ap does not send it$/,
    ],
    [
      'no segment',
      () => put(sound, 'ssid', ssidNamed(sound, 'Office'), { vlan: null }),
      /leads to no segment$/,
    ],
    [
      'not inside',
      () => put(sound, 'port', portNamed(sound, 'ap', 0), { tagged: [] }),
      /^you are not heard: ap itself is not in VLAN \d+$/,
    ],
    [
      'not carried',
      () => put(sound, 'port', portNamed(sound, 'sw-a', 2), { tagged: [] }),
      /^you land in Staff, get no address: /,
    ],
  ])('says plainly what is wrong: %s', (_what, make, why) => {
    const found = plugIn(make(), at('Office', 'ap', make()));
    expect(found.works).toBe(false);
    expect(found.sentence).toMatch(why);
  });

  test('the conversation of DHCP is the one of a port in the same segment', () => {
    const air = discover(sound, { at: at('Office'), mac: null, rogueAt: null });
    const leased = air.taken!.offer!;
    expect(contains(subnetOf(sound, staff.id, 4)!.prefix, leased.address)).toBe(true);
    expect(discover(sound, { at: at('Office', 'ap-2'), mac: null, rogueAt: null }).taken!.offer).toEqual(
      leased,
    );
  });

  test('a stray server in an access port of the segment is heard over the air', () => {
    // Behind the plain switch everybody is in the segment of its port.
    const rogueAt = portNamed(sound, 'hub', 4).id;
    const found = discover(sound, { at: at('Office'), mac: null, rogueAt });
    expect(found.hearings.some(({ rogue }) => rogue)).toBe(true);
    expect(
      discover(sound, { at: at('Guests'), mac: null, rogueAt }).hearings.some(({ rogue }) => rogue),
    ).toBe(false);
  });
});

describe('asking from the air', () => {
  test('reads a network with and without its access point', () => {
    expect(typedSender(sound, 'Office at ap-2')).toEqual(at('Office', 'ap-2'));
    expect(typedSender(sound, 'office')).toEqual(at('Office'));
    expect(typedEntry(sound, 'Office at ap')).toEqual(at('Office'));
    expect(typedEntry(sound, 'sw-a 5')).toEqual({ port: portNamed(sound, 'sw-a', 5).id });
  });

  test('gets to who is in the segment, and is stopped by the same as a laptop in a port of it', () => {
    expect(asks(sound, 'Office', 'desk')).toMatchObject({ delivered: true });
    const [air, port] = [asks(sound, 'Office', 'cam-1'), asks(sound, 'hub 4', 'cam-1')];
    expect([air.delivered, air.stop?.why]).toEqual([port.delivered, port.stop?.why]);
  });

  test('clients of one access point are kept apart where the network says so; the gateway is reached', () => {
    const plan = joined(joined(sound, 'visitor-a', 'guest', 'Guests'), 'visitor-b', 'guest', 'Guests');
    expect(asks(plan, 'visitor-a', 'visitor-b').stop?.why).toMatch(/^ap keeps the clients of Guests apart/);
    expect(asks(plan, 'visitor-a', 'gateway').delivered).toBe(true);
    const together = put(plan, 'ssid', ssidNamed(plan, 'Guests'), { isolated: false });
    expect(asks(together, 'visitor-a', 'visitor-b').delivered).toBe(true);
    const [a, b] = ['ap', 'ap-2'].map((name) =>
      onAir(plan, deviceNamed(plan, name).id, ssidNamed(plan, 'Guests').id),
    );
    // The wire between two access points keeps nobody apart.
    const { vlan } = ssidNamed(plan, 'Guests');
    expect(deliver(plan, a!, vlan!, b!, vlan!).why).toBeNull();
  });
});

describe('a device without a cable', () => {
  const plan = joined(sound, 'tablet', 'staff', 'Office');
  const tablet = deviceNamed(plan, 'tablet').id;

  test('is at the first access point that sends its network, and answers there', () => {
    expect(placeOf(plan, tablet)).toMatchObject({
      kind: 'air',
      device: deviceNamed(plan, 'ap').id,
      of: tablet,
    });
    expect(asks(plan, 'desk', 'tablet').delivered).toBe(true);
    const moved = put(plan, 'ssid', ssidNamed(plan, 'Office'), { on: [deviceNamed(plan, 'ap-2').id] });
    expect(placeOf(moved, tablet)).toMatchObject({ device: deviceNamed(plan, 'ap-2').id });
    expect(classesOf(plan).some(({ devices, landing }) => devices.includes(tablet) && landing !== null)).toBe(
      true,
    );
  });

  test('goes silent when its segment is not given to the access point', () => {
    const cut = put(plan, 'port', portNamed(plan, 'sw-a', 2), { tagged: [] });
    expect(asks(cut, 'tablet', 'desk').delivered).toBe(false);
  });

  test('with a cable it is where the cable leads', () => {
    expect(placeOf(plan, deviceNamed(plan, 'desk').id).kind).toBe('socket');
  });
});

describe('what goes from the air with a fault', () => {
  const without = (name: string) =>
    whatIf(sound, [{ kind: 'box', device: deviceNamed(sound, name).id }], null).air;
  const said = (name: string) =>
    without(name).map(({ ssid, at: gone, everywhere, instead }) => [
      ssid.name,
      gone.map((device) => device.name).join(' '),
      everywhere,
      instead.map(({ heard }) => heard?.name ?? null),
    ]);

  test('an access point takes its names with it, and the other is heard in its place', () =>
    expect(said('ap')).toEqual([
      ['Office', 'ap', false, ['ap-2']],
      ['Guests', 'ap', false, ['ap-2']],
    ]));

  test('the switch before both takes the names from everywhere', () =>
    expect(said('sw-a')).toEqual([
      ['Office', 'ap ap-2', true, [null, null]],
      ['Guests', 'ap ap-2', true, [null, null]],
    ]));

  test('a box that no access point hangs on takes nothing', () => expect(said('hub')).toEqual([]));

  test('who has taken over what joined a network is in its segment', () => {
    const plan = joined(sound, 'tablet', 'staff', 'Office');
    const [intruder] = whatIf(
      plan,
      [{ kind: 'taken', device: deviceNamed(plan, 'tablet').id }],
      null,
    ).intruders;
    expect(intruder!.reach.inside.map(({ vlan }) => vlan.id)).toEqual([staff.id]);
  });
});
