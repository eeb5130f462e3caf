import { parseAddress } from '../../address';
import { gearDamages, soundGear, deviceNamed, portNamed, vlanFor } from '../../testing/gear';
import { damages, done, emptySite, prefix } from '../../testing/plans';
import { type Plan, withRecord, type AnyRecord, type TableName, subnetOf, boxOf } from '../../plan';
import { typedCable } from '../../edit';
import { FindingsEngine, allChecks } from '../engine';
import { internetChecks } from './internet';
import { policyChecks } from './policy';
import { questionChecks } from './questions';
import { treeChecks } from './trees';
import { askingChecks, guardChecks } from './guards';
import { wirelessChecks } from './wireless';
import type { Severity } from '../finding';

/** One example for each check: what a person did, and what the program says to it. */

const TODAY = '2026-05-04';

/** Management, staff, cameras and guests, one camera at its place. */
const base = (() => {
  let plan = emptySite();
  for (const purpose of ['management', 'staff', 'cameras', 'guest'])
    plan = done(plan, 'addSegment', { purpose });
  const subnet = subnetOf(plan, vlanFor(plan, 'cameras').id, 4)!.id;
  return done(plan, 'addHost', { subnet, kind: 'camera', name: 'cam', mac: '00:00:5E:00:53:01' });
})();
const gear = soundGear();

const put = (plan: Plan, table: TableName, record: AnyRecord, fields: object): Plan =>
  withRecord(plan, table, record.id, { ...record, ...fields } as AnyRecord);
const vlan = (purpose: string) => vlanFor(base, purpose);
const subnet = (purpose: string, plan = base) => subnetOf(plan, vlanFor(plan, purpose).id, 4)!;
const site = base.site.get('site')!;
const first = (purpose: string) => subnet(purpose).prefix.address as number;
const camera = [...base.address.values()].find((address) => !address.gateway)!;
const cameraDevice = base.device.get(base.interface.get(camera.interface)!.device)!;
const cameraCard = base.interface.get(camera.interface)!;
const gateway = (purpose: string) =>
  [...base.address.values()].find((address) => address.gateway && address.subnet === subnet(purpose).id)!;
const pool = (purpose: string) => [...base.pool.group(subnet(purpose).id).values()][0]!;
const host = (purpose: string, fields: object, plan = base) =>
  done(plan, 'addHost', { subnet: subnet(purpose).id, ...fields });
const box = (name: string) => boxOf(gear, deviceNamed(gear, name).id)!;
const port = (name: string, number: number) => portNamed(gear, name, number);
const onPort = (name: string, number: number, fields: object) =>
  put(gear, 'port', port(name, number), fields);
const staff = vlanFor(gear, 'staff').id;
const guest = vlanFor(gear, 'guest').id;

const sixth = (plan: Plan) => subnetOf(plan, vlanFor(plan, 'staff').id, 6)!;
const sixIn = (purpose: string, length: number) =>
  done(base, 'addSubnet', { vlan: vlan(purpose).id, prefix: `fd42:7:1:14::/${length}` });

const second = () => done(gear, 'connect', typedCable(gear, 'sw-a 10 = sw-b 10'));
const ring = () => {
  const plan = second();
  const ports = [portNamed(plan, 'sw-a', 10).id, portNamed(plan, 'sw-b', 10).id];
  const tagged = port('sw-a', 9).tagged;
  return done(plan, 'assignPorts', { ports, role: 'trunk', vlan: null, tagged });
};

const examples: readonly (readonly [check: string, Severity, make: () => Plan, says: RegExp])[] = [
  [
    'vid-twice',
    'stop',
    () => put(base, 'vlan', vlan('guest'), { vid: 20 }),
    /both have VLAN id 20 in the same LAN/,
  ],
  [
    'vid-reserved',
    'fix',
    () => put(base, 'vlan', vlan('guest'), { vid: 1 }),
    /factory default of every port/,
  ],
  [
    'code-twice',
    'note',
    () => put(base, 'vlan', vlan('guest'), { code: 'ST' }),
    /same label on ports and cables/,
  ],
  [
    'segment-name-twice',
    'note',
    () => put(base, 'vlan', vlan('guest'), { name: vlan('staff').name.toUpperCase() }),
    /cannot be told apart by name/,
  ],
  [
    'no-management',
    'fix',
    () => put(base, 'vlan', vlan('management'), { purpose: 'servers' }),
    /None of the 4 segments/,
  ],
  [
    'guests-in-staff',
    'fix',
    () => put(base, 'vlan', vlan('staff'), { transient: { present: 5, arrivalsPerHour: 1, openHours: 8 } }),
    /5 people who come and go share the segment/,
  ],
  ['domain-not-allowed', 'fix', () => put(base, 'site', site, { domain: 'no good' }), /RFC 1035/],
  [
    'subnet-overlap',
    'stop',
    () => put(base, 'subnet', subnet('guest'), { prefix: subnet('staff').prefix }),
    /lies exactly on/,
  ],
  [
    'subnet-outside-space',
    'fix',
    () => put(base, 'subnet', subnet('guest'), { prefix: prefix('172.20.4.0/24') }),
    /172\.20\.4\.0\/24 is in none of 10\.20\.0\.0\/16/,
  ],
  [
    'subnet-foreign',
    'stop',
    () => put(base, 'site', site, { foreign: [{ prefix: subnet('guest').prefix, why: 'the neighbour' }] }),
    /overlaps .* \(the neighbour\)/,
  ],
  [
    'subnet-special',
    'stop',
    () => put(base, 'subnet', subnet('guest'), { prefix: prefix('224.0.5.0/24') }),
    /which is not for a segment/,
  ],
  [
    'third-octet',
    'note',
    () => put(base, 'subnet', subnet('guest'), { prefix: prefix('10.20.77.0/24') }),
    /should have \d+ in its third octet/,
  ],
  ['subnet-too-small', 'stop', () => put(base, 'vlan', vlan('staff'), { devices: 400 }), /fits 254 hosts/],
  ['dns-missing', 'fix', () => put(base, 'subnet', subnet('staff'), { dns: [] }), /cannot resolve names/],
  [
    'gateway-missing',
    'stop',
    () => withRecord(base, 'address', gateway('staff').id, null),
    /Nothing routes for/,
  ],
  [
    'gateway-outside',
    'stop',
    () => put(base, 'address', gateway('staff'), { address: first('staff') - 1 }),
    /does not lie in/,
  ],
  [
    'gateway-on-edge',
    'stop',
    () => put(base, 'address', gateway('staff'), { address: first('staff') }),
    /is the network address/,
  ],
  [
    'gateway-in-pool',
    'fix',
    () => put(base, 'address', gateway('staff'), { address: pool('staff').start }),
    /a server may lease it to a guest/,
  ],
  [
    'gateway-equals-host',
    'stop',
    () => put(base, 'address', camera, { address: gateway('cameras').address }),
    /is the gateway gw-1; every host/,
  ],
  [
    'pool-outside',
    'stop',
    () => put(base, 'pool', pool('staff'), { end: first('staff') + 255 }),
    /is not within the hosts/,
  ],
  [
    'pools-overlap',
    'fix',
    () => withRecord(base, 'pool', 'second', { ...pool('staff'), id: 'second' }),
    /two leases for one address/,
  ],
  [
    'pool-small',
    'fix',
    () => put(base, 'pool', pool('staff'), { end: pool('staff').start }),
    /^1 leases; .* are needed\.$/,
  ],
  [
    'people-without-pool',
    'fix',
    () => withRecord(base, 'pool', pool('staff').id, null),
    /People bring their own devices there, and .* has no pool\.$/,
  ],
  [
    'address-outside',
    'stop',
    () => put(base, 'address', camera, { address: first('cameras') - 300 }),
    /does not lie in/,
  ],
  [
    'address-on-edge',
    'stop',
    () => put(base, 'address', camera, { address: first('cameras') + 255 }),
    /is the broadcast address of .* and cannot be a host/,
  ],
  [
    'address-twice',
    'stop',
    () =>
      withRecord(host('cameras', { name: 'cam-2' }), 'address', camera.id, {
        ...camera,
        address: [...host('cameras', { name: 'cam-2' }).address.values()].find(
          (address) => !address.gateway && address.id !== camera.id,
        )!.address,
      }),
    /whichever answers first wins/,
  ],
  [
    'static-in-pool',
    'fix',
    () => host('staff', { name: 'pc', assignment: 'static', address: '10.20.20.120' }),
    /may lease 10\.20\.20\.120 to another device/,
  ],
  [
    'reservation-in-pool',
    'fix',
    () =>
      put(
        host('staff', {
          name: 'pc',
          assignment: 'reservation',
          address: '10.20.20.120',
          mac: '00:00:5E:00:53:09',
        }),
        'site',
        site,
        { reservationInPool: false },
      ),
    /takes reservations only outside the pool/,
  ],
  [
    'reservation-without-mac',
    'fix',
    () =>
      put(put(base, 'interface', cameraCard, { mac: null }), 'address', camera, {
        assignment: 'reservation',
      }),
    /not for which network card/,
  ],
  ['name-not-allowed', 'fix', () => put(base, 'device', cameraDevice, { name: 'Yard Cam' }), /RFC 1123/],
  ['mac-group', 'fix', () => put(base, 'interface', cameraCard, { mac: '01:00:5E:00:53:01' }), /group bit/],
  [
    'own-settings',
    'stop',
    () => put(base, 'interface', cameraCard, { ownGateway: 1 }),
    /gateway 0\.0\.0\.1 instead of .*, which it cannot even reach/,
  ],
  ['wrong-segment', 'fix', () => host('staff', { name: 'cam-9', kind: 'camera' }), /Cameras is made for it/],
  [
    'safety-shared',
    'fix',
    () => host('cameras', { name: 'stop-1', kind: 'safety-controller' }),
    /^Whatever floods Cameras reaches a safety function\./,
  ],
  ['mac-twice', 'fix', () => host('staff', { name: 'pc', mac: '00:00:5E:00:53:01' }), /whichever asks first/],
  [
    'name-twice',
    'fix',
    () => {
      const plan = host('staff', { name: 'pc' });
      return put(plan, 'device', deviceNamed(plan, 'pc'), { name: 'CAM' });
    },
    /another device both are/,
  ],
  [
    'vlan-cut',
    'stop',
    () => onPort('sw-b', 9, { tagged: port('sw-b', 9).tagged.filter((id) => id !== staff) }),
    /in 2 pieces .*: sw-b 9 would have to carry it/,
  ],
  [
    'vlan-not-redundant',
    'fix',
    () => {
      const plan = ring();
      const last = portNamed(plan, 'sw-b', 10);
      return put(plan, 'port', last, { tagged: last.tagged.filter((id) => id !== staff) });
    },
    /sw-b 10 on another way between its users does not carry it/,
  ],
  [
    'native-mismatch',
    'stop',
    () => {
      const one = onPort('sw-a', 9, { untagged: staff, pvid: staff, accepts: 'all' });
      return put(one, 'port', port('sw-b', 9), { untagged: guest, pvid: guest, accepts: 'all' });
    },
    /untagged frames change segment: 30 becomes 40, 40 becomes 30/,
  ],
  [
    'inner-not-member',
    'stop',
    () => done(gear, 'assignPorts', { ports: [port('sw-a', 0).id], role: 'access', vlan: guest }),
    /its inside is no member of it/,
  ],
  [
    'loop-open',
    'stop',
    () => put(ring(), 'box', box('sw-a'), { spanningTree: 'none' }),
    /sw-a runs no spanning tree: the first broadcast goes round/,
  ],
  [
    'port-undecided',
    'fix',
    () => done(gear, 'assignPorts', { ports: [port('sw-a', 7).id], role: 'undecided' }),
    /^Port 7 is as it left the factory, in VLAN 1\.$/,
  ],
  [
    'port-unused',
    'note',
    () => done(gear, 'assignPorts', { ports: [port('sw-a', 7).id], role: 'access', vlan: staff }),
    /plugs into 7 is in the network/,
  ],
  ['pvid-differs', 'stop', () => onPort('sw-a', 3, { pvid: staff }), /answers never arrive/],
  ['port-sets-itself', 'fix', () => onPort('sw-a', 9, { setsItself: 'neighbour' }), /It joins two boxes/],
  [
    'management-exposed',
    'stop',
    () => onPort('sw-a', 9, { exposed: true }),
    /talk to the switches themselves/,
  ],
  [
    'voice-wrong',
    'fix',
    () => onPort('sw-a', 4, { voice: guest, tagged: [guest] }),
    /announces .*guest\) for voice/,
  ],
  [
    'port-name-twice',
    'fix',
    () => put(onPort('sw-a', 1, { name: 'ge1' }), 'port', port('sw-a', 2), { name: 'ge1' }),
    /would be configured in one place/,
  ],
  [
    'trunk-to-end',
    'stop',
    () =>
      done(gear, 'assignPorts', { ports: [port('sw-a', 3).id], role: 'trunk', vlan: null, tagged: [staff] }),
    /cam-1 does not tag/,
  ],
  [
    'port-wrong-segment',
    'stop',
    () => done(gear, 'assignPorts', { ports: [port('sw-a', 3).id], role: 'access', vlan: staff }),
    /Its address is in Cameras .*, and sw-a 3 is in Staff/,
  ],
  ['access-to-ap', 'fix', () => gearDamages.apOnAccess!(gear, 0, 0), /lets only one segment through/],
  [
    'plain-switch-tagged',
    'fix',
    () => gearDamages.tagsThroughHub!(gear, 0, 0),
    /reaches every port of hub unasked/,
  ],
  ['two-cables', 'stop', () => gearDamages.secondCable!(gear, 0, 0), /One socket takes one plug/],
  [
    'cable-unfit',
    'fix',
    () => put(gear, 'cable', [...gear.cable.values()][0]!, { length: 130 }),
    /130 m of copper are more than the 100 m/,
  ],
  ['links-unbundled', 'note', ring, /Of 2 links side by side/],
  [
    'not-powered',
    'fix',
    () => put(gear, 'port', portNamed(gear, 'cam-1', 1), { poeClass: 8 }),
    /asks for class 8 \(90 W\)/,
  ],
  [
    'box-overloaded',
    'fix',
    () => put(gear, 'box', box('sw-a'), { vlanLimit: 2 }),
    /is to hold 6 VLANs and can hold 2/,
  ],
  [
    'management-misplaced',
    'fix',
    () => gearDamages.misplaced!(gear, 0, 1),
    /whoever is there can try its login/,
  ],
  [
    'login-unchanged',
    'note',
    () => put(gear, 'box', box('sw-a'), { loginChanged: null }),
    /never what it is/,
  ],
  [
    'support-ended',
    'stop',
    () => {
      const outside = done(gear, 'assignPorts', { ports: [port('gw-1', 1).id], role: 'uplink' });
      return put(outside, 'box', box('gw-1'), { supportedUntil: '2026-05-03', firmware: '1.2' });
    },
    /^Its firmware 1\.2 is supported until 2026-05-03, and it faces the Internet/,
  ],
  [
    'management-unaddressed',
    'fix',
    () => gearDamages.unaddressed!(gear, 0, 0),
    /takes whatever it is leased/,
  ],
  [
    'management-unreachable',
    'fix',
    () => gearDamages.cutOff!(gear, 0, 0),
    /^No port and no other box takes part in VLAN \d+ \(Management\) where it hears it\.$/,
  ],
  [
    'ports-short',
    'fix',
    () => gearDamages.crowd!(gear, 0, 0),
    /^24 devices that need a cable have none \(.* and others\), and \d+ ports of all boxes together are free\.$/,
  ],
  [
    'bundle-two-boxes',
    'stop',
    () => gearDamages.bundleOfTwo!(gear, 0, 0),
    /^LACP bundles links to one box only \(IEEE 802\.1AX\)/,
  ],
  [
    'bundle-one-end',
    'stop',
    () => gearDamages.bundleHere!(gear, 0, 1),
    /^sw-a takes its links for one and sw-b does not: broadcasts come back twice/,
  ],
  [
    'bundle-modes',
    'stop',
    () => gearDamages.bundleModes!(gear, 0, 0),
    /hears no LACP and keeps its links apart or shut/,
  ],
  ['cable-to-itself', 'fix', () => gearDamages.toItself!(gear, 0, 0), /A spanning tree blocks one end/],
  [
    'plain-switch-twice',
    'stop',
    () => gearDamages.hubTwice!(gear, 0, 0),
    /^hub swallows the messages of spanning trees, so sw-b does not see the loop/,
  ],
  [
    'pool-unserved',
    'fix',
    () => put(base, 'pool', pool('staff'), { servedBy: [cameraCard.id] }),
    /^cam stands outside Staff, and no relay there passes questions on: whoever asks gets no address\.$/,
  ],
  [
    'dhcp-servers-two',
    'note',
    () => damages.otherServer!(base, 1, 0),
    /^gw-1 leases .* and cam leases .*: whoever answers first decides\.$/,
  ],
  [
    'gateway-not-routing',
    'stop',
    () => gearDamages.routesNothing!(gear, 0, 0),
    /^It passes nothing on: hosts of .* reach only each other\.$/,
  ],
  [
    'dns-nobody',
    'fix',
    () => put(base, 'subnet', subnet('staff'), { dns: [{ literal: first('staff') + 9 }] }),
    /^Of its DNS servers nobody has 10\.20\.20\.9: names are not resolved/,
  ],
  [
    'six-unannounced',
    'fix',
    () => {
      const plan = sixIn('staff', 64);
      return put(plan, 'subnet', sixth(plan), { advertised: false });
    },
    /^Without router advertisements no device in fd42:.* learns its router/,
  ],
  [
    'six-not-64',
    'fix',
    () => sixIn('staff', 80),
    /^They configure themselves only in a \/64; fd42:.*\/80 is none, and no pool/,
  ],
  [
    'vlan-without-port',
    'note',
    () => done(gear, 'addSegment', { purpose: 'servers' }),
    /neither an access port nor a box takes part in it/,
  ],
];

const found = (plan: Plan, check: string) =>
  new FindingsEngine(plan, TODAY).all().filter((finding) => finding.check === check);

describe('each check by an example', () => {
  test.each(examples)('%s is a %s', (check, severity, make, says) => {
    const [finding] = found(make(), check);
    expect(finding?.because).toMatch(says);
    expect(finding!.severity).toBe(severity);
    expect(finding!.key).toBe(`${check}:${finding!.where[0]!.id}`);
    expect(finding!.what).not.toBe('');
  });
  test('every check has one', () =>
    expect(examples.map(([check]) => check).sort()).toEqual(
      [
        ...new Set(
          allChecks
            .filter(
              (check) =>
                ![
                  ...guardChecks,
                  ...askingChecks,
                  ...wirelessChecks,
                  ...internetChecks,
                  ...policyChecks,
                  ...treeChecks,
                  ...questionChecks,
                ].includes(check as never),
            )
            .map((check) => check.id),
        ),
      ].sort(),
    ));
  test('a site as it should be has none of them', () => {
    expect(new FindingsEngine(base, TODAY).all()).toEqual([]);
    expect(new FindingsEngine(gear, TODAY).all()).toEqual([]);
  });
  test('what is plugged in says which of PVID and untagged VLAN is right', () => {
    const wrong = onPort('sw-a', 3, { pvid: guest });
    const [finding] = found(wrong, 'pvid-differs');
    expect(finding!.severity).toBe('stop');
    expect(finding!.remedies.map(({ input }) => (input as { vlan: string }).vlan)).toEqual([
      vlanFor(gear, 'cameras').id,
      guest,
    ]);
    const free = onPort('sw-a', 9, { pvid: guest, accepts: 'all' });
    expect(found(free, 'pvid-differs')[0]!.severity).toBe('fix');
  });
  test('a port as it came is decided by what is plugged in', () => {
    const ports = [port('sw-a', 3).id, port('sw-a', 7).id];
    const plan = done(gear, 'assignPorts', { ports, role: 'undecided' });
    const [finding] = found(plan, 'port-undecided');
    const [remedy] = finding!.remedies;
    expect(remedy!.label).toMatch(/^By what is plugged in: 3 in 20 CM, 7 parked$/);
    const mended = done(plan, remedy!.operation, remedy!.input);
    expect(found(mended, 'port-undecided')).toEqual([]);
    expect(mended.port.get(ports[0]!)!.untagged).toBe(vlanFor(gear, 'cameras').id);
    expect(mended.port.get(ports[1]!)!.role).toBe('parked');
  });
  test('a box that cannot mix has both ends of its trunks tagged', () => {
    const plan = gearDamages.mixesNothing!(gear, 0, 0);
    const finding = found(plan, 'box-overloaded').find(({ because }) => /mix/.test(because))!;
    expect(finding.because).toMatch(/would have to mix tagged and untagged, which it cannot\.$/);
    const voice = onPort('sw-a', 4, {});
    const mixed = put(voice, 'box', box('sw-a'), { mixesTags: false });
    expect(found(mixed, 'box-overloaded')[0]!.because).toMatch(/^sw-a 2, 4 would/);
  });
  test('a cable from a box to itself is a loop where no spanning tree runs', () => {
    const plan = put(gearDamages.toItself!(gear, 0, 0), 'box', box('sw-a'), { spanningTree: 'none' });
    const [finding] = found(plan, 'loop-open');
    expect(finding!.because).toMatch(/^A cable joins sw-a 5, 7 and sw-a runs no spanning tree/);
  });
  test('a filter comes off a ring only where no BPDU guard would shut it then', () => {
    const round = ring();
    const ends = [...round.cable.values()].at(-1)!;
    const guarded = (plan: Plan, end: string, guard: string) =>
      done(plan, 'setStpPort', { ports: [end], set: { guard } });
    const deaf = guarded(round, ends.from, 'filter');
    expect(found(deaf, 'loop-open')[0]!.remedies.map(({ label }) => label)).toEqual([
      expect.stringMatching(/^No filter at sw-/),
    ]);
    const [finding] = found(guarded(deaf, ends.to, 'bpdu'), 'loop-open');
    expect(finding!.remedies).toEqual([]);
  });
  test('ports taken out of a bundle leave it, and the last one ends it', () => {
    const plan = gearDamages.bundleOfTwo!(gear, 0, 0);
    const ports = [port('sw-a', 1).id];
    expect(done(plan, 'leaveBundle', { ports }).lag.size).toBe(0);
  });
  test('a flat home is not told of VLAN 1 and third octets', () => {
    let plan = emptySite({ kind: 'home' });
    plan = done(plan, 'addSegment', { purpose: 'staff' });
    const [only] = [...plan.vlan.values()];
    plan = put(plan, 'vlan', only!, { vid: 1 });
    const told = (now: Plan) =>
      ['vid-reserved', 'third-octet'].flatMap((check) => found(now, check).map((item) => item.check));
    expect(told(plan)).toEqual([]);
    expect(told(done(plan, 'addSegment', { purpose: 'guest' }))).toContain('vid-reserved');
  });
  test('a camera without a tag on a trunk is a port of its segment', () => {
    const cameras = vlanFor(gear, 'cameras').id;
    const ports = [...gear.port.values()].filter(
      ({ untagged, role }) => untagged === cameras && role === 'access',
    );
    const bare = ports.reduce((plan, item) => put(plan, 'port', item, { role: 'trunk' }), gear);
    expect(found(bare, 'vlan-without-port')).toEqual([]);
  });
  test('a static host in a pool can stay where the pool is cut around it', () => {
    const plan = host('staff', { name: 'pc', assignment: 'static', address: '10.20.20.120' });
    const [finding] = found(plan, 'static-in-pool');
    const cut = finding!.remedies.find(({ operation }) => operation === 'trimPool')!;
    expect(found(done(plan, cut.operation, cut.input), 'static-in-pool')).toEqual([]);
  });
  test('a DNS server of the other family is none, as nobody can be told of it', () => {
    const dns = [{ literal: parseAddress('2001:db8::53')! }];
    const [finding] = found(put(base, 'subnet', subnet('staff'), { dns }), 'dns-missing');
    expect(finding!.because).toMatch(/cannot resolve names/);
  });
  test('what runs out does so on the day after its last', () => {
    const until = (day: string) => put(gear, 'box', box('sw-a'), { supportedUntil: day });
    expect(found(until(TODAY), 'support-ended')).toEqual([]);
    expect(found(until('2026-05-03'), 'support-ended')).toHaveLength(1);
    expect(new FindingsEngine(until('2020-01-01')).all()).toEqual([]);
  });
});
