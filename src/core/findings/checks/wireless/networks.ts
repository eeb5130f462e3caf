import { hasRadius } from '../../../rehearse';
import { accessPoints, isForSix, radiosOf, sends, sentBy, ssidsOf } from '../../../model/wireless';
import { carries, innerPort } from '../../../model/wiring';
import {
  type Device,
  type DeviceKind,
  type Plan,
  type Ssid,
  addressesOn,
  boxOf,
  groupBy,
  interfacesOf,
  securities,
  siteOf,
} from '../../../plan';
import { airCheck, onSsid, setting } from './shared';

/** Networks by themselves: their names, how they are secured, where they lead. */

/** The access points that could send a network: a radio is on in one of its bands, and its segment gets there. */
const couldSend = (plan: Plan, { bands, vlan }: Ssid): Device[] =>
  accessPoints(plan).filter(({ id }) => {
    const inner = innerPort(plan, id);
    return (
      radiosOf(plan, id).some(({ enabled, band }) => enabled && bands.includes(band)) &&
      boxOf(plan, id)?.vlanAware === true &&
      inner !== undefined &&
      vlan !== null &&
      carries(inner, vlan)
    );
  });

const nowhere = airCheck('network-nowhere', function* (plan) {
  for (const ssid of ssidsOf(plan)) {
    const sent = sentBy(plan, ssid).length > 0;
    const able = sent ? [] : couldSend(plan, ssid);
    if (ssid.vlan !== null && (sent || accessPoints(plan).length === 0)) continue;
    yield {
      severity: ssid.vlan === null ? 'stop' : 'fix',
      on: onSsid(ssid),
      what: ssid.vlan === null ? `${ssid.name} leads nowhere` : `${ssid.name} is not on the air`,
      because:
        ssid.vlan === null
          ? 'No segment is chosen for it: whoever joins is in none.'
          : `No access point it is meant for has a radio that is on in its bands (${ssid.bands.join(', ') || 'none chosen'}).`,
      remedies:
        able.length > 0
          ? [
              setting(`Send it at ${able.map(({ name }) => name).join(', ')}`, 'ssid', ssid.id, {
                on: able.map(({ id }) => id),
              }),
            ]
          : [],
    };
  }
});

const oldSecurity = airCheck('network-security', function* (plan) {
  for (const ssid of ssidsOf(plan)) {
    if (ssid.security === 'wpa-mixed')
      yield {
        severity: 'fix',
        on: onSsid(ssid),
        what: `${ssid.name} still lets WPA with TKIP in`,
        because:
          'TKIP is broken and deprecated (IEEE 802.11-2020, 12.1), and mixed modes hold every client back to 54 Mbit/s.',
        remedies: [
          setting('Make it WPA2 and WPA3', 'ssid', ssid.id, { security: 'wpa2-wpa3-personal' }),
          setting('Make it WPA2', 'ssid', ssid.id, { security: 'wpa2-personal' }),
        ],
      };
    if (ssid.security === 'open')
      yield {
        severity: 'note',
        on: onSsid(ssid),
        what: `Everybody nearby reads what goes over ${ssid.name}`,
        because: `It is open${ssid.portal ? '; a portal asks who comes in and encrypts nothing' : ''}. OWE encrypts without a key (RFC 8110), where the clients can.`,
        remedies: [setting('Encrypt it by OWE', 'ssid', ssid.id, { security: 'owe' })],
      };
  }
});

/** Could a network be secured in another way as the site is? */
const suits = (plan: Plan, { bands }: Ssid, security: Ssid['security']): boolean =>
  (!security.endsWith('enterprise') || hasRadius(plan)) && (!bands.includes('6') || isForSix(security));

const sixWithout = airCheck('six-without-wpa3', function* (plan) {
  for (const ssid of ssidsOf(plan)) {
    if (!ssid.bands.includes('6') || isForSix(ssid.security)) continue;
    const others = ssid.bands.filter((band) => band !== '6');
    const three = ssid.security.endsWith('enterprise') ? 'wpa3-enterprise' : 'wpa3-personal';
    yield {
      severity: 'stop',
      on: onSsid(ssid),
      what: `${ssid.name} cannot be sent at 6 GHz`,
      because:
        'At 6 GHz only WPA3 or OWE is allowed, without a way back to WPA2 (IEEE 802.11-2024, 12.12; WPA3 specification).',
      remedies: [
        ...(others.length > 0 ? [setting('Not at 6 GHz', 'ssid', ssid.id, { bands: others })] : []),
        ...(ssid.security === 'open' ? [] : [setting('WPA3 only', 'ssid', ssid.id, { security: three })]),
      ],
    };
  }
});

const twoSecurities = airCheck('one-name-two-securities', function* (plan) {
  for (const [name, list] of groupBy(ssidsOf(plan), (ssid) => ssid.name)) {
    const [first, ...others] = list;
    const other = others.find(({ security }) => security !== first!.security);
    if (!other) continue;
    const strongest = list
      .map(({ security }) => security)
      .filter((security) => list.every((one) => one.security === security || suits(plan, one, security)))
      .sort((a, b) => securities.indexOf(b) - securities.indexOf(a))[0];
    const weaker = list.filter(({ security }) => security !== strongest);
    yield {
      severity: 'fix',
      on: onSsid(first!),
      also: others.map(onSsid),
      what: `${name} is secured in two ways`,
      because: `Once as ${first!.security}, once as ${other.security}: clients that saved one refuse the other, or fall back to the weaker one.`,
      remedies: strongest
        ? [
            {
              label: `Make it ${strongest} everywhere`,
              operation: 'several',
              input: {
                label: `${name}: ${strongest} everywhere`,
                calls: weaker.map(({ id }) => ({
                  operation: 'edit',
                  input: { table: 'ssid', id, set: { security: strongest } },
                })),
              },
            },
          ]
        : [],
    };
  }
});

const guestsTogether = airCheck('guests-not-apart', function* (plan) {
  for (const ssid of ssidsOf(plan)) {
    if (ssid.isolated || ssid.vlan === null || plan.vlan.get(ssid.vlan)!.purpose !== 'guest') continue;
    yield {
      severity: 'fix',
      on: onSsid(ssid),
      what: `Guests on ${ssid.name} reach each other`,
      because: 'Its access points pass frames between strangers’ devices.',
      remedies: [setting('Keep its clients apart', 'ssid', ssid.id, { isolated: true })],
    };
  }
});

/** Lets anybody into a segment that is not for guests. */
const letsAnybodyIn = (plan: Plan, { vlan, security }: Ssid): boolean =>
  vlan !== null && (security === 'open' || security === 'owe') && plan.vlan.get(vlan)!.purpose !== 'guest';
const anybodyInside = airCheck('open-network-inside', function* (plan) {
  for (const ssid of ssidsOf(plan)) {
    if (!letsAnybodyIn(plan, ssid)) continue;
    const vlan = plan.vlan.get(ssid.vlan!)!;
    yield {
      severity: 'stop',
      on: onSsid(ssid),
      also: [{ table: 'vlan', id: vlan.id }],
      what: `${ssid.name} lets anybody into ${vlan.name}`,
      because: `Nobody is asked for a key, and ${vlan.name} is no guest segment.`,
      remedies: [
        setting('Ask for a key (WPA2 and WPA3)', 'ssid', ssid.id, { security: 'wpa2-wpa3-personal' }),
      ].filter(() => !ssid.bands.includes('6')),
    };
  }
});

/** Kinds that nobody sits at. */
const THINGS: ReadonlySet<DeviceKind> = new Set([
  'camera',
  'printer',
  'sensor',
  'controller',
  'safety-controller',
  'operator-panel',
  'drive',
  'recorder',
  'appliance',
]);

const oneKey = airCheck('one-key', function* (plan) {
  for (const ssid of ssidsOf(plan)) {
    if (!ssid.security.endsWith('-personal') && ssid.security !== 'wpa-mixed') continue;
    const on = [...plan.interface.values()].filter(({ joins }) => joins === ssid.id);
    const devices = [...new Set(on.map(({ device }) => device))].map((id) => plan.device.get(id)!);
    const things = devices.filter(({ kind }) => THINGS.has(kind));
    const people = devices.filter(({ kind }) => !THINGS.has(kind));
    if (things.length === 0 || people.length === 0) continue;
    // A network of their own helps those who have their address there, or none.
    const homes = new Set(
      things.flatMap(({ id }) =>
        interfacesOf(plan, id)
          .flatMap((item) => addressesOn(plan, item.id))
          .map(({ subnet }) => plan.subnet.get(subnet)!.vlan),
      ),
    );
    const own = ssidsOf(plan).find(
      ({ id, vlan }) =>
        id !== ssid.id && vlan !== null && vlan !== ssid.vlan && [...homes].every((home) => home === vlan),
    );
    yield {
      severity: 'fix',
      on: onSsid(ssid),
      also: things.map(({ id }) => ({ table: 'device' as const, id })),
      what: `People and things share the key of ${ssid.name}`,
      because: `${things[0]!.name} and ${people[0]!.name} are both on it: a key that leaves with a thing opens the network of people, and changing it means going to every thing.`,
      remedies: own
        ? [
            {
              label: `Move the things to ${own.name}`,
              operation: 'several',
              input: {
                label: `Things to ${own.name}`,
                calls: on
                  .filter(({ device }) => things.some(({ id }) => id === device))
                  .map(({ id }) => ({
                    operation: 'edit',
                    input: { table: 'interface', id, set: { joins: own.id } },
                  })),
              },
            },
          ]
        : [],
    };
  }
});

const keyUnkept = airCheck('key-unkept', function* (plan) {
  for (const ssid of ssidsOf(plan)) {
    if (!ssid.security.includes('personal') && ssid.security !== 'wpa-mixed') continue;
    if (ssid.keySet !== null && ssid.keyKept !== '') continue;
    yield {
      severity: 'note',
      on: onSsid(ssid),
      what: `Nobody knows who keeps the key of ${ssid.name}`,
      because: `${ssid.keySet === null ? 'When it was set is not recorded' : 'Where it is kept is not recorded'}. The key itself is never written down here.`,
    };
  }
});

const noServer = airCheck('enterprise-without-server', function* (plan) {
  if (hasRadius(plan)) return;
  for (const ssid of ssidsOf(plan)) {
    if (!ssid.security.endsWith('enterprise')) continue;
    yield {
      severity: 'stop',
      on: onSsid(ssid),
      what: `Nobody can join ${ssid.name}`,
      because:
        'Every access point asks a RADIUS server, and no device of this site listens on UDP 1812 (RFC 2865). List the service on the device that does.',
    };
  }
});

/** Is nothing wrong with a network that would be wrong with a second one like it? */
const isSound = (plan: Plan, ssid: Ssid): boolean =>
  ssid.vlan !== null && suits(plan, ssid, ssid.security) && !letsAnybodyIn(plan, ssid);

const school = airCheck('names-school', function* (plan) {
  const { wirelessNames } = siteOf(plan);
  if (wirelessNames === 'each') {
    for (const ssid of ssidsOf(plan)) {
      const at = sentBy(plan, ssid);
      if (at.length < 2) continue;
      yield {
        severity: 'note',
        on: onSsid(ssid),
        what: `${ssid.name} does not tell where one is`,
        because: `The site gives each box a name of its own, and ${at.length} access points send this one.`,
        remedies: isSound(plan, ssid)
          ? [{ label: 'A name for each of them', operation: 'nameEachBox', input: { ssid: ssid.id } }]
          : [],
      };
    }
    return;
  }
  const alike = groupBy(
    ssidsOf(plan).filter(({ vlan }) => vlan !== null),
    ({ vlan, security }) => `${vlan} ${security}`,
  );
  for (const list of alike.values()) {
    const [first, ...others] = list;
    const apart = others.filter((other) => !sentBy(plan, other).some(({ id }) => sends(plan, id, first!)));
    if (apart.length === 0 || first!.on.length === 0) continue;
    yield {
      severity: 'note',
      on: onSsid(first!),
      also: apart.map(onSsid),
      what: `Nobody roams between ${first!.name} and ${apart[0]!.name}`,
      because:
        'They lead to the same segment under different names; the site has one name everywhere, so that a client moves by itself.',
      remedies: [
        {
          label: `One name: ${first!.name}`,
          operation: 'joinNames',
          input: { ssid: first!.id, others: apart.map(({ id }) => id) },
        },
      ],
    };
  }
});

export const networkChecks = [
  nowhere,
  oldSecurity,
  sixWithout,
  twoSecurities,
  guestsTogether,
  anybodyInside,
  oneKey,
  keyUnkept,
  noServer,
  school,
];
