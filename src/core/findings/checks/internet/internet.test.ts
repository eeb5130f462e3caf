import type { Plan, Uplink } from '../../../plan';
import { portNamed, put } from '../../../testing/gear';
import { cardOf, internetDamages, soundInternet, uplinkNamed } from '../../../testing/internet';
import { done, prefix } from '../../../testing/plans';
import { FindingsEngine } from '../../engine';
import type { Finding } from '../../finding';
import { internetChecks } from './';

const sound = soundInternet();
const v4 = (text: string) => prefix(`${text}/32`).address;
const fibre = (fields: Partial<Uplink>, plan = sound): Plan =>
  put(plan, 'uplink', uplinkNamed(plan, 'fibre'), fields);
const forwarded = (inside: number, fields: object = {}) =>
  done(sound, 'addForward', {
    uplink: uplinkNamed(sound, 'fibre').id,
    target: cardOf(sound, 'till').id,
    inside,
    ...fields,
  });

const examples: readonly (readonly [string, string, () => Plan, RegExp])[] = [
  [
    'uplink-unrecorded',
    'note',
    () => internetDamages.unrecorded!(sound, 0, 0),
    /^The port faces a provider\./,
  ],
  [
    'uplink-port',
    'stop',
    () => put(sound, 'port', portNamed(sound, 'gw-1', 1), { role: 'parked' }),
    /^The port carries segments of this site instead of facing the provider\.$/,
  ],
  [
    'uplink-port-shared',
    'stop',
    () => internetDamages.samePort!(sound, 1, 0),
    /^Both are at gw-1 1 without a tag; they cannot be told apart\.$/,
  ],
  [
    'double-nat',
    'fix',
    () => fibre({ upstream: 'routing' }),
    /^gw-1 and the provider’s box upstream translate one after the other: nothing gets in from outside unless both/,
  ],
  ['uplink-mtu', 'fix', () => fibre({ addressing: 'pppoe', mtu: 1500 }), /PPPoE leaves 1492 \(RFC 2516\)/],
  ['uplink-address-missing', 'note', () => fibre({ addressing: 'static' }), /set up again after a fault/],
  [
    'uplink-address',
    'fix',
    () => fibre({ address: v4('100.64.0.7') }),
    /^100\.64\.0\.7 is in 100\.64\.0\.0\/10 \(RFC 6598\), shared by customers of a provider; recorded is a public address\.$/,
  ],
  [
    'uplink-network',
    'fix',
    () => fibre({ address: v4('203.0.113.5'), network: prefix('198.51.100.0/24') }),
    /^203\.0\.113\.5 lies outside 198\.51\.100\.0\/24/,
  ],
  [
    'dynamic-name',
    'fix',
    () => fibre({ dynamicName: 'site.example.net' }),
    /goes on pointing at the old one/,
  ],
  [
    'dynamic-name-behind-nat',
    'note',
    () =>
      fibre({
        dynamicName: 'site.example.net',
        updater: uplinkNamed(sound, 'fibre').device,
        upstream: 'routing',
        passes: 'everything',
      }),
    /has to ask outside/,
  ],
  ['failover-unwatched', 'fix', () => fibre({ monitor: null }), /goes on into a dead line/],
  [
    'forward-cannot-work',
    'stop',
    () => fibre({ outside: 'shared' }),
    /^Nothing gets as far as gw-1: its outside address is shared by customers of the provider/,
  ],
  [
    'forward-twice',
    'stop',
    () => internetDamages.twice!(sound, 0, 1),
    /^tcp 443 to desk and tcp 443 to desk: the first one gets everything\.$/,
  ],
  [
    'forward-no-address',
    'stop',
    () => internetDamages.floating!(sound, 0, 0),
    /whoever has its address by then/,
  ],
  [
    'forward-not-offered',
    'fix',
    () => done(sound, 'addListener', { device: cardOf(sound, 'desk').device, port: 8443 }),
    /^It lists tcp 8443; the forward leads to tcp 443\.$/,
  ],
  [
    'route-nowhere',
    'stop',
    () => internetDamages.route!(sound, 0, 0),
    /^10\.99\.0\.1 is in no network gw-1 stands in/,
  ],
  [
    'no-default-route',
    'stop',
    () => internetDamages.secondRouter!(sound, 0, 0),
    /^It knows no way to the Internet, which Voice may reach\.$/,
  ],
  [
    'tunnel-cannot-come',
    'stop',
    () =>
      put(
        internetDamages.tunnel!(fibre({ outside: 'shared' }), 0, 1),
        'uplink',
        uplinkNamed(sound, 'mobile'),
        { outside: 'shared' },
      ),
    /^The other side is to open it, and nothing gets in on fibre/,
  ],
  [
    'tunnel-overlap',
    'stop',
    () => internetDamages.tunnel!(internetDamages.tunnel!(sound, 0, 0), 1, 1),
    /^10\.60\.\d+\.0\/\d+ and 10\.60\.\d+\.0\/\d+ overlap/,
  ],
  [
    'translation-overlap',
    'stop',
    () => internetDamages.translation!(sound, 0, 1),
    /^It overlaps .*: who is asked for/,
  ],
  [
    'translation-size',
    'stop',
    () => internetDamages.uneven!(internetDamages.translation!(sound, 0, 0), 0, 0),
    /^One to one needs a \/24: each host of .* keeps its place/,
  ],
  [
    'voice-box',
    'stop',
    () => internetDamages.voiceBox!(sound, 0, 2),
    /looks for the provider’s tag, and the inside port does not repeat it; its voice is marked 0 instead of EF 46/,
  ],
  [
    'voice-box-power',
    'note',
    () => internetDamages.voiceBox!(sound, 0, 1),
    /emergency calls and alarm lines/,
  ],
  [
    'device-upstream',
    'fix',
    () => internetDamages.inFront!(sound, 0, 0),
    /^It hangs on isp-front, upstream of gw-1/,
  ],
  [
    'double-nat-inside',
    'note',
    () => internetDamages.inner!(sound, 0, 0),
    /^Two translations one after the other: .* gw-1 sees one address for all behind gw-2\.$/,
  ],
  [
    'uplinks-overlap',
    'stop',
    () => internetDamages.exposedTwice!(sound, 0, 0),
    /^198\.51\.100\.0\/24 and 198\.51\.100\.0\/24 overlap: gw-1 cannot tell/,
  ],
  [
    'failover-loses-telephone',
    'note',
    () => internetDamages.voiceBox!(sound, 0, 1),
    /registers only over fibre\..* over mobile, and no call does/,
  ],
  [
    'exposed-twice',
    'fix',
    () => internetDamages.exposedTwice!(sound, 0, 0),
    /^Both stand behind the router of 198\.51\.100\.0\/24/,
  ],
  [
    'forward-unused',
    'fix',
    () => internetDamages.shutIn!(sound, 0, 1),
    /^Somebody outside who asks for it: Stopped at desk: its own firewall lets in nobody from outside its own network\.$/,
  ],
  [
    'uplink-port-occupied',
    'fix',
    () => internetDamages.occupied!(sound, 1, 0),
    /^mobile is recorded there, and the cable goes to sw-b 4 inside/,
  ],
  [
    'six-not-delegated',
    'fix',
    () => internetDamages.six!(sound, 0, 1),
    /^2001:db8:77:1::\/64 is in no prefix that a provider delegates here \(fibre 2001:db8:40::\/48\)/,
  ],
  [
    'way-back-missing',
    'stop',
    () => internetDamages.noWayBack!(sound, 0, 0),
    /^core sends it packets from .*, and its answers have no way there\.$/,
  ],
  [
    'second-router-factory',
    'fix',
    () => internetDamages.plugged!(sound, 0, 0),
    /^At sw-a 5 it stands with an inside port in Staff: such a router leases addresses of its own/,
  ],
  ['forward-exposes', 'stop', () => forwarded(502), /such ports are found within minutes/],
];

const found = (plan: Plan, check: string) =>
  new FindingsEngine(plan).all().filter((finding) => finding.check === check);

describe('each check of the Internet side by an example', () => {
  test.each(examples)('%s is a %s', (check, severity, make, says) => {
    const [finding] = found(make(), check);
    expect(finding?.because).toMatch(says);
    expect(finding!.severity).toBe(severity);
    expect(finding!.key).toBe(`${check}:${finding!.where[0]!.id}`);
  });
  test('every check has one', () =>
    expect(examples.map(([check]) => check).sort()).toEqual(internetChecks.map((check) => check.id).sort()));
  test('a site as it should be has none of them', () => expect(new FindingsEngine(sound).all()).toEqual([]));
  test('a translation into the other family is removed, as no size of it would fit', () => {
    const uneven = internetDamages.uneven!(sound, 0, 2);
    const [finding] = new FindingsEngine(uneven).all().filter(({ check }) => check === 'translation-size');
    expect(finding!.because).toMatch(
      /has IPv4 addresses there: one to one needs an IPv4 network of the same/,
    );
    expect(finding!.remedies.map(({ label }) => label)).toEqual(['Remove the translation']);
  });
  test('a way to all of IPv6 is none for IPv4, nor is one by a router that has IPv6 only', () => {
    const plan = internetDamages.secondRouter!(sound, 0, 0);
    const [{ where, remedies }] = found(plan, 'no-default-route') as [Finding];
    const device = where[0]!.id;
    const six = done(plan, 'addRoute', { device, prefix: '::/0', via: '2001:db8::1' });
    expect(found(six, 'no-default-route')).toHaveLength(1);
    expect(found(done(six, remedies[0]!.operation, remedies[0]!.input), 'no-default-route')).toEqual([]);
    // As a file may bring it.
    const [route] = [...six.route.values()];
    const mixed = put(six, 'route', route!, { prefix: prefix('0.0.0.0/0') });
    expect(found(mixed, 'no-default-route')).toHaveLength(1);
    expect(found(mixed, 'route-nowhere')[0]!.because).toBe(
      '2001:db8::1 is IPv6, and 0.0.0.0/0 is IPv4: write the IPv4 address of the next router.',
    );
  });
  test('a network outside an uplink is foreign inside, and the segment moves away from it', () => {
    const staff = [...sound.subnet.values()].find(({ vlan }) => sound.vlan.get(vlan)!.purpose === 'staff')!;
    const plan = fibre({ network: staff.prefix });
    const [finding] = found(plan, 'subnet-foreign');
    expect(finding?.because).toMatch(/outside the uplink fibre/);
    const moved = done(plan, finding!.remedies[0]!.operation, finding!.remedies[0]!.input);
    expect(found(moved, 'subnet-foreign')).toEqual([]);
    expect(moved.subnet.get(staff.id)!.prefix).not.toEqual(staff.prefix);
  });
  test('a limit on who may come, or switching it off, ends exposure', () => {
    expect(found(forwarded(502, { sources: ['198.51.100.0/24'] }), 'forward-exposes')).toEqual([]);
    const open = forwarded(80);
    expect(found(open, 'forward-exposes')[0]!.severity).toBe('fix');
    const off = put(open, 'forward', [...open.forward.values()].at(-1)!, { enabled: false });
    expect(found(off, 'forward-exposes')).toEqual([]);
  });
});
