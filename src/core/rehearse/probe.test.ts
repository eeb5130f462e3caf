import { type Plan, boxOf, subnetOf, applyChange } from '../plan';
import { perform, typedCable } from '../edit';
import { rulesOf } from '../model/policy';
import { cardOf, uplinkNamed } from '../testing/internet';
import { deviceNamed, portNamed, put, vlanFor } from '../testing/gear';
import { done, emptySite, nextSeed, prefix } from '../testing/plans';
import { soundPolicy, zoneNamed } from '../testing/policy';
import { ask, steps } from '../testing/asking';

const sound = soundPolicy();
const v4 = (text: string) => prefix(`${text}/32`).address;

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
