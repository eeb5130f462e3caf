import { type Plan, boxOf, interfacesOf, subnetOf } from '../../../plan';
import { deviceNamed, portNamed, put, vlanFor } from '../../../testing/gear';
import {
  hopped,
  listens,
  onAir,
  soundAccess,
  withAccess,
  withServer,
  withTelephones,
} from '../../../testing/access';
import { held } from '../../../testing/guards';
import { done } from '../../../testing/plans';
import { FindingsEngine } from '../../engine';
import { askingChecks } from './';

const sound = soundAccess();
const TODAY = '2026-05-04';
const way = [...sound.access.values()][0]!.id;

const asks = (name: string, number: number, plan = sound): Plan =>
  held(plan, portNamed(plan, name, number).id, { access: way });
const ticked = (items: readonly string[]): Plan =>
  done(sound, 'tickHardening', {
    devices: [deviceNamed(sound, 'sw-a').id],
    items,
    done: '2026-05-01',
    by: 'Ada',
  });
const known = (name: string, by: string, plan = sound): Plan =>
  done(plan, 'setIdentity', { devices: [deviceNamed(plan, name).id], by });

const examples: readonly (readonly [string, string, () => Plan, RegExp])[] = [
  [
    'access-no-server',
    'stop',
    () => withAccess(sound, { group: 'doors' }),
    /^No server of group doors is recorded, so every port that asks like this/,
  ],
  [
    'access-server-unreached',
    'stop',
    () => listens(sound, 'tcp', 22),
    /^UDP 1812: .*nothing there listens on udp 1812.* A ping passes, so nobody suspects it\.$/m,
  ],
  ['access-accounting-unreached', 'fix', () => listens(sound, 'udp', 1812), /^UDP 1813: /],
  [
    'access-change-unreached',
    'fix',
    () =>
      done(sound, 'addListener', {
        device: deviceNamed(sound, 'sw-a').id,
        protocol: 'tcp',
        port: 22,
        name: 'SSH',
      }),
    /^UDP 3799: /,
  ],
  [
    'access-other-port',
    'stop',
    () => withServer(listens(sound, 'udp', 1812), { port: 1645 }),
    /^Old gear has 1645 and 1646/,
  ],
  ['access-on-uplink', 'stop', () => asks('sw-a', 9), /^sw-b passes on what others say: /],
  [
    'access-on-uplink',
    'fix',
    () => withAccess(asks('sw-a', 2, onAir(sound)), { mode: 'watch' }),
    /^ap brings people of \d networks: .* Instead: it asks them itself/,
  ],
  [
    'access-unable',
    'stop',
    () => put(sound, 'box', boxOf(sound, deviceNamed(sound, 'sw-b').id)!, { dot1x: false }),
    /^Its model does no 802\.1X, so whoever plugs into sw-b 3 is let in\.$/,
  ],
  [
    'access-outcome-not-carried',
    'stop',
    () => withAccess(sound, { failed: vlanFor(sound, 'parking').id }),
    /^desks leads to VLAN \d+ for who is refused; where no trunk brings it, that leads nowhere\.$/,
  ],
  ['access-no-critical', 'fix', () => withAccess(sound, { critical: null }), /set the segment for that time/],
  [
    'access-cannot-answer',
    'stop',
    () => withAccess(known('cam-1', 'neither'), { guest: null }),
    /^desks keeps out whoever does not answer, and the device is known by nothing\.$/,
  ],
  [
    'access-cannot-answer',
    'fix',
    () => withAccess(sound, { methods: 'dot1x' }),
    /^desks puts into Guests whoever does not answer, and the device is known by its MAC address only\.$/m,
  ],
  [
    'access-mac-unknown',
    'stop',
    () => put(sound, 'interface', interfacesOf(sound, deviceNamed(sound, 'cam-1').id)[0]!, { mac: null }),
    /^sw-a 3 asks, cam-1 is known by its MAC address only, and none is recorded/,
  ],
  [
    'access-late',
    'fix',
    () => withAccess(sound, { period: 30, tries: 3 }),
    /^3 × 30 s pass before the MAC address is tried, and a DHCP client gives up after 60 s/,
  ],
  [
    'access-server-behind',
    'stop',
    () => asks('sw-b', 4),
    /after a restart neither comes up\. Instead: a MAC limit of one/,
  ],
  [
    'access-hosts-few',
    'stop',
    () => withAccess(sound, { hosts: 'one' }),
    /^desks keeps out whoever comes after; give the port a way in for more\.$/,
  ],
  ['access-one-for-all', 'fix', () => withAccess(sound, { hosts: 'all' }), /^With a small switch/],
  [
    'hardening-open',
    'note',
    () => ticked(['name', 'login', 'services', 'sessions', 'secrets', 'time', 'management', 'saved']),
    /^2 of 10 points are open: looks up names, firmware is current\.$/,
  ],
  [
    'hardening-contradicted',
    'fix',
    () =>
      put(ticked(['firmware']), 'box', boxOf(sound, deviceNamed(sound, 'sw-a').id)!, {
        firmware: '1.2',
        supportedUntil: '2026-01-31',
      }),
    /^Firmware is current: 1\.2, supported until 2026-01-31\.$/,
  ],
  [
    'telephones-boot',
    'fix',
    () => withTelephones({ boot: 'auth', bootOption: '150' }, sound),
    /^Option 150 carries addresses \(RFC 5859\), and “auth” is none; option 66 carries names and URLs too\.$/,
  ],
  [
    'telephones-boot-unreached',
    'fix',
    () => withTelephones({ boot: 'http://10.99.0.1/' }, sound),
    /^http:\/\/10\.99\.0\.1\/: Stopped at Internet/,
  ],
  [
    'telephones-registrar',
    'stop',
    () =>
      done(withTelephones({ registrar: 'auth' }, sound), 'addRule', {
        action: 'deny',
        from: [{ vlan: vlanFor(sound, 'voice').id }],
        to: [{ device: deviceNamed(sound, 'auth').id }],
      }),
    /^auth: Stopped at gw-1: /,
  ],
  [
    'telephones-untold',
    'fix',
    () => {
      const plan = withTelephones({ boot: 'auth' }, sound);
      const subnet = subnetOf(plan, vlanFor(plan, 'voice').id, 4)!;
      const [pool] = [...plan.pool.group(subnet.id).keys()];
      return done(plan, 'removeRange', { table: 'pool', id: pool });
    },
    /^Option 66 comes with a lease, and nothing is leased there\.$/,
  ],
  [
    'voice-unannounced',
    'fix',
    () => hopped(sound, 'sw-a', { announces: 'no' }),
    /^sw-a 4: access \+ voice without an announcement/,
  ],
  [
    'voice-spoilt',
    'fix',
    () =>
      hopped(withTelephones({ registrar: 'sip.example.net' }, sound), 'sw-a', {
        marks: 'cleared',
        queue: 'no',
      }),
    /^On the way of phone it clears the mark of voice, and it sends voice after whatever came first\.$/,
  ],
  [
    'access-in-reach',
    'note',
    () => put(sound, 'port', portNamed(sound, 'sw-b', 7), { exposed: true, enabled: true }),
    /^Others here do: /,
  ],
];

const found = (plan: Plan, check: string) =>
  new FindingsEngine(plan, TODAY).all().filter((finding) => finding.check === check);

test.each(examples)('%s as a %s', (check, severity, make, says) => {
  const matching = found(make(), check).filter(({ because }) => says.test(because));
  expect(
    found(make(), check)
      .map(({ because }) => because)
      .join('\n'),
  ).toMatch(says);
  expect(matching[0]!.severity).toBe(severity);
  expect(found(sound, check)).toEqual([]);
});

test('every check has an example', () =>
  expect([...new Set(examples.map(([check]) => check))].sort()).toEqual(
    askingChecks.map(({ id }) => id).sort(),
  ));
