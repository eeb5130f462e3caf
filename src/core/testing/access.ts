import fc from 'fast-check';
import { typedCable } from '../edit';
import {
  type Access,
  type Plan,
  type RadiusServer,
  type Telephony,
  type VoiceHop,
  addressesOn,
  hardeningItems,
  interfacesOf,
  subnetOf,
  withRecord,
} from '../plan';
import { deviceNamed, portNamed, put, vlanFor } from './gear';
import { cabled, guardDamages, held, pick, soundGuards, switches } from './guards';
import { type Damage, done, tried } from './plans';

/** Sites with ports that ask who is there, as they should, then what goes wrong. */

/** With a server in the management segment, and a way in at the ports of two devices and a telephone. */
export function soundAccess(): Plan {
  let plan = soundGuards();
  const management = vlanFor(plan, 'management').id;
  plan = done(plan, 'addHost', {
    subnet: subnetOf(plan, management, 4)!.id,
    name: 'auth',
    kind: 'server',
    assignment: 'static',
  });
  plan = done(plan, 'connect', typedCable(plan, 'sw-b 4 = auth'));
  plan = done(plan, 'assignPorts', {
    ports: [portNamed(plan, 'sw-b', 4).id],
    role: 'access',
    vlan: management,
  });
  for (const box of [...plan.box.values()])
    if (switches(plan).includes(box.device)) plan = put(plan, 'box', box, { dot1x: true });
  const [card] = interfacesOf(plan, deviceNamed(plan, 'auth').id);
  plan = done(plan, 'addRadius', { address: addressesOn(plan, card!.id)[0]!.id });
  plan = done(plan, 'addAccess', { name: 'desks' });
  const [access] = [...plan.access.values()];
  plan = put(plan, 'access', access!, {
    mode: 'closed',
    guest: vlanFor(plan, 'guest').id,
    failed: vlanFor(plan, 'guest').id,
    critical: vlanFor(plan, 'staff').id,
  });
  const asked = [
    portNamed(plan, 'sw-b', 3),
    portNamed(plan, 'sw-a', 3),
    portNamed(plan, 'sw-a', 4),
    portNamed(plan, 'sw-a', 5),
  ];
  plan = done(plan, 'setPortGuards', { ports: asked.map(({ id }) => id), set: { access: access!.id } });
  const known = (names: readonly string[], by: string) => {
    plan = done(plan, 'setIdentity', { devices: names.map((name) => deviceNamed(plan, name).id), by });
  };
  known(['leased', 'visitor'], 'dot1x');
  for (const [name, mac] of [
    ['cam-1', '00:00:5E:00:53:78'],
    ['phone', '00:00:5E:00:53:79'],
  ] as const)
    plan = put(plan, 'interface', interfacesOf(plan, deviceNamed(plan, name).id)[0]!, { mac });
  known(['cam-1', 'phone'], 'mac');
  return plan;
}

const first = <T>(table: { values(): Iterable<T> }): T => [...table.values()][0]!;
export const withAccess = (plan: Plan, fields: Partial<Access>): Plan =>
  put(plan, 'access', first(plan.access), fields);
export const withServer = (plan: Plan, fields: Partial<RadiusServer>): Plan =>
  put(plan, 'radius', first(plan.radius), fields);

/** With two networks at the access point. */
export function onAir(plan = soundAccess()): Plan {
  const made = done(plan, 'addRadios', { devices: [deviceNamed(plan, 'ap').id], bands: ['5'] });
  const office = done(made, 'addSsid', { name: 'Office', vlan: vlanFor(plan, 'staff').id });
  return done(office, 'addSsid', { name: 'Guests', vlan: vlanFor(plan, 'guest').id });
}

/** With what the telephones of the voice segment are told, and what boxes do for them. */
export function withTelephones(fields: Partial<Telephony> = {}, plan = soundAccess()): Plan {
  const vlan = vlanFor(plan, 'voice').id;
  const known = plan.telephony.size > 0 ? plan : done(plan, 'addTelephony', { vlan });
  return put(known, 'telephony', first(known.telephony), fields);
}
export const hopped = (plan: Plan, name: string, set: Partial<VoiceHop>): Plan =>
  done(plan, 'setVoiceHop', { devices: [deviceNamed(plan, name).id], set });

const purposes = ['guest', 'staff', 'cameras', 'voice', 'parking', 'management'] as const;
const outcome = (plan: Plan, n: number): string | null =>
  n % 7 === 6 ? null : vlanFor(plan, purposes[n % 7]!).id;
const whereAny =
  (damage: Damage): Damage =>
  (plan, a, b) =>
    plan.access.size > 0 && plan.radius.size > 0 ? damage(plan, a, b) : plan;

export const listens = (plan: Plan, protocol: 'udp' | 'tcp', port: number): Plan =>
  tried(plan, 'addListener', { device: deviceNamed(plan, 'auth').id, protocol, port, name: 'RADIUS' });

const own: Readonly<Record<string, Damage>> = {
  mode: (plan, a) => withAccess(plan, { mode: (['watch', 'limited', 'closed'] as const)[a % 3]! }),
  asks: (plan, a, b) =>
    withAccess(plan, {
      methods: (['dot1x', 'dot1x-mac', 'mac-dot1x', 'mac'] as const)[a % 4]!,
      hosts: (['one', 'all', 'each', 'phone-and-one'] as const)[b % 4]!,
    }),
  waits: (plan, a, b) => withAccess(plan, { period: 5 + a, tries: 1 + (b % 5) }),
  outcomes: (plan, a, b) =>
    withAccess(plan, { guest: outcome(plan, a), failed: outcome(plan, b), critical: outcome(plan, a + b) }),
  group: (plan, a) => withAccess(plan, { group: a % 2 ? 'doors' : '' }),
  oldPort: (plan, a) => withServer(listens(plan, 'udp', 1812), { port: a % 3 ? 1645 : 1812 }),
  listens: (plan, a) => listens(plan, a % 3 ? 'udp' : 'tcp', [1812, 1813, 1645, 22][a % 4]!),
  asksBox: (plan, a) => {
    const port = pick(cabled(plan), a);
    return port ? held(plan, port.id, { access: first(plan.access).id }) : plan;
  },
  asksServer: (plan) => held(plan, portNamed(plan, 'sw-b', 4).id, { access: first(plan.access).id }),
  asksNobody: (plan, a) => {
    const guard = pick(plan.portGuard.values(), a);
    return guard ? held(plan, guard.port, { access: null }) : plan;
  },
  known: (plan, a, b) => {
    const names = ['leased', 'visitor', 'cam-1', 'phone'];
    return tried(plan, 'setIdentity', {
      devices: [deviceNamed(plan, names[a % 4]!).id],
      by: (['dot1x', 'mac', 'neither', 'unknown'] as const)[b % 4]!,
    });
  },
  hardened: (plan, a, b) =>
    tried(plan, 'tickHardening', {
      devices: [switches(plan)[a % 2]!],
      items: b % 3 ? [hardeningItems[b % hardeningItems.length]!] : hardeningItems,
      done: '2026-05-01',
      by: 'Ada',
    }),
  outOfDate: (plan, a) => {
    const box = [...plan.box.values()].find(({ device }) => device === switches(plan)[a % 2]);
    return box ? put(plan, 'box', box, { supportedUntil: '2026-01-31' }) : plan;
  },
  told: (plan, a, b) =>
    withTelephones(
      {
        boot: ['auth', 'http://boot.example.net/', 'auth', '10.20.30.10', 'cellar:x', ''][a % 6]!,
        bootOption: b % 2 ? '150' : '66',
        registrar: ['auth', 'auth:5070', 'sip.example.net', 'sip:', ''][b % 5]!,
      },
      plan,
    ),
  hop: (plan, a, b) =>
    tried(
      plan.telephony.size > 0 ? plan : withTelephones({ registrar: 'sip.example.net' }, plan),
      'setVoiceHop',
      {
        devices: [[...switches(plan), deviceNamed(plan, 'gw-1').id][a % 3]!],
        set: {
          announces: (['unknown', 'no', 'yes'] as const)[b % 3]!,
          marks: (['kept', 'cleared', 'unknown'] as const)[a % 3]!,
          queue: (['yes', 'no', 'no'] as const)[(a + b) % 3]!,
        },
      },
    ),
  denied: (plan) =>
    tried(withTelephones({ boot: 'auth', registrar: 'auth' }, plan), 'addRule', {
      action: 'deny',
      from: [{ vlan: vlanFor(plan, 'voice').id }],
      to: [{ device: deviceNamed(plan, 'auth').id }],
    }),
  poolless: (plan, a) => {
    if (a % 3) return plan;
    const subnet = subnetOf(plan, vlanFor(plan, 'voice').id, 4);
    const [pool] = subnet ? [...plan.pool.group(subnet.id).keys()] : [];
    return pool === undefined ? plan : tried(plan, 'removeRange', { table: 'pool', id: pool });
  },
  noMac: (plan, a) => {
    const [card] = interfacesOf(plan, deviceNamed(plan, a % 2 ? 'cam-1' : 'phone').id);
    return put(plan, 'interface', card!, { mac: null });
  },
  dot1x: (plan, a) => {
    const box = [...plan.box.values()].find(({ device }) => device === switches(plan)[a % 2]);
    return box ? put(plan, 'box', box, { dot1x: false }) : plan;
  },
  gone: (plan, a) => (a % 4 ? plan : withRecord(plan, 'radius', first(plan.radius).id, null)),
  serverOff: (plan) => put(plan, 'port', portNamed(plan, 'sw-b', 4), { enabled: false }),
  change: (plan, a) => withServer(plan, { change: a % 3 ? 3799 : null, accounting: a % 2 ? 1813 : 1646 }),
};
export const accessDamages: Readonly<Record<string, Damage>> = {
  ...guardDamages,
  ...Object.fromEntries(Object.entries(own).map(([name, damage]) => [name, whereAny(damage)])),
};

const names = Object.keys(own);
const others = ['exposed', 'unplugged', 'host', 'secondWay', 'unable', 'limited'];
const step = fc.tuple(fc.constantFrom(...names, ...others, 'asks'), fc.nat(60), fc.nat(60));
export const damagedAccess = fc.array(step, { minLength: 1, maxLength: 5 });
export const buildAccess = (path: readonly (readonly [string, number, number])[], sound: Plan): Plan =>
  path.reduce((plan, [name, a, b]) => accessDamages[name]!(plan, a, b), sound);
