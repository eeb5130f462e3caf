import fc from 'fast-check';
import { formatAddress, parseAddress } from '../address';
import { type Plan, addressesOn } from '../plan';
import { rulesOf } from '../model/policy';
import { uplinkDown } from '../model/uplink';
import { deviceNamed, portNamed, put, vlanFor } from '../testing/gear';
import { cardOf, uplinkNamed } from '../testing/internet';
import { drawPlan, withEveryKind } from '../testing/kinds';
import { DELEGATED, addressOf, behindRouter, dualStack } from '../testing/outside';
import { done, prefix } from '../testing/plans';
import { soundPolicy, zoneNamed } from '../testing/policy';
import { moreThan, runs } from '../testing/runs';
import { typedCable } from '../edit';
import { faultTitle, withFaults } from './faults';
import { farAddress, outsideAddress } from './host';
import { probe } from './probe';
import { allSingleFaults } from './single-faults';

const sound = soundPolicy();
const HTTPS = { protocol: 'tcp', port: 443 } as const;
const device = (plan: Plan, name: string) => ({ device: deviceNamed(plan, name).id });
const out = (plan: Plan, name = 'desk') =>
  probe(plan, { from: device(plan, name), to: { internet: true }, wanted: HTTPS });
const within = (plan: Plan, name: string, wanted: { protocol: 'tcp' | 'udp'; port: number } = HTTPS) =>
  probe(plan, { from: { internet: true }, to: device(plan, name), wanted });
const at = (plan: Plan, address: string, name = 'desk') =>
  probe(plan, { from: device(plan, name), to: { address: parseAddress(address)! }, wanted: HTTPS });
const fibre = (plan: Plan, fields: object) => put(plan, 'uplink', uplinkNamed(plan, 'fibre'), fields);
const alone = fibre(done(sound, 'removeUplink', { uplink: uplinkNamed(sound, 'mobile').id }), {});

describe('the socket of an uplink', () => {
  const socket = plan1(alone);
  function plan1(plan: Plan) {
    return plan.port.get(uplinkNamed(plan, 'fibre').port!)!;
  }
  test.each([
    ['parked', { role: 'parked' }, 'gw-1 1 is parked'],
    ['off', { enabled: false }, 'gw-1 1 is off'],
    ['defective', { defective: true }, 'gw-1 1 is defective'],
  ])('that is %s lets nothing out, and nothing in', (_, fields, why) => {
    const plan = put(alone, 'port', socket, fields);
    expect(uplinkDown(plan, uplinkNamed(plan, 'fibre').id)).toBe(why);
    expect(out(plan).summary).toBe(
      `Stopped at gw-1: it knows no way to ${formatAddress(farAddress(plan))}: fibre is down, as ${why}`,
    );
    expect(within(plan, 'desk').summary).toBe(`Stopped at the way in: fibre is down: ${why}`);
  });

  test('with another uplink the way out is that one', () => {
    const plan = put(sound, 'port', plan1(sound), { enabled: false });
    expect(out(plan).forth.at(-1)!.what).toBe('mobile');
  });

  test('a dead box of the provider, or the cable to it, is a fault by which the Internet is lost', () => {
    const box = done(alone, 'addDevice', { name: 'modem', model: { shelf: 'provider-4' }, managed: false });
    const plan = done(box, 'connect', typedCable(box, 'modem 1 = gw-1 1'));
    expect(out(plan).delivered).toBe(true);
    const [cable] = [...plan.cable.values()].filter(({ from, to }) => [from, to].includes(plan1(plan).id));
    expect(out(withFaults(plan, [{ kind: 'box', device: deviceNamed(plan, 'modem').id }])).summary).toMatch(
      /fibre is down, as gw-1 1 leads to modem 1 is off/,
    );
    expect(out(withFaults(plan, [{ kind: 'cable', cable: cable!.id }])).delivered).toBe(false);
    const lost = allSingleFaults(plan, null).filter((ranked) => ranked.lost.includes('the Internet'));
    expect(lost.map(({ fault }) => faultTitle(plan, fault)).sort()).toEqual([
      'cable modem 1 = gw-1 1 pulled',
      'gw-1 off',
      'modem off',
      'uplink fibre down',
    ]);
    const modem = lost.find(({ fault }) => faultTitle(plan, fault) === 'modem off')!;
    expect(modem.cure).toBe('a second uplink, over another line and another provider');
  });
});

describe('forwards', () => {
  test.each([
    ['an uplink that lets none in', { noForwards: true }, 'fibre: nothing is let in on this uplink'],
    [
      'a shared address',
      { outside: 'shared' },
      /^Stopped at the way in: fibre: its outside address is shared/,
    ],
  ])('on %s are reached neither by the device nor by the address', (_, fields, why) => {
    const plan = fibre(alone, fields);
    const outside = outsideAddress(plan, uplinkNamed(plan, 'fibre'));
    const asked = probe(plan, { from: { internet: true }, to: { address: outside }, wanted: HTTPS });
    for (const answer of [within(plan, 'desk'), asked]) {
      expect(answer.delivered).toBe(false);
      expect(answer.summary).toMatch(why);
    }
  });

  test('on an address nobody knows the kind of are not known to work', () => {
    const answer = within(fibre(alone, { outside: 'unknown' }), 'desk');
    expect(answer).toMatchObject({ delivered: true, works: null });
    expect(answer.summary).toBe(
      'Not known: nobody recorded whether its outside address is public. All else lets it through',
    );
    expect(answer.forth[0]).toMatchObject({
      result: 'assumed',
      decision: 'nobody recorded whether its outside address is public',
    });
  });

  test('lead to the IPv4 address of a device that has both', () => {
    expect(within(dualStack(alone), 'desk').forth.at(-1)!.came).toMatch(/→ 10\.20\.30\.10$/);
  });

  test('from inside work by an address that changes, and not when two of them change', () => {
    const outside = (plan: Plan) => formatAddress(outsideAddress(plan, uplinkNamed(plan, 'fibre')));
    const turned = at(alone, outside(alone), 'till');
    expect(turned.forth.at(-1)!.what).toBe('desk');
    // In one segment the gateway stands in as the sender; the answer to it goes on to who asked.
    expect(turned.back.at(-1)).toMatchObject({ what: 'till', decision: 'has its answer' });
    const asked = at(sound, outside(sound), 'till');
    expect(asked.forth.some(({ decision }) => /two uplinks have addresses that change/.test(decision))).toBe(
      true,
    );
    expect(asked.summary).toBe('Stopped at gw-1: Staff to Gateway: only DHCP, DNS, NTP, ping');
  });

  test('the answer to one leaves by the uplink the question came in by', () => {
    const uplink = uplinkNamed(sound, 'mobile').id;
    const plan = done(sound, 'addForward', { uplink, target: cardOf(sound, 'till').id, inside: 8883 });
    const answer = within(plan, 'till', { protocol: 'tcp', port: 8883 });
    expect(answer.delivered).toBe(true);
    expect(answer.back.at(-1)!.what).toBe('mobile');
  });
});

describe('several uplinks and routers', () => {
  test('uplinks of one tier share what is new; one over which it does not pass says so, with its share', () => {
    const shared = put(fibre(sound, { tier: 1, weight: 3 }), 'uplink', uplinkNamed(sound, 'mobile'), {
      tier: 1,
      weight: 1,
    });
    expect(out(shared)).toMatchObject({ delivered: true, over: null });
    const zone = zoneNamed(shared, 'Internet');
    const plan = put(shared, 'zone', zone, { uplinks: [uplinkNamed(shared, 'fibre').id] });
    const answer = out(plan);
    expect(answer).toMatchObject({ delivered: false, over: uplinkNamed(plan, 'mobile').id });
    expect(answer.summary).toMatch(/; 25 % of new conversations take mobile, and the others get through$/);
  });

  test('each router behind another has an address of its own, which no laptop is given', () => {
    let plan = behindRouter(sound);
    const added = done(plan, 'addDevice', { name: 'gw-3', model: { shelf: 'gateway-6' } });
    plan = done(added, 'addUplink', { device: deviceNamed(added, 'gw-3').id, name: 'inner too' });
    const staff = vlanFor(plan, 'staff').id;
    plan = done(plan, 'standBehind', { uplink: uplinkNamed(plan, 'inner too').id, segment: staff });
    const [one, two] = ['inner', 'inner too'].map((name) => outsideAddress(plan, uplinkNamed(plan, name)));
    expect(one).not.toBe(two);
    const asked = probe(plan, { from: { vlan: staff }, to: { internet: true }, wanted: HTTPS });
    for (const address of [one!, two!])
      expect(asked.forth[0]!.left).not.toContain(`${formatAddress(address)} `);
    expect(within(plan, 'press').summary).toBe(
      'Stopped at the way in: gw-2 stands behind gw-1, which forwards nothing to it',
    );
  });
});

describe('IPv6', () => {
  const both = dualStack(sound);
  const FAR = formatAddress(farAddress(both, 6));
  test('goes out as it is, and only from the prefix that is delegated', () => {
    const answer = at(both, FAR);
    expect(answer.delivered).toBe(true);
    expect(answer.forth.some(({ decision }) => /translates/.test(decision))).toBe(false);
    expect(answer.forth.at(-1)!.left).toBe(`2001:db8:40:30::11 → ${FAR}`);
    const elsewhere = fibre(both, { delegated: prefix('2001:db8:77::/48') });
    expect(at(elsewhere, FAR).summary).toMatch(/is not of the prefix that is delegated over it/);
    expect(at(fibre(both, { delegated: null }), FAR).summary).toMatch(
      /no provider delegates an IPv6 prefix to it/,
    );
    expect(at(both, FAR, 'till').summary).toBe('Stopped at the sender: till has no IPv6 address');
  });

  test('does not come in where the box of the uplink does not route', () => {
    const plan = fibre(both, { device: deviceNamed(both, 'cam-1').id, port: null });
    expect(within(plan, 'desk').summary).toBe('Stopped at the way in: the device of fibre does not route');
  });

  test('an address for inside only gets no further than that', () => {
    const vlan = vlanFor(both, 'voice').id;
    const plan = done(both, 'addSubnet', { vlan, prefix: 'fd00:1:2:50::/64' });
    const local = done(plan, 'addAddress', {
      device: deviceNamed(plan, 'phone').id,
      subnet: [...plan.subnet.values()].find(
        (subnet) => formatAddress(subnet.prefix.address) === 'fd00:1:2:50::',
      )!.id,
      address: 'fd00:1:2:50::9',
    });
    expect(at(local, FAR, 'phone').summary).toMatch(
      /fd00:1:2:50::9 is an address for inside only \(RFC 4193\)/,
    );
  });

  test('comes in where the filter is opened, and over a shared IPv4 address all the same', () => {
    const wish = {
      uplink: uplinkNamed(both, 'fibre').id,
      protocol: 'tcp',
      port: 8883,
      name: '',
      way: 'ipv6',
    };
    const wanted = { protocol: 'tcp', port: 8883 } as const;
    expect(within(both, 'desk', wanted).delivered).toBe(false);
    const open = done(both, 'takeWay', { ...wish, target: cardOf(both, 'desk').id });
    expect(within(open, 'desk', wanted).forth.at(-1)!.came).toContain('2001:db8:40:30::11');
    expect(within(fibre(open, { outside: 'shared' }), 'desk', wanted).delivered).toBe(true);
    expect(within(open, 'desk', { ...wanted, port: 22 }).delivered).toBe(false);
    // The opening is for IPv6; nobody who sends to the IPv4 address from outside is let in by it.
    expect(rulesOf(open)[0]!.to).toEqual([{ prefix: { address: addressOf(open, 'desk', 6), length: 128 } }]);
  });

  test('accepted as a way in makes the subnet and the address where there are none', () => {
    const plan = fibre(sound, { delegated: prefix(DELEGATED) });
    const [uplink, target] = [uplinkNamed(plan, 'fibre').id, cardOf(plan, 'cam-1').id];
    const input = { uplink, target, protocol: 'tcp', port: 554, name: '', way: 'ipv6' };
    const made = done(plan, 'takeWay', input);
    const six = addressesOn(made, target).find(({ address }) => typeof address === 'bigint')!;
    // The /64 of the VLAN id.
    expect(formatAddress(made.subnet.get(six.subnet)!.prefix.address)).toBe('2001:db8:40:14::');
    expect(within(made, 'cam-1', { protocol: 'tcp', port: 554 }).delivered).toBe(true);
    expect(() => done(sound, 'takeWay', input)).toThrow(/fibre delegates no IPv6 prefix/);
  });
});

test('a box whose interface is down does not answer there', () => {
  const inner = portNamed(sound, 'gw-1', 0);
  const guest = vlanFor(sound, 'guest').id;
  const plan = put(sound, 'port', inner, { tagged: inner.tagged.filter((id) => id !== guest) });
  expect(at(plan, '10.20.40.1').summary).toMatch(
    /^Stopped at gw-1: its interface in VLAN 40 Guests is down, as none of its ports is in it/,
  );
});

test('where two have one address the answer says so, of a host and of a gateway', () => {
  const till = addressesOn(sound, cardOf(sound, 'till').id)[0]!;
  const desk = addressesOn(sound, cardOf(sound, 'desk').id)[0]!;
  const twin = put(sound, 'address', till, { address: desk.address });
  const ask = (plan: Plan, name: string) =>
    probe(plan, {
      from: device(plan, 'cam-1'),
      to: device(plan, name),
      wanted: { protocol: 'tcp', port: 80 },
    });
  const open = (plan: Plan) => {
    const [from, to] = [zoneNamed(plan, 'Devices').id, zoneNamed(plan, 'Staff').id];
    return done(plan, 'decidePairs', { pairs: [{ from, to }], decision: 'allow' });
  };
  const answer = ask(open(twin), 'desk');
  expect(answer).toMatchObject({ delivered: true, works: null });
  expect(answer.summary).toMatch(/^Not known: (till|desk) has 10\.20\.30\.10 too, and whoever answers first/);
  expect(ask(open(sound), 'desk').works).toBe(true);
  const gateway = put(sound, 'address', till, { address: parseAddress('10.20.30.1')! });
  expect(out(gateway).summary).toMatch(/till has 10\.20\.30\.1 too/);
  // What a pair of routers shares is meant to be there twice.
  const shared = put(gateway, 'address', gateway.address.get(till.id)!, { assignment: 'virtual' });
  expect(out(shared).works).toBe(true);
});

test('nobody is asked at the broadcast address of a network', () => {
  expect(at(sound, '10.20.20.255').summary).toMatch(
    /is the broadcast address of 10\.20\.20\.0\/24, and no router/,
  );
  const wrong = put(sound, 'interface', cardOf(sound, 'desk'), { ownLength: 30 });
  expect(at(wrong, '10.20.30.11').summary).toMatch(
    /is the broadcast address of its own network 10\.20\.30\.8\/30/,
  );
});

test('whoever is outside gets an answer, whatever stands in the plan', () => {
  let asked = 0;
  fc.assert(
    fc.property(fc.nat(), (seed) => {
      const plan = withEveryKind(drawPlan(seed), seed);
      const ends = [
        ...[...plan.device.values()].map(({ id }) => ({ device: id })),
        ...[...plan.vlan.values()].map(({ id }) => ({ vlan: id })),
        ...[...plan.address.values()].map(({ address }) => ({ address })),
      ];
      for (const to of ends)
        for (const wanted of [HTTPS, { protocol: 'icmp', port: 0 } as const]) {
          const answer = probe(plan, { from: { internet: true }, to, wanted });
          expect(answer.summary).not.toBe('');
          asked++;
        }
    }),
    { numRuns: runs(200) },
  );
  expect(asked).toBeGreaterThan(moreThan(3000));
});
