import { type Plan, addressesOn, boxOf, subnetOf, applyChange } from '../plan';
import { addOffset, formatAddress, overlaps } from '../address';
import { perform, typedCable } from '../edit';
import { isOutside, rulesOf, zonesOf } from '../model/policy';
import { cardOf, uplinkNamed } from '../testing/internet';
import { deviceNamed, portNamed, put, vlanFor } from '../testing/gear';
import { done, emptySite, nextSeed, prefix } from '../testing/plans';
import { soundPolicy, zoneNamed } from '../testing/policy';
import { dotted } from '../testing/behind';
import { behindSwitch, besideGateway } from '../testing/routed';
import { probe } from './probe';
import { suggestedEnds, typedReceiver, typedSender, typedWanted } from './typed';

const sound = soundPolicy();
const v4 = (text: string) => prefix(`${text}/32`).address;
const ask = (plan: Plan, from: string, to: string, service: string) =>
  probe(
    plan,
    { from: typedSender(plan, from), to: typedReceiver(plan, to), wanted: typedWanted(plan, service) },
    '2026-05-04',
  );
const steps = (plan: Plan, from: string, to: string, service: string) => {
  const { forth, back } = ask(plan, from, to, service);
  return [...forth, ...back].map(({ what, decision }) => `${what}: ${decision}`);
};
const addressIn = (plan: Plan, purpose: string) => subnetOf(plan, vlanFor(plan, purpose).id, 4)!;

describe('a question that is answered', () => {
  test('goes through switch, gateway, policy and translation, and back', () => {
    const { delivered, forth, back, summary, assumed } = ask(sound, 'desk', 'internet', 'HTTPS');
    expect([delivered, assumed, summary]).toEqual([true, false, 'Delivered: the Internet is reached']);
    expect(forth.map(({ what }) => what)).toEqual([
      'desk',
      'hub',
      'sw-b',
      'sw-a',
      'gw-1',
      'gw-1',
      'gw-1',
      'fibre',
    ]);
    expect(forth[4]!.decision).toMatch(/^VLAN \d+$/);
    expect(forth[5]!.decision).toBe('Staff to Internet: its segments may reach the Internet');
    expect(forth[6]!.decision).toBe('translates the sender to its outside address');
    expect(back.at(-1)!.decision).toBe('has its answer');
    expect(back.some(({ decision }) => decision === 'it is an answer to what it let through')).toBe(true);
  });
  test('in one segment no box decides, and tags are seen on the way', () => {
    const { forth } = ask(sound, 'cam-1', 'cam-2', 'ping');
    expect(forth.map(({ what, decision }) => `${what} ${decision}`)).not.toContain('gw-1');
    const { vid } = vlanFor(sound, 'cameras');
    expect(forth.find(({ what }) => what === 'sw-a')).toMatchObject({
      came: 'sw-a 3 untagged',
      left: `sw-a 9 tagged ${vid}`,
      decision: `VLAN ${vid}`,
    });
  });
  test('a rule is named by its place', () => {
    expect(steps(sound, 'till', 'cam-1', 'camera pictures')).toContain(
      'gw-1: rule 1, the till shows the door, allows it',
    );
  });
  test('a laptop gets an address of the segment it lands in', () => {
    const { delivered, forth } = ask(sound, 'sw-a 3', 'gateway', 'ping');
    expect(delivered).toBe(true);
    expect(forth[0]!.what).toBe('a laptop in sw-a 3');
  });
  test('in a segment where every address is taken one of those who are there asks, and not the one who is asked', () => {
    const made = done(sound, 'addSegment', { purpose: 'iot', name: 'Lamps', prefix: '10.99.0.0/29' });
    const { id: subnet } = subnetOf(
      made,
      [...made.vlan.values()].find(({ name }) => name === 'Lamps')!.id,
      4,
    )!;
    const hosts = [2, 3, 4, 5, 6].map((n) => ({ name: `lamp-${n}`, address: `10.99.0.${n}` }));
    const full = hosts.reduce(
      (plan, host) => done(plan, 'addHost', { subnet, kind: 'camera', ...host }),
      made,
    );
    const almost = hosts
      .slice(1)
      .reduce((plan, host) => done(plan, 'addHost', { subnet, kind: 'camera', ...host }), made);
    expect(ask(full, 'Lamps', 'gateway', 'ping').forth[0]!.what).toBe('lamp-2');
    expect(ask(full, 'Lamps', 'lamp-2', 'ping').forth[0]!.what).toBe('lamp-3');
    expect(ask(almost, 'Lamps', 'gateway', 'ping').forth[0]!.what).toBe('a laptop in Lamps');
  });
  test('from the Internet only by a forward, which translates forth and back', () => {
    const { delivered, forth, back } = ask(sound, 'internet', 'desk', 'HTTPS');
    expect(delivered).toBe(true);
    expect(forth[0]).toMatchObject({ what: 'gw-1', decision: 'forwards it' });
    expect(back.map(({ decision }) => decision)).toContain('translates the answer back');
  });
});

describe('a question that is stopped', () => {
  const stopped = (plan: Plan, from: string, to: string, service: string) => {
    const answer = ask(plan, from, to, service);
    expect(answer.delivered).toBe(false);
    return answer;
  };
  /** Every remedy the probe offers must let exactly this question through. */
  const mended = (plan: Plan, from: string, to: string, service: string) => {
    const { remedies } = stopped(plan, from, to, service);
    expect(remedies.length).toBeGreaterThan(0);
    for (const remedy of remedies) {
      const applied = applyChange(plan, perform(plan, remedy, nextSeed()));
      if (!applied.ok) throw new Error('does not apply');
      expect([remedy.label, ask(applied.plan, from, to, service).delivered]).toEqual([remedy.label, true]);
    }
    return remedies.map(({ label }) => label);
  };
  test('by the policy: opened for these two and nobody else', () => {
    expect(stopped(sound, 'desk', 'cam-1', 'camera pictures').summary).toBe(
      'Stopped at gw-1: Staff to Devices: only web pages, printing',
    );
    expect(mended(sound, 'desk', 'cam-1', 'tcp 8443')).toEqual([
      'Allow just this: tcp 8443 from desk to cam-1',
    ]);
    // A laptop in a port is not told from others of its segment, so nothing is opened for it.
    expect(stopped(sound, 'sw-a 3', 'till', 'camera pictures').remedies).toEqual([]);
    expect(stopped(sound, 'internet', 'till', 'HTTPS').remedies).not.toContainEqual(
      expect.objectContaining({ operation: 'letThrough' }),
    );
  });
  test('by a rule, which stays for everybody else', () => {
    const rule = rulesOf(sound)[0]!;
    const closed = done(put(sound, 'rule', rule, { action: 'deny' }), 'decidePairs', {
      pairs: [{ from: zoneNamed(sound, 'Staff').id, to: zoneNamed(sound, 'Devices').id }],
      decision: 'allow',
      services: [],
    });
    expect(mended(closed, 'till', 'cam-1', 'camera pictures')).toEqual([
      'Allow just this: tcp 554 from till to cam-1',
    ]);
  });
  test('by a trunk that does not carry the segment', () => {
    const { id, vid } = vlanFor(sound, 'staff');
    const port = portNamed(sound, 'sw-a', 9);
    const plan = put(sound, 'port', port, { tagged: port.tagged.filter((vlan) => vlan !== id) });
    expect(stopped(plan, 'desk', 'internet', 'ping').stop!.why).toMatch(new RegExp(`${vid}`));
    expect(mended(plan, 'desk', 'internet', 'ping')).toEqual([
      `Carry ${vid} ${vlanFor(sound, 'staff').code} where it is needed`,
    ]);
  });
  test('by the settings the host really has', () => {
    const set = (fields: object) => put(sound, 'interface', cardOf(sound, 'desk'), fields);
    expect(stopped(set({ ownGateway: 0 }), 'desk', 'internet', 'ping').summary).toMatch(/it has no gateway/);
    expect(mended(set({ ownGateway: v4('10.99.0.1') }), 'desk', 'internet', 'ping')).toEqual([
      'Use the subnet’s settings',
    ]);
    // The question arrives, but who is asked believes the sender to be next to it.
    const wide = put(sound, 'interface', cardOf(sound, 'cam-1'), { ownLength: 8 });
    expect(stopped(wide, 'till', 'cam-1', 'camera pictures').summary).toMatch(
      /^The question arrives, the answer does not/,
    );
  });
  test('by an uplink that lets nothing in', () => {
    const plan = put(sound, 'uplink', uplinkNamed(sound, 'fibre'), { outside: 'shared' });
    expect(stopped(plan, 'internet', 'desk', 'HTTPS').summary).toMatch(/shared by customers/);
    expect(stopped(sound, 'internet', 'gateway', 'SSH').summary).toMatch(/nothing comes in unasked/);
    expect(mended(sound, 'internet', 'till', 'tcp 8443')).toEqual(['Forward a port of fibre to till']);
  });
  test('by a box that does not route, or a router that knows no way out', () => {
    const box = boxOf(sound, deviceNamed(sound, 'gw-1').id)!;
    expect(stopped(put(sound, 'box', box, { layer3: false }), 'desk', 'internet', 'ping').summary).toMatch(
      /does not route/,
    );
    const off = [...sound.uplink.values()].reduce(
      (plan, uplink) => put(plan, 'uplink', uplink, { enabled: false }),
      sound,
    );
    expect(stopped(off, 'desk', 'internet', 'ping').summary).toMatch(/no default route/);
  });
  test('as typed wrong, with what would be right', () => {
    expect(() => ask(sound, 'nobody', 'desk', 'ping')).toThrow(
      /“nobody” is no port, device, address, segment, network on the air, zone or tunnel here\.$/,
    );
    expect(() => ask(sound, 'sw-a 99', 'desk', 'ping')).toThrow(/sw-a has no port 99; it has the ports 1 to/);
    expect(() => ask(sound, 'desk', 'no.where', 'ping')).toThrow(/is no device, address, segment or zone/);
    expect(() => ask(sound, 'desk', 'till', 'tcp 70000')).toThrow(/tcp ends at 65535/);
    expect(() => ask(sound, 'desk', 'till', 'shouting')).toThrow(/write one like ping/);
  });
});

describe('an end as it is typed', () => {
  const guests = vlanFor(sound, 'guest').name;
  test('a segment in which nobody is recorded is asked by a device as it would be leased, never by the gateway', () => {
    const answer = ask(sound, 'desk', guests, 'ping');
    expect(answer.delivered).toBe(false);
    expect(answer.summary).toContain('between zones nothing passes unless it is allowed');
    const opened = done(sound, 'decidePairs', {
      pairs: [{ from: zoneNamed(sound, 'Staff').id, to: zoneNamed(sound, 'Guests').id }],
      decision: 'allow',
    });
    const { delivered, forth } = ask(opened, 'desk', guests, 'ping');
    expect(delivered).toBe(true);
    expect(forth.at(-1)).toMatchObject({ what: `a device in ${guests}`, decision: 'receives it' });
  });
  test('two that are imagined in one segment are two', () => {
    const { delivered, forth } = ask(sound, guests, guests, 'ping');
    expect(delivered).toBe(true);
    expect(forth.map(({ what }) => what)).toEqual([
      `a laptop in ${guests}`,
      'cables',
      `a device in ${guests}`,
    ]);
  });
  test('an address is who has it, else its segment; a zone is its one segment, the gateway or the Internet', () => {
    const [desk] = addressesOn(sound, cardOf(sound, 'desk').id);
    expect(typedSender(sound, formatAddress(desk!.address))).toEqual({
      device: deviceNamed(sound, 'desk').id,
    });
    const { prefix: network } = addressIn(sound, 'guest');
    const free = formatAddress(addOffset(network.address, 99));
    expect(typedSender(sound, free)).toEqual({ vlan: vlanFor(sound, 'guest').id });
    expect(typedSender(sound, '198.51.100.7')).toEqual({ internet: true });
    expect(typedReceiver(sound, 'guests')).toEqual({ vlan: vlanFor(sound, 'guest').id });
    const renamed = put(sound, 'zone', zoneNamed(sound, 'Guests'), { name: 'Hall' });
    expect(typedReceiver(renamed, 'hall')).toEqual({ vlan: vlanFor(sound, 'guest').id });
    const outside = zonesOf(sound).find(isOutside)!;
    expect(typedSender(put(sound, 'zone', outside, { name: 'Street' }), 'street')).toEqual({
      internet: true,
    });
    const both = [vlanFor(sound, 'guest'), vlanFor(sound, 'staff')];
    const wide = put(renamed, 'zone', zoneNamed(renamed, 'Hall'), { vlans: both.map(({ id }) => id) });
    expect(() => typedSender(wide, 'hall')).toThrow(/The zone Hall has the segments .*; name one of them/);
  });
  test('what is nearly right is offered, and what begins with it comes first', () => {
    expect(() => ask(sound, 'cam', 'desk', 'ping')).toThrow(/Nearest here: Cameras, cam-1, cam-2\.$/);
    expect(suggestedEnds(sound, 'A')).toContain('sw-a');
    expect(suggestedEnds(sound, 'sw')).toEqual(['sw-a', 'sw-b']);
    expect(suggestedEnds(sound, '', 3)).toHaveLength(3);
  });
});

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

test('a router that knows no VLANs, and whatever hangs on it without a tag, are one network', () => {
  let plan = done(emptySite(), 'addSegment', { purpose: 'staff' });
  const { id } = [...plan.subnet.values()][0]!;
  const gateway = deviceNamed(plan, 'gw-1').id;
  plan = done(plan, 'equipDevice', { device: gateway, model: { shelf: 'gateway-4' } });
  const box = boxOf(plan, gateway)!;
  plan = put(plan, 'box', box, { vlanAware: false });
  plan = done(plan, 'addHost', { subnet: id, name: 'desk', kind: 'computer', assignment: 'static' });
  plan = done(plan, 'connect', typedCable(plan, 'gw-1 3 = desk'));
  for (const uplink of plan.uplink.values()) plan = put(plan, 'uplink', uplink, { enabled: true });
  if (plan.uplink.size === 0) plan = done(plan, 'addUplink', {});
  for (const port of plan.port.values())
    if (port.device === gateway && port.role !== 'uplink')
      plan = put(plan, 'port', port, { role: 'undecided', enabled: true });
  expect(ask(plan, 'desk', 'gateway', 'ping').summary).toBe('Delivered: the gateway answers');
  expect(ask(plan, 'desk', 'internet', 'HTTPS').summary).toBe('Delivered: the Internet is reached');
});
