import { boxOf, type Plan, addressesOn, gatewaysOf, interfacesOf, subnetOf } from '../../plan';
import { cascadesOf } from '../../rehearse';
import { deviceNamed, portNamed, put, vlanFor } from '../../testing/gear';
import { uplinkNamed } from '../../testing/internet';
import { done, prefix } from '../../testing/plans';
import { soundPolicy, zoneNamed } from '../../testing/policy';
import { EF, isPinned, losses } from '../../model/uplink';
import { legUp, routersIn, wayTo } from '../../model/routing';

const sound = soundPolicy();
const v4 = (text: string) => prefix(`${text}/32`).address;
const gateway = (plan: Plan) => routersIn(plan).get(deviceNamed(plan, 'gw-1').id)!;

describe('a router', () => {
  test('takes the longest prefix: what it stands in, then routes, then tunnels, last the first uplink', () => {
    const subnet = subnetOf(sound, vlanFor(sound, 'cameras').id, 4)!;
    const inside = (subnet.prefix.address as number) + 20;
    const via = '10.20.20.9';
    let plan = done(sound, 'addRoute', { prefix: '10.60.0.0/16', via });
    plan = done(plan, 'addTunnel', { name: 'plant north', remote: ['10.60.4.0/24', '10.0.0.0/8'] });
    expect(wayTo(plan, gateway(plan), inside)).toMatchObject({ by: 'leg', leg: { vlan: subnet.vlan } });
    expect(wayTo(plan, gateway(plan), v4('10.60.1.1'))).toMatchObject({ by: 'route' });
    expect(wayTo(plan, gateway(plan), v4('10.60.4.1'))).toMatchObject({ by: 'tunnel' });
    expect(wayTo(plan, gateway(plan), v4('198.51.100.9'))).toMatchObject({
      by: 'uplink',
      uplink: { name: 'fibre' },
    });
    const off = put(plan, 'uplink', uplinkNamed(plan, 'fibre'), { enabled: false });
    expect(wayTo(off, gateway(off), v4('198.51.100.9'))).toMatchObject({ uplink: { name: 'mobile' } });
  });
  test('has no leg in a segment that is on none of its ports', () => {
    const { id } = vlanFor(sound, 'cameras');
    expect(legUp(sound, gateway(sound), id)).toBe(true);
    const port = portNamed(sound, 'gw-1', 2);
    const without = put(sound, 'port', port, { tagged: port.tagged.filter((vlan) => vlan !== id) });
    expect(legUp(without, gateway(without), id)).toBe(false);
  });
  test('gives a segment to another router with its address', () => {
    const plan = done(sound, 'addDevice', { name: 'gw-2', model: { shelf: 'gateway-6' } });
    const vlan = vlanFor(plan, 'guest').id;
    const other = deviceNamed(plan, 'gw-2').id;
    const before = gatewaysOf(plan, subnetOf(plan, vlan, 4)!.id)[0]!;
    const given = done(plan, 'routeSegmentBy', { vlan, device: other });
    const after = gatewaysOf(given, subnetOf(given, vlan, 4)!.id)[0]!;
    expect(after.address).toBe(before.address);
    expect(given.interface.get(after.interface)!.device).toBe(other);
    expect(() => done(given, 'routeSegmentBy', { vlan, device: other })).toThrow(/routes Guest.* already/);
    expect(() => done(given, 'routeSegmentBy', { vlan, device: deviceNamed(given, 'sw-a').id })).toThrow(
      /sw-a is no router/,
    );
  });
});

describe('a router behind a router', () => {
  const behind = () => {
    let plan = done(sound, 'addDevice', { name: 'gw-2', model: { shelf: 'gateway-6' } });
    const second = deviceNamed(plan, 'gw-2').id;
    plan = done(plan, 'routeSegmentBy', { vlan: vlanFor(plan, 'guest').id, device: second });
    plan = done(plan, 'addUplink', { device: second, name: 'inner' });
    const inner = uplinkNamed(plan, 'inner').id;
    plan = done(plan, 'putInZone', { zone: zoneNamed(plan, 'Internet').id, uplinks: [inner] });
    const guest = vlanFor(plan, 'guest').id;
    plan = done(plan, 'assignPorts', {
      ports: [portNamed(plan, 'gw-2', 0).id],
      role: 'trunk',
      tagged: [guest],
    });
    plan = done(plan, 'assignPorts', { ports: [portNamed(plan, 'gw-2', 2).id], role: 'access', vlan: guest });
    return done(plan, 'standBehind', { uplink: inner, segment: vlanFor(plan, 'staff').id });
  };
  test('reaches outwards what one box would keep from it, and is not reached', () => {
    const plan = behind();
    const [cascade] = cascadesOf(plan, null);
    expect(cascade!.inner.map(({ purpose }) => purpose)).toEqual(['guest']);
    const pair = (from: string, to: string) =>
      cascade!.reached.find((item) => item.from.purpose === from && item.to.purpose === to)!;
    // The guests are inside the inner router, and everything outside it is the Internet to them: the staff too.
    expect(pair('guest', 'staff')).toMatchObject({ built: true, oneBox: false });
    expect(pair('staff', 'guest')).toMatchObject({ built: false, oneBox: false });
  });
  test('cannot stand in a segment it routes itself', () => {
    const plan = behind();
    const uplink = uplinkNamed(plan, 'inner').id;
    expect(() => done(plan, 'standBehind', { uplink, segment: vlanFor(plan, 'guest').id })).toThrow(
      /gw-2 routes Guest.* itself/,
    );
    expect(done(plan, 'standBehind', { uplink, segment: null }).uplink.get(uplink)!.segment).toBeNull();
    expect(
      done(plan, 'removeSegment', { vlan: vlanFor(plan, 'staff').id }).uplink.get(uplink)!.segment,
    ).toBeNull();
  });
});

describe('a router used as an access point', () => {
  test('routes and leases nothing, has an address of its own, and joins by a LAN port', () => {
    let plan = done(sound, 'addDevice', { name: 'old-router', model: { shelf: 'gateway-6' } });
    const device = deviceNamed(plan, 'old-router').id;
    plan = done(plan, 'addUplink', { device, name: 'spare' });
    const vlan = vlanFor(plan, 'staff').id;
    const used = done(plan, 'reuseAsAccessPoint', { device, vlan });
    expect(used.device.get(device)!.kind).toBe('access-point');
    expect(boxOf(used, device)).toMatchObject({ layer3: false, filter: 'none' });
    expect([...used.uplink.values()].some((uplink) => uplink.device === device)).toBe(false);
    const [item] = interfacesOf(used, device);
    const [address] = addressesOn(used, item!.id);
    expect(used.subnet.get(address!.subnet)!.vlan).toBe(vlan);
    expect([...used.pool.values()].some(({ servedBy }) => servedBy.includes(item!.id))).toBe(false);
    expect(portNamed(used, 'old-router', 0)).toMatchObject({ role: 'access', untagged: vlan });
    expect(portNamed(used, 'old-router', 2)).toMatchObject({ role: 'access', untagged: vlan });
    expect(portNamed(used, 'old-router', 1)).toMatchObject({ role: 'parked', enabled: false });
  });
  test('not while segments depend on it, and only a router', () => {
    const vlan = vlanFor(sound, 'staff').id;
    expect(() => done(sound, 'reuseAsAccessPoint', { device: deviceNamed(sound, 'gw-1').id, vlan })).toThrow(
      /gw-1 is the gateway of .* and \d+ more; give that to another router first/,
    );
    expect(() => done(sound, 'reuseAsAccessPoint', { device: deviceNamed(sound, 'sw-a').id, vlan })).toThrow(
      /sw-a is no router/,
    );
  });
});

describe('records that are refused, and records that go with others', () => {
  test('routes, tunnels, translations and telephone boxes name what is wrong', () => {
    const once = done(sound, 'addRoute', { prefix: '10.60.0.0/16', via: '10.20.20.9' });
    expect(() => done(once, 'addRoute', { prefix: '10.60.0.0/16', via: '10.20.20.8' })).toThrow(
      /gw-1 has a route to 10\.60\.0\.0\/16 already, by 10\.20\.20\.9/,
    );
    const other = '2001:db8::1 is IPv6, and 10.61.0.0/16 is IPv4: write the IPv4 address of the next router.';
    expect(() => done(once, 'addRoute', { prefix: '10.61.0.0/16', via: '2001:db8::1' })).toThrow(other);
    const [route] = [
      ...done(sound, 'addRoute', { prefix: '10.61.0.0/16', via: '10.20.20.9' }).route.values(),
    ];
    expect(() =>
      done(put(sound, 'route', route!, {}), 'edit', {
        table: 'route',
        id: route!.id,
        set: { via: '2001:db8::1' },
      }),
    ).toThrow(other);
    const tunnel = done(sound, 'addTunnel', { name: 'north', remote: ['10.60.0.0/16'] });
    expect(() => done(tunnel, 'addTunnel', { name: 'North', remote: ['10.70.0.0/16'] })).toThrow(
      /There is a tunnel North already/,
    );
    expect(() => done(sound, 'addTunnel', { name: '', remote: ['10.70.0.0/16'] })).toThrow(/has no name/);
    expect(() => done(sound, 'keepVoiceBox', { device: deviceNamed(sound, 'desk').id })).toThrow(
      /desk is a computer; only a provider’s box/,
    );
  });
  test('a gateway that goes takes its routes and tunnels with it, a subnet its translation', () => {
    let plan = done(sound, 'addDevice', { name: 'gw-2', model: { shelf: 'gateway-6' } });
    const device = deviceNamed(plan, 'gw-2').id;
    plan = done(plan, 'addRoute', { device, prefix: '10.60.0.0/16', via: '10.20.20.9' });
    plan = done(plan, 'addTunnel', { device, name: 'north', remote: ['10.70.0.0/16'] });
    plan = done(plan, 'ownZone', { tunnel: [...plan.tunnel.values()][0]!.id });
    const { id, prefix: inside } = subnetOf(plan, vlanFor(plan, 'cameras').id, 4)!;
    plan = done(plan, 'addTranslation', { subnet: id, outside: `172.20.5.0/${inside.length}` });
    const gone = done(plan, 'removeDevice', { device });
    expect([gone.route.size, gone.tunnel.size]).toEqual([0, 0]);
    expect([...gone.zone.values()].flatMap(({ tunnels }) => tunnels)).toEqual([]);
    expect(done(plan, 'removeSubnet', { subnet: id }).translation.size).toBe(0);
  });
  test('a telephone box says what is lost when, and is kept over one uplink', () => {
    const { id } = subnetOf(sound, vlanFor(sound, 'voice').id, 4)!;
    let plan = done(sound, 'addHost', { subnet: id, name: 'isp-box', kind: 'provider-box' });
    plan = done(plan, 'keepVoiceBox', { device: deviceNamed(plan, 'isp-box').id });
    const [box] = [...plan.voiceBox.values()];
    expect(isPinned(plan, box!)).toBe(true);
    expect(losses(plan, box!)).toEqual([
      expect.stringMatching(/^Mains fail: every call is lost at once, emergency calls/),
      expect.stringMatching(
        /^fibre fails: isp-box registers only with its own provider, so no call goes over mobile either/,
      ),
    ]);
    expect(EF).toBe(46);
    const gone = done(plan, 'removeUplink', { uplink: box!.uplink });
    expect(gone.voiceBox.size).toBe(0);
  });
});
