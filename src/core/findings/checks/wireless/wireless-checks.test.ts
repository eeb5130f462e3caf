import type { Plan, Radio, Ssid } from '../../../plan';
import { SITE_ID } from '../../../plan';
import { deviceNamed, put } from '../../../testing/gear';
import { done } from '../../../testing/plans';
import { radioOf, soundWireless, ssidNamed, wirelessDamages } from '../../../testing/wireless';
import { FindingsEngine } from '../../engine';
import { wirelessChecks } from './';

const sound = soundWireless();
const radio = (name: string, band: Radio['band'], fields: Partial<Radio>, plan = sound): Plan =>
  put(plan, 'radio', radioOf(plan, name, band), fields);
const ssid = (name: string, fields: Partial<Ssid>, plan = sound): Plan =>
  put(plan, 'ssid', ssidNamed(plan, name), fields);
const site = (fields: object, plan = sound): Plan => put(plan, 'site', plan.site.get(SITE_ID)!, fields);
const joined = (plan: Plan, name: string, kind: string): Plan => {
  const made = done(plan, 'addHost', {
    subnet: [...plan.subnet.values()][2]!.id,
    name,
    kind,
    assignment: 'static',
  });
  const card = [...made.interface.values()].find(({ device }) => device === deviceNamed(made, name).id)!;
  return put(made, 'interface', card, { joins: ssidNamed(made, 'Office').id });
};

const examples: readonly (readonly [string, string, () => Plan, RegExp])[] = [
  ['network-nowhere', 'stop', () => ssid('Office', { vlan: null }), /^No segment is chosen for it/],
  ['network-nowhere', 'fix', () => ssid('Office', { bands: ['6'] }), /in its bands \(6\)\.$/],
  ['network-name-odd', 'note', () => ssid('Office', { name: 'Café' }), /printable ASCII/],
  ['network-name-leaks', 'note', () => ssid('Office', { name: 'at 192.0.2.7' }), /^It holds an address/],
  [
    'network-name-leaks',
    'note',
    () => ssid('Office', { name: 'my 8 + 2 fibre, PoE 65 W' }),
    /the model of sw-a/,
  ],
  ['network-security', 'fix', () => ssid('Office', { security: 'wpa-mixed' }), /^TKIP is broken/],
  ['network-security', 'note', () => ssid('Guests', { security: 'open', portal: true }), /a portal asks who/],
  ['six-without-wpa3', 'stop', () => ssid('Office', { bands: ['5', '6'] }), /only WPA3 or OWE/],
  [
    'one-name-two-securities',
    'fix',
    () => ssid('Guests', { name: 'Office' }),
    /^Once as wpa2-wpa3-personal, once as wpa2-personal:/,
  ],
  ['guests-not-apart', 'fix', () => ssid('Guests', { isolated: false }), /between strangers/],
  ['open-network-inside', 'stop', () => ssid('Office', { security: 'owe' }), /Staff is no guest segment\.$/],
  [
    'one-key',
    'fix',
    () => joined(joined(sound, 'press', 'printer'), 'laptop', 'computer'),
    /^press and laptop are both on it/,
  ],
  ['key-unkept', 'note', () => ssid('Office', { keyKept: '' }), /^Where it is kept is not recorded\./],
  ['network-hidden', 'note', () => ssid('Office', { hidden: true }), /ask for it by name/],
  ['enterprise-without-server', 'stop', () => ssid('Office', { security: 'wpa3-enterprise' }), /RFC 2865/],
  ['names-school', 'note', () => site({ wirelessNames: 'each' }), /2 access points send this one/],
  [
    'names-school',
    'note',
    () => done(sound, 'nameEachBox', { ssid: ssidNamed(sound, 'Office').id }),
    /^They lead to the same segment under different names/,
  ],
  ['country-unknown', 'note', () => site({ country: '' }), /table of 20\d\d-/],
  [
    'channel-not-allowed',
    'stop',
    () => radio('ap', '2.4', { channel: 13 }, site({ country: 'US' })),
    /^Channel 13 with 20 MHz is not allowed in US/,
  ],
  ['channel-not-allowed', 'stop', () => wirelessDamages.outdoors!(sound, 0, 0), /hangs outdoors\.$/],
  [
    'channel-not-allowed',
    'note',
    () => radio('ap', '5', { band: '6', channel: 5, width: '20' }, site({ country: 'US' })),
    /who heard another first/,
  ],
  [
    'power-not-allowed',
    'stop',
    () => radio('ap', '5', { power: 30 }),
    /^30 dBm are set, 23 dBm \(EIRP\) are allowed/,
  ],
  [
    'radar-waits',
    'fix',
    () => radio('ap', '5', { channel: 52 }, ssid('Office', { cannotWait: true })),
    /for a minute .* devices on Office cannot wait/,
  ],
  [
    'radar-waits',
    'fix',
    () => radio('ap', '5', { channel: 120 }, site({ radarChannels: 'avoided' })),
    /ten minutes/,
  ],
  ['wide-at-2.4', 'fix', () => radio('ap', '2.4', { width: '40' }), /there are three that do not overlap/],
  [
    'channel-clash',
    'fix',
    () => radio('ap', '2.4', { channel: 6 }),
    /^Channels 6 and 6 share 20 MHz, and they hear each other at -\d+ dBm \(estimated\)\. On channel 1 it would be disturbed by nobody\.$/,
  ],
  [
    'many-names',
    'fix',
    () => wirelessDamages.many!(wirelessDamages.many!(sound, 2, 0), 2, 0),
    /together \d+\.\d % of the channel’s time/,
  ],
  [
    'slow-beacons',
    'fix',
    () => ssid('Office', { minimumRate: '1' }, radio('ap', '2.4', { interval: 20 })),
    /the lowest rate 1 Mbit\/s, one beacon each every 20 TU\.$/,
  ],
  ['radio-twice', 'note', () => radio('ap', '5', { band: '2.4', channel: 11, width: '20' }), /hears itself/],
  [
    'network-not-carried',
    'stop',
    () => wirelessDamages.notInside!(sound, 0, 0),
    /^Its inside is no member of what (Office|Guests) \(VLAN \d+\) leads to/,
  ],
  [
    'networks-mixed',
    'stop',
    () => wirelessDamages.plain!(sound, 0, 0),
    /^It knows no VLANs, so Office and Guests/,
  ],
  ['access-point-slow', 'fix', () => wirelessDamages.slowPort!(sound, 0, 0), /^sw-a 2 is slower/],
  ['access-point-silent', 'note', () => wirelessDamages.noRadio!(sound, 0, 0), /no channel is planned/],
];

const found = (plan: Plan, check: string) =>
  new FindingsEngine(plan, '2026-05-04').all().filter((finding) => finding.check === check);

describe('checks of the air', () => {
  test.each(examples)('%s, %s', (check, severity, make, because) => {
    expect(found(sound, check)).toEqual([]);
    const [finding] = found(make(), check);
    expect(finding).toMatchObject({ severity, because: expect.stringMatching(because) });
  });

  test('each has an example', () =>
    expect(
      wirelessChecks.map(({ id }) => id).filter((id) => !examples.some(([check]) => check === id)),
    ).toEqual([]));
});
