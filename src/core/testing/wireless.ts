import fc from 'fast-check';
import { typedCable } from '../edit';
import { type Plan, type Radio, type Ssid, SITE_ID, interfacesOf, siteOf } from '../plan';
import { radiosOf, ssidsOf } from '../model/wireless';
import { buildGear, deviceNamed, portNamed, put, soundGear, vlanFor } from './gear';
import { type Damage, done, tried } from './plans';

/** Sites with something on the air: two access points with networks and channels as they should be, then what goes wrong. */

export const ssidNamed = (plan: Plan, name: string): Ssid =>
  ssidsOf(plan).find((ssid) => ssid.name === name)!;
export const radioOf = (plan: Plan, name: string, band: Radio['band']): Radio =>
  radiosOf(plan, deviceNamed(plan, name).id).find((radio) => radio.band === band)!;

export function soundWireless(): Plan {
  let plan = soundGear();
  plan = done(plan, 'addDevice', { name: 'ap-2', model: { shelf: 'ap-1' } });
  plan = done(plan, 'connect', typedCable(plan, 'sw-b 3 = ap-2 1'));
  const vlan = (purpose: string) => vlanFor(plan, purpose).id;
  const carried = { vlan: vlan('management'), tagged: [vlan('staff'), vlan('guest')] };
  for (const [name, number] of [
    ['sw-b', 3],
    ['ap-2', 0],
    ['ap-2', 1],
  ] as const)
    plan = done(plan, 'assignPorts', {
      ports: [portNamed(plan, name, number).id],
      role: 'trunk',
      ...carried,
    });
  const box = [...plan.box.values()].find(({ device }) => device === deviceNamed(plan, 'ap-2').id)!;
  plan = put(plan, 'box', box, { loginChanged: '2026-01-05' });
  plan = put(plan, 'site', siteOf(plan), { country: 'DE' });
  const devices = ['ap', 'ap-2'].map((name) => deviceNamed(plan, name).id);
  plan = done(plan, 'addRadios', { devices, bands: ['2.4', '5'] });
  plan = done(plan, 'addSsid', { name: 'Office', vlan: vlan('staff') });
  plan = done(plan, 'addSsid', { name: 'Guests', vlan: vlan('guest'), security: 'wpa2-personal' });
  for (const ssid of ssidsOf(plan))
    plan = put(plan, 'ssid', ssid, { keySet: '2026-01-05', keyKept: 'safe in the office' });
  for (const [name, two, five] of [
    ['ap', 1, 36],
    ['ap-2', 6, 44],
  ] as const) {
    plan = put(plan, 'radio', radioOf(plan, name, '2.4'), { channel: two });
    plan = put(plan, 'radio', radioOf(plan, name, '5'), { channel: five });
  }
  devices.forEach((device, i) => {
    plan = done(plan, 'setSpot', { device, floor: 0, x: 400 + 1600 * i, y: 500 });
  });
  return plan;
}

const pick = <T>(items: Iterable<T>, n: number): T | undefined => {
  const list = [...items];
  return list.length ? list[n % list.length] : undefined;
};
const setRadio =
  (fields: (radio: Radio, b: number, plan: Plan) => Partial<Radio>): Damage =>
  (plan, a, b) => {
    const radio = pick(plan.radio.values(), a);
    return radio ? put(plan, 'radio', radio, fields(radio, b, plan)) : plan;
  };
const setSsid =
  (fields: (ssid: Ssid, b: number, plan: Plan) => Partial<Ssid>): Damage =>
  (plan, a, b) => {
    const ssid = pick(ssidsOf(plan), a);
    return ssid ? put(plan, 'ssid', ssid, fields(ssid, b, plan)) : plan;
  };
const names = [
  'Café “Süd”',
  '$HOME',
  'Office 192.0.2.7',
  'access point, 1 port',
  'Staff',
  'Office',
  'Guests',
];
export const wirelessDamages: Readonly<Record<string, Damage>> = {
  sameChannel: (plan, a, b) => {
    const radio = pick(plan.radio.values(), a);
    const other = [...plan.radio.values()].find(
      (one) => one.id !== radio?.id && one.band === radio?.band && one.channel !== null,
    );
    return radio && other
      ? put(plan, 'radio', radio, { channel: other.channel, width: b % 4 ? radio.width : other.width })
      : plan;
  },
  channel: setRadio((radio, b) => ({
    channel: radio.band === '2.4' ? [1, 3, 6, 11, 13][b % 5]! : [36, 52, 120, 149, 165, 100][b % 6]!,
  })),
  width: setRadio((radio, b) => ({
    width: radio.band === '2.4' ? '40' : (['80', '160', '20'] as const)[b % 3]!,
  })),
  power: setRadio((_radio, b) => ({ power: [36, 24, 14][b % 3]!, channel: _radio.channel ?? 1 })),
  off: setRadio((_radio, b) => ({ enabled: b % 3 === 0 })),
  wrongBand: setRadio((_radio, b) => ({ band: (['2.4', '5', '6'] as const)[b % 3]! })),
  beacons: (plan, a, b) => {
    const radio = pick(
      [...plan.radio.values()].filter(({ band }) => band === '2.4'),
      a,
    );
    const ssid = pick(ssidsOf(plan), b);
    if (!radio || !ssid) return plan;
    const often = put(plan, 'radio', radio, { interval: [50, 20, 100][b % 3]! });
    return put(often, 'ssid', ssid, { minimumRate: '1' });
  },
  country: (plan, _a, b) =>
    put(plan, 'site', plan.site.get(SITE_ID)!, {
      country: ['', 'US', 'JP', 'DE'][b % 4]!,
      radarChannels: b % 5 === 0 ? 'avoided' : 'used',
    }),
  school: (plan, _a, b) =>
    put(plan, 'site', plan.site.get(SITE_ID)!, { wirelessNames: b % 2 ? 'each' : 'one' }),
  outdoors: (plan, a) => {
    const spot = pick(plan.spot.values(), a);
    return spot ? put(plan, 'spot', spot, { outdoors: true }) : plan;
  },
  nearer: (plan, a, b) => {
    const spot = pick(plan.spot.values(), a);
    return spot ? put(plan, 'spot', spot, { x: b * 100, floor: b % 5 === 0 ? 1 : 0 }) : plan;
  },
  level: (plan, a, b) =>
    tried(plan, 'noteLevels', { text: `ap ap-2 ${a % 2 ? '5' : '2.4'} ${-(50 + (b % 45))}` }),
  foreign: (plan, a, b) =>
    tried(plan, 'noteScan', {
      text: `name;channel;level\nNeighbour;${[1, 6, 11, 36, 44, 100][a % 6]};${-(45 + (b % 40))}`,
    }),
  radar: (plan, a, b) => {
    const radios = [...plan.radio.values()].filter(({ band }) => band === '5');
    const radio = pick(radios, a);
    const avoided = put(plan, 'site', plan.site.get(SITE_ID)!, { country: 'DE', radarChannels: 'avoided' });
    return radio ? put(avoided, 'radio', radio, { channel: [52, 60, 104, 120][b % 4]! }) : plan;
  },
  parted: (plan, a) => {
    const ssid = pick(ssidsOf(plan), a);
    return ssid ? tried(plan, 'nameEachBox', { ssid: ssid.id }) : plan;
  },
  wait: setSsid(() => ({ cannotWait: true })),
  name: setSsid((_ssid, b) => ({ name: names[b % names.length]! })),
  security: setSsid((_ssid, b) => ({
    security: (['wpa-mixed', 'open', 'owe', 'wpa2-enterprise', 'wpa3-personal'] as const)[b % 5]!,
  })),
  bands: setSsid((_ssid, b) => ({
    bands: ([['2.4'], ['5', '6'], ['6'], ['2.4', '5', '6'], []] as const)[b % 5]!.slice(),
  })),
  together: setSsid((_ssid, b) => ({ isolated: false, hidden: b % 2 === 0 })),
  slow: setSsid((_ssid, b) => ({ minimumRate: (['1', '2', '6'] as const)[b % 3]! })),
  nowhere: setSsid((_ssid, b, plan) => ({
    vlan: b % 3 === 0 ? null : (pick(plan.vlan.values(), b)?.id ?? null),
  })),
  on: setSsid((_ssid, b, plan) => ({
    on: [deviceNamed(plan, ['ap', 'ap-2', 'desk'][b % 3]!)].filter(Boolean).map(({ id }) => id),
  })),
  unkept: setSsid(() => ({ keySet: null })),
  second: (plan, a, b) => {
    const first = pick(ssidsOf(plan), a);
    if (!first) return plan;
    const name = b % 2 ? first.name : `${first.name} ${b % 7}`.slice(0, 32);
    const made = done(plan, 'addSsid', { name: `x${plan.ssid.size}`, vlan: first.vlan });
    const added = ssidsOf(made).at(-1)!;
    const ap = deviceNamed(plan, a % 2 ? 'ap' : 'ap-2');
    const parted = put(made, 'ssid', added, {
      name,
      on: ap ? [ap.id] : [],
      security: b % 3 ? first.security : 'wpa2-enterprise',
      keySet: '2026-01-05',
      keyKept: 'safe',
    });
    const other = deviceNamed(plan, a % 2 ? 'ap-2' : 'ap');
    return b % 5 === 0 && other
      ? put(parted, 'ssid', parted.ssid.get(first.id)!, { on: [other.id] })
      : parted;
  },
  many: (plan, a) => {
    let made = plan;
    for (let i = 0; i < 2 + (a % 3); i++) {
      const purpose = ['staff', 'guest', 'voice'][i % 3]!;
      made = tried(made, 'addSsid', {
        name: `more ${made.ssid.size}`,
        vlan: vlanFor(made, purpose)?.id ?? null,
      });
    }
    return made;
  },
  notInside: (plan, a, b) => {
    const port = portNamed(plan, ['ap', 'ap-2'][a % 2]!, 0);
    return put(plan, 'port', port, { tagged: port.tagged.filter((_, i) => i !== b % 2) });
  },
  plain: (plan, a) => {
    const device = deviceNamed(plan, ['ap', 'ap-2'][a % 2]!);
    const box = device && [...plan.box.values()].find((one) => one.device === device.id);
    return box ? put(plan, 'box', box, { vlanAware: false, vlanLimit: null }) : plan;
  },
  slowPort: (plan, a) => {
    const [name, number] = (
      [
        ['sw-a', 2],
        ['sw-b', 3],
        ['ap', 1],
      ] as const
    )[a % 3]!;
    return put(plan, 'port', portNamed(plan, name, number), { speed: 100 });
  },
  noRadio: (plan, a) => {
    const radio = pick(plan.radio.values(), a);
    if (!radio) return plan;
    const ids = radiosOf(plan, radio.device).map(({ id }) => id);
    return done(plan, 'removeFromAir', { table: 'radio', ids });
  },
  things: (plan, a, b) => {
    const ssid = pick(ssidsOf(plan), a);
    const subnet = [...plan.subnet.values()].find(
      ({ vlan }) => vlan === (b % 2 ? ssid?.vlan : vlanFor(plan, 'staff').id),
    );
    if (!ssid || !subnet) return plan;
    const host = (name: string, kind: string, at: Plan): Plan => {
      const made = tried(at, 'addHost', { subnet: subnet.id, name, kind, assignment: 'static' });
      const [card] = made === at ? [] : interfacesOf(made, deviceNamed(made, name).id);
      return card ? put(made, 'interface', card, { joins: ssid.id }) : at;
    };
    return host(`pc-${b}`, 'computer', host(`printer-${b}`, 'printer', plan));
  },
  thingsElsewhere: (plan, a, b) => {
    const [first, second] = ssidsOf(plan);
    const subnet = [...plan.subnet.values()].find(({ vlan }) => vlan === second?.vlan);
    if (!first || !subnet || b % 2) return plan;
    let made = tried(plan, 'addHost', {
      subnet: subnet.id,
      name: `cam-${a}-w`,
      kind: 'camera',
      assignment: 'static',
    });
    for (const name of [`cam-${a}-w`, 'desk']) {
      const [card] = deviceNamed(made, name) ? interfacesOf(made, deviceNamed(made, name).id) : [];
      if (card) made = put(made, 'interface', card, { joins: first.id });
    }
    return made;
  },
};

const step = fc.tuple(fc.constantFrom(...Object.keys(wirelessDamages)), fc.nat(60), fc.nat(60));
export const damagedWireless = fc.array(step, { minLength: 1, maxLength: 5 });
export const buildWireless = (damage: readonly (readonly [string, number, number])[], from: Plan): Plan =>
  buildGear(damage, from, wirelessDamages);
