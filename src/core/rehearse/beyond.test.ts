import { type Plan, subnetOf } from '../plan';
import { overlaps } from '../address';
import { perform } from '../edit';
import { rulesOf, zonesOf } from '../model/policy';
import { cardOf, uplinkNamed } from '../testing/internet';
import { deviceNamed, portNamed, put, vlanFor } from '../testing/gear';
import { done, prefix } from '../testing/plans';
import { soundPolicy, zoneNamed } from '../testing/policy';
import { dotted } from '../testing/behind';
import { behindSwitch, besideGateway } from '../testing/routed';
import { ask, steps } from '../testing/asking';

const sound = soundPolicy();
const addressIn = (plan: Plan, purpose: string) => subnetOf(plan, vlanFor(plan, purpose).id, 4)!;

describe('ways beyond the segments', () => {
  test('a tunnel takes what is at its other end, and its zone decides', () => {
    let plan = done(sound, 'addTunnel', { name: 'plant north', remote: ['10.60.0.0/16'] });
    const refused = ask(plan, 'desk', '10.60.3.4', 'HTTPS');
    expect(refused.summary).toMatch(/the other side is in no zone/);
    plan = done(plan, 'ownZone', { tunnel: [...plan.tunnel.values()][0]!.id });
    plan = done(plan, 'decidePairs', {
      pairs: [{ from: zoneNamed(plan, 'Staff').id, to: zoneNamed(plan, 'plant north').id }],
      decision: 'allow',
      services: [],
    });
    const { delivered, forth, back } = ask(plan, 'desk', '10.60.3.4', 'HTTPS');
    expect(delivered).toBe(true);
    expect(forth.at(-1)).toMatchObject({ left: 'tunnel plant north' });
    expect(back.length).toBeGreaterThan(0);
  });

  /** A second router behind gw-1: its outside in Staff, its own segment behind it. */
  const cascade = () => {
    let plan = done(sound, 'addDevice', { name: 'gw-2', model: { shelf: 'gateway-6' } });
    plan = done(plan, 'addSegment', { purpose: 'control-cell' });
    const inner = vlanFor(plan, 'control-cell');
    const subnet = subnetOf(plan, inner.id, 4)!;
    const second = deviceNamed(plan, 'gw-2').id;
    plan = done(plan, 'routeSegmentBy', { vlan: inner.id, device: second });
    const ports = [0, 2].map((number) => portNamed(plan, 'gw-2', number).id);
    plan = done(plan, 'assignPorts', { ports: [ports[0]], role: 'trunk', tagged: [inner.id] });
    plan = done(plan, 'assignPorts', { ports: [ports[1]], role: 'access', vlan: inner.id });
    plan = done(plan, 'addHost', {
      subnet: subnet.id,
      name: 'press',
      kind: 'controller',
      assignment: 'static',
    });
    plan = done(plan, 'addUplink', { device: second, name: 'inner' });
    return done(plan, 'standBehind', {
      uplink: uplinkNamed(plan, 'inner').id,
      segment: vlanFor(plan, 'staff').id,
    });
  };
  test('behind a second router everything goes out with two translations, and nothing comes in', () => {
    const made = cascade();
    const plan = done(made, 'ownZone', { vlan: vlanFor(made, 'control-cell').id });
    const cell = [...plan.zone.values()].find(({ vlans }) =>
      vlans.includes(vlanFor(plan, 'control-cell').id),
    )!;
    const open = done(
      done(plan, 'putInZone', {
        zone: zoneNamed(plan, 'Internet').id,
        uplinks: [uplinkNamed(plan, 'inner').id],
      }),
      'decidePairs',
      { pairs: [{ from: cell.id, to: zoneNamed(plan, 'Internet').id }], decision: 'allow', services: [] },
    );
    const out = ask(open, 'press', 'internet', 'HTTPS');
    expect(out.summary).toMatch(/^Delivered/);
    expect(
      out.forth
        .filter(({ decision }) => decision.startsWith('translates the sender'))
        .map(({ what }) => what),
    ).toEqual(['gw-2', 'gw-1']);
    // Outer hosts are reached from inside, though no rule of the outer router was asked for the inner address.
    expect(ask(open, 'press', 'till', 'ping').delivered).toBe(true);
    const inward = ask(open, 'till', 'press', 'ping');
    expect(inward.delivered).toBe(false);
    expect(inward.summary).toMatch(/gw-1: it has no route to .* inside this site/);
  });

  test('identical machines behind a 1:1 translation are reached by the other address', () => {
    const { id, prefix: inside } = addressIn(sound, 'cameras');
    const plan = done(sound, 'addTranslation', { subnet: id, outside: `172.20.5.0/${inside.length}` });
    const card = [...plan.address.values()].find((item) => item.interface === cardOf(plan, 'cam-1').id)!;
    const number = (card.address as number) - (inside.address as number);
    const other = `172.20.5.${number}`;
    const { delivered, forth, back } = ask(plan, 'till', other, 'camera pictures');
    expect(delivered).toBe(true);
    expect(forth.find(({ decision }) => decision === 'translates one to one')).toMatchObject({ came: other });
    expect(back.find(({ decision }) => decision === 'translates the answer back')).toMatchObject({
      left: other,
    });
    expect(() => done(sound, 'addTranslation', { subnet: id, outside: '172.20.5.0/30' })).toThrow(
      /one to one needs a \/\d+/,
    );
    // A translation with fewer places than hosts, or of the other family, is none: the box would refuse it.
    const item = [...plan.translation.values()][0]!;
    for (const outside of ['172.20.5.0/30', '2001:db8:9::/64'])
      expect(
        ask(put(plan, 'translation', item, { outside: prefix(outside) }), 'till', other, 'camera pictures')
          .delivered,
      ).toBe(false);
  });

  test('a layer-3 switch passes on by its default route, and the gateway needs the route back', () => {
    expect(ask(behindSwitch(sound, true), 'press', 'cam-1', 'ping').summary).toMatch(/^Delivered/);
    expect(ask(behindSwitch(sound, false), 'press', 'cam-1', 'ping').summary).toMatch(
      /^The question arrives, the answer does not: gw-1: it has no route to .* inside this site/,
    );
    const without = behindSwitch(sound, false);
    const [remedy] = ask(without, 'press', 'cam-1', 'ping').remedies;
    expect(remedy!.label).toMatch(/^Let gw-1 send 10\.20\.\d+\.0\/\d+ to core at 10\./);
    const mended = done(without, remedy!.operation, remedy!.input);
    expect(ask(mended, 'press', 'cam-1', 'ping').works).toBe(true);
  });

  test('what a box that keeps track did not see, it takes for no connection; UDP it judges anew', () => {
    let plan = besideGateway(behindSwitch(sound, true), 'staff');
    const decide = (decision: string) => {
      const to = [...plan.zone.values()].find(({ name }) => name === 'Control cell')!.id;
      const from = [...plan.zone.values()].find(({ vlans }) => vlans.includes(vlanFor(plan, 'staff').id))!.id;
      const pairs = [
        { from, to },
        { from: to, to: from },
      ];
      plan = done(plan, 'decidePairs', { pairs, decision, services: [] });
    };
    decide('allow');
    expect(ask(plan, 'desk', 'press', 'tcp 443').summary).toMatch(
      /^The question arrives and is answered, and no more: gw-1: the answer went back another way/,
    );
    expect(ask(plan, 'desk', 'press', 'udp 161').summary).toMatch(/^Delivered/);
    expect(ask(plan, 'desk', 'press', 'ping').summary).toMatch(/^Delivered/);
    expect(ask(plan, 'press', 'desk', 'tcp 443').summary).toMatch(
      /^The question arrives, the answer does not: gw-1: the answer comes this way and the question did not/,
    );
    expect(steps(plan, 'press', 'desk', 'udp 161').join('\n')).toMatch(
      /^gw-1: it did not see the question and takes this for one: Staff to Control cell: everything passes$/m,
    );
    decide('deny');
    expect(ask(plan, 'press', 'desk', 'udp 161').summary).toMatch(
      /^The question arrives, the answer does not: gw-1: it did not see the question and takes this for one/,
    );
    expect(ask(plan, 'press', 'desk', 'udp 161').remedies).toEqual([]);
  });

  test('an answer that a box never saw asked is dropped without zones too', () => {
    let plan = besideGateway(behindSwitch(sound, true), 'staff');
    for (const zone of zonesOf(plan)) plan = done(plan, 'removeZone', { zone: zone.id });
    for (const rule of rulesOf(plan)) plan = done(plan, 'removeRule', { rule: rule.id });
    expect(ask(plan, 'press', 'desk', 'tcp 443').summary).toMatch(/gw-1: the answer comes this way/);
    expect(ask(plan, 'press', 'desk', 'ping').summary).toMatch(/gw-1: the answer comes this way/);
    expect(ask(plan, 'press', 'desk', 'udp 161').summary).toMatch(/^Delivered/);
  });

  test('an address that is none of the Internet is reached by no uplink, but in the network upstream', () => {
    expect(ask(sound, 'desk', '10.99.7.7', 'HTTPS').summary).toMatch(
      /^Stopped at \S+: 10\.99\.7\.7 is not an address of the Internet \(RFC 6890\)/,
    );
    expect(ask(sound, 'desk', '203.0.113.9', 'HTTPS').delivered).toBe(true);
    const upstream = put(sound, 'uplink', uplinkNamed(sound, 'fibre'), { network: prefix('10.99.7.0/24') });
    expect(ask(upstream, 'desk', '10.99.7.7', 'HTTPS').delivered).toBe(true);
  });

  test('an accepted VPN reaches the device asked for and nothing else; an accepted opening is for one port', () => {
    const uplink = uplinkNamed(sound, 'fibre').id;
    const wish = { uplink, target: cardOf(sound, 'till').id, protocol: 'tcp', port: 8443 };
    const plan = done(sound, 'takeWay', { ...wish, way: 'vpn', name: 'site.example.net' });
    const [tunnel] = [...plan.tunnel.values()];
    expect(tunnel).toMatchObject({ name: 'dial-in', initiates: false, uplink });
    expect(plan.uplink.get(uplink)).toMatchObject({ dynamicName: 'site.example.net' });
    const visitor = dotted((tunnel!.remote[0]!.address as number) + 9);
    // Who dials in is asked for by the answer: from the device it goes back into the tunnel.
    expect(ask(plan, 'till', visitor, 'ping').forth.at(-1)!.what).toBe('gw-1');
    const [rule] = rulesOf(plan);
    expect(rule).toMatchObject({ action: 'allow', to: [{ device: deviceNamed(plan, 'till').id }] });
    expect([...plan.subnet.values()].some(({ prefix: net }) => overlaps(net, tunnel!.remote[0]!))).toBe(
      false,
    );
    // Asked for again nothing is left to make; another device uses the same way in, by a rule of its own.
    const again = { operation: 'takeWay', input: { ...wish, way: 'vpn', name: '' } };
    expect(perform(plan, again, 'again').steps).toEqual([]);
    const more = done(plan, 'takeWay', { ...again.input, target: cardOf(plan, 'desk').id });
    expect([...more.tunnel.values()]).toHaveLength(1);
    expect(rulesOf(more)).toHaveLength(rulesOf(plan).length + 1);
    const open = done(sound, 'takeWay', { ...wish, way: 'calls-out' });
    expect(rulesOf(open)[0]).toMatchObject({
      services: ['stdhttps'],
      from: [{ device: deviceNamed(open, 'till').id }],
    });
    const delegated = put(sound, 'uplink', uplinkNamed(sound, 'fibre'), {
      delegated: prefix('2001:db8:40::/48'),
    });
    const six = done(delegated, 'takeWay', { ...wish, way: 'ipv6' });
    expect(rulesOf(six)[0]).toMatchObject({ from: [{ zone: zoneNamed(six, 'Internet').id }] });
    expect(() => done(sound, 'takeWay', { ...wish, way: 'vpn', name: 'nowhere' })).toThrow(
      /is not a name in the DNS/,
    );
  });
});
