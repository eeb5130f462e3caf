import fc from 'fast-check';
import { typedCable } from '../edit';
import {
  type Plan,
  withRecord,
  type AnyRecord,
  type Port,
  type TableName,
  devicesNamed,
  subnetOf,
  vlansOf,
  boxOf,
} from '../plan';
import { isPassive, portsOf } from '../model/wiring';
import { type Damage, done, emptySite, nextSeed, tried } from './plans';

/** Sites with gear for property tests: a cupboard as it should be, then what people do to it. */

export const deviceNamed = (plan: Plan, name: string) => devicesNamed(plan, name)[0]!;
/** What a damage is done to is not there any more. */
export class Gone extends Error {}
export function portNamed(plan: Plan, name: string, number: number): Port {
  const [device] = devicesNamed(plan, name);
  const port = device && portsOf(plan, device.id).find((item) => item.number === number);
  if (!port) throw new Gone(`${name} ${number}`);
  return port;
}
export const vlanFor = (plan: Plan, purpose: string) =>
  vlansOf(plan).find((vlan) => vlan.purpose === purpose)!;

/** A gateway, two managed switches, an access point, a plain switch, and things plugged into them. */
export function soundGear(): Plan {
  let plan = emptySite();
  for (const purpose of ['management', 'cameras', 'staff', 'guest', 'voice', 'parking'])
    plan = done(plan, 'addSegment', { purpose });
  const vlan = (purpose: string) => vlanFor(plan, purpose).id;
  plan = done(plan, 'equipDevice', { device: deviceNamed(plan, 'gw-1').id, model: { shelf: 'gateway-6' } });
  for (const [name, model] of [
    ['sw-a', 'switch-8p'],
    ['sw-b', 'switch-8p'],
    ['ap', 'ap-1'],
    ['hub', 'plain-5'],
  ])
    plan = done(plan, 'addDevice', { name, model: { shelf: model } });
  const host = (name: string, kind: string, purpose: string) => {
    const subnet = subnetOf(plan, vlan(purpose), 4)!.id;
    plan = done(plan, 'addHost', { subnet, name, kind, assignment: 'static' });
  };
  host('cam-1', 'camera', 'cameras');
  host('cam-2', 'camera', 'cameras');
  host('desk', 'computer', 'staff');
  host('phone', 'phone', 'voice');
  host('till', 'computer', 'staff');
  for (const text of [
    'gw-1 2 = sw-a 1',
    'sw-a 2 = ap 1',
    'sw-a 3 = cam-1',
    'sw-a 4 = phone',
    'sw-b 1 = cam-2',
    'sw-b 2 = hub 1',
    'hub 2 = desk',
    'hub 3 = till',
  ])
    plan = done(plan, 'connect', typedCable(plan, text));
  const fibre = { ...typedCable(plan, 'sw-a 9 = sw-b 9'), media: 'multi-mode', length: 40 };
  plan = done(plan, 'connect', fibre);
  const assign = (name: string, numbers: readonly number[], role: string, fields: object = {}) => {
    plan = done(plan, 'assignPorts', {
      ports: numbers.map((n) => portNamed(plan, name, n).id),
      role,
      ...fields,
    });
  };
  const carried = ['management', 'cameras', 'staff', 'guest', 'voice'].map(vlan);
  const trunks = { vlan: null, tagged: carried };
  assign('gw-1', [2], 'trunk', trunks);
  assign('sw-a', [1, 9], 'trunk', trunks);
  assign('sw-b', [9], 'trunk', trunks);
  const wireless = { vlan: vlan('management'), tagged: [vlan('staff'), vlan('guest')] };
  assign('sw-a', [2], 'trunk', wireless);
  assign('ap', [0], 'trunk', wireless);
  assign('ap', [1], 'trunk', wireless);
  assign('sw-a', [3], 'access', { vlan: vlan('cameras') });
  assign('sw-a', [4], 'voice', { vlan: vlan('staff') });
  assign('sw-b', [1], 'access', { vlan: vlan('cameras') });
  assign('sw-b', [2], 'access', { vlan: vlan('staff') });
  for (const name of ['gw-1', 'sw-a', 'sw-b'])
    assign(
      name,
      portsOf(plan, deviceNamed(plan, name).id)
        .filter((port) => port.role === 'undecided')
        .map((port) => port.number),
      'parked',
    );
  plan = done(plan, 'addUplink', {});
  for (const box of [...plan.box.values()])
    plan = done(plan, 'edit', { table: 'box', id: box.id, set: { loginChanged: '2026-01-05' } });
  return plan;
}

const pick = <T>(items: Iterable<T>, n: number): T | undefined => {
  const list = [...items];
  return list.length ? list[n % list.length] : undefined;
};
/** A plan with fields of one record set, whatever the operations say. */
export const put = (plan: Plan, table: TableName, record: AnyRecord, fields: object): Plan =>
  withRecord(plan, table, record.id, { ...record, ...fields } as AnyRecord);

/** Ports of boxes that understand VLANs. */
const bridged = (plan: Plan, which: (port: Port) => boolean = () => true) =>
  [...plan.port.values()].filter(
    (port) =>
      port.number > 0 &&
      boxOf(plan, port.device)?.vlanAware &&
      !isPassive(plan.device.get(port.device)!.kind) &&
      which(port),
  );
const set =
  (which: (port: Port) => boolean, fields: (plan: Plan, port: Port, b: number) => object): Damage =>
  (plan, a, b) => {
    const port = pick(bridged(plan, which), a);
    return port ? put(plan, 'port', port, fields(plan, port, b)) : plan;
  };
const cabled = (plan: Plan, id: string) =>
  [...plan.cable.values()].some((cable) => cable.from === id || cable.to === id);
const isTrunk = (port: Port) => port.role === 'trunk';
const managedAddress = (plan: Plan, n: number) => {
  const device = deviceNamed(plan, ['sw-a', 'sw-b', 'ap'][n % 3]!).id;
  return [...plan.address.values()].find((item) => plan.interface.get(item.interface)!.device === device);
};
const vlanAt = (plan: Plan, n: number) => pick(vlansOf(plan), n)!.id;

export const gearDamages: Readonly<Record<string, Damage>> = {
  dropVlan: set(isTrunk, (_plan, port, b) => ({
    tagged: port.tagged.filter((_, i) => i !== b % Math.max(1, port.tagged.length)),
  })),
  secondWay: (plan, a, b) => {
    const next = tried(plan, 'connect', typedCable(plan, `sw-a ${5 + (a % 4)} = sw-b ${3 + (b % 6)}`));
    if (next === plan) return plan;
    const carried = ['management', 'staff'].flatMap((purpose) => vlanFor(plan, purpose)?.id ?? []);
    const ports = [portNamed(next, 'sw-a', 5 + (a % 4)).id, portNamed(next, 'sw-b', 3 + (b % 6)).id];
    return tried(next, 'assignPorts', { ports, role: 'trunk', vlan: null, tagged: carried });
  },
  native: set(isTrunk, (plan, port, b) => {
    const vlan = vlanAt(plan, b);
    return { untagged: vlan, pvid: vlan, accepts: 'all', tagged: port.tagged.filter((id) => id !== vlan) };
  }),
  pvid: set(
    (port) => port.role === 'access' || port.role === 'trunk',
    (plan, _port, b) => ({ pvid: vlanAt(plan, b), accepts: 'all' }),
  ),
  undecided: (plan, a) => {
    const port = pick(
      bridged(plan, (item) => !cabled(plan, item.id)),
      a,
    );
    return port ? tried(plan, 'assignPorts', { ports: [port.id], role: 'undecided' }) : plan;
  },
  leftOpen: (plan, a, b) => {
    const port = pick(
      bridged(plan, (item) => !cabled(plan, item.id)),
      a,
    );
    return port
      ? tried(plan, 'assignPorts', { ports: [port.id], role: 'access', vlan: vlanAt(plan, b) })
      : plan;
  },
  factory: (plan, a, b) => {
    const box = pick(plan.box.values(), a)!;
    return put(plan, 'box', box, { factory: ['default-vlan', 'every-vlan', 'by-neighbour'][b % 3] });
  },
  everything: set(
    (port) => port.role === 'access',
    (_plan, _port, b) =>
      b % 2
        ? { role: 'trunk', taggedMode: 'all', tagged: [], accepts: 'all' }
        : { role: 'trunk', taggedMode: 'list', tagged: [], untagged: null, pvid: null, accepts: 'tagged' },
  ),
  wrongAccess: set(
    (port) => port.role === 'access',
    (plan, _port, b) => ({ untagged: vlanAt(plan, b), pvid: vlanAt(plan, b) }),
  ),
  apOnAccess: (plan) => {
    const port = portNamed(plan, 'sw-a', 2);
    return tried(plan, 'assignPorts', {
      ports: [port.id],
      role: 'access',
      vlan: vlanFor(plan, 'management').id,
    });
  },
  innerOff: (plan, a, b) => {
    const inner = pick(
      [...plan.port.values()].filter((port) => port.number === 0),
      a,
    )!;
    return tried(plan, 'assignPorts', { ports: [inner.id], role: 'access', vlan: vlanAt(plan, b) });
  },
  setsItself: set(isTrunk, (_plan, _port, b) => ({ setsItself: b % 2 ? 'neighbour' : 'mac' })),
  exposed: (plan, a, b) => {
    const port = pick(
      bridged(plan, (item) => !cabled(plan, item.id)),
      a,
    );
    if (!port) return plan;
    const vlan = vlanFor(plan, b % 3 ? 'management' : 'guest').id;
    return put(
      tried(plan, 'assignPorts', { ports: [port.id], role: 'access', vlan }),
      'port',
      tried(plan, 'assignPorts', { ports: [port.id], role: 'access', vlan }).port.get(port.id)!,
      { exposed: true },
    );
  },
  secondCable: (plan, a, b) => {
    const [one, two] = [
      pick(
        bridged(plan, (port) => cabled(plan, port.id)),
        a,
      ),
      pick(
        bridged(plan, (port) => !cabled(plan, port.id)),
        b,
      ),
    ];
    if (!one || !two) return plan;
    const id = nextSeed();
    return withRecord(plan, 'cable', id, {
      id,
      from: one.id,
      fromSide: 'front',
      to: two.id,
      toSide: 'front',
      media: 'copper',
      length: null,
      label: '',
    });
  },
  noTree: (plan, a, b) => {
    const box = boxOf(plan, deviceNamed(plan, a % 2 ? 'sw-a' : 'sw-b').id)!;
    return gearDamages.secondWay!(put(plan, 'box', box, { spanningTree: 'none' }), a, b);
  },
  names: (plan, a, b) => {
    const port = pick(bridged(plan), a)!;
    const other = pick(
      portsOf(plan, port.device).filter((item) => item.number > 0),
      b,
    )!;
    return put(put(plan, 'port', port, { name: 'ge1' }), 'port', plan.port.get(other.id)!, { name: 'ge1' });
  },
  voice: (plan, _a, b) =>
    put(plan, 'port', portNamed(plan, 'sw-a', 4), {
      voice: vlanAt(plan, b),
      tagged: [vlanAt(plan, b)],
      role: 'voice',
    }),
  routesNothing: (plan) => put(plan, 'box', boxOf(plan, deviceNamed(plan, 'gw-1').id)!, { layer3: false }),
  nothingDecided: (plan, a, b) => {
    const device = deviceNamed(plan, a % 2 ? 'sw-a' : 'sw-b').id;
    const ends = bridged(plan, (port) => port.device === device && port.role === 'access');
    const port = pick(ends, b);
    return port ? tried(plan, 'assignPorts', { ports: [port.id], role: 'undecided' }) : plan;
  },
  mixesNothing: (plan, a) => {
    const box = boxOf(plan, deviceNamed(plan, a % 2 ? 'sw-a' : 'sw-b').id)!;
    const trunks = bridged(plan, isTrunk);
    const native = vlanFor(plan, 'management')?.id;
    if (!native) return plan;
    return trunks.reduce(
      (next, { id }) => tried(next, 'setNative', { port: id, vlan: native }),
      put(plan, 'box', box, { mixesTags: false }),
    );
  },
  oldFirmware: (plan, a) => put(plan, 'box', pick(plan.box.values(), a)!, { supportedUntil: '2020-01-01' }),
  misplaced: (plan, a, b) => {
    const address = managedAddress(plan, a);
    const subnet = subnetOf(plan, vlanFor(plan, b % 2 ? 'guest' : 'cameras').id, 4)!.id;
    return address ? tried(plan, 'moveToSubnet', { address: address.id, subnet }) : plan;
  },
  unaddressed: (plan, a) => {
    const address = managedAddress(plan, a);
    return address ? withRecord(plan, 'address', address.id, null) : plan;
  },
  unheard: (plan, a, b) => {
    const address = managedAddress(plan, a);
    const item = address && plan.interface.get(address.interface)!;
    const inner = item && portsOf(plan, item.device).find(({ number }) => number === 0);
    if (!inner) return plan;
    const bare = withRecord(plan, 'address', address.id, null);
    const vlan = vlanFor(plan, b % 2 ? 'guest' : 'cameras')?.id;
    return tried(bare, 'assignPorts', { ports: [inner.id], role: 'access', vlan });
  },
  bundleHere: (plan, a, b) => {
    const next = gearDamages.secondWay!(plan, a, b);
    const ports = [portNamed(next, 'sw-a', 9).id, portNamed(next, 'sw-a', 5 + (a % 4)).id];
    return tried(next, 'bundlePorts', { ports, lacp: b % 2 === 0 });
  },
  bundleModes: (plan, a, b) => {
    const next = gearDamages.secondWay!(plan, a, b);
    const sides = [
      [portNamed(next, 'sw-a', 9).id, portNamed(next, 'sw-a', 5 + (a % 4)).id],
      [portNamed(next, 'sw-b', 9).id, portNamed(next, 'sw-b', 3 + (b % 6)).id],
    ];
    const joined = tried(next, 'bundleLinks', { sides });
    const lag = pick(joined.lag.values(), a);
    return lag ? put(joined, 'lag', lag, { lacp: false }) : joined;
  },
  bundleOfTwo: (plan, _a, b) => {
    const ports = [portNamed(plan, 'sw-a', 9).id, portNamed(plan, 'sw-a', 1).id];
    return tried(plan, 'bundlePorts', { ports, lacp: b % 2 === 0 });
  },
  toItself: (plan, a, b) => {
    const [one, two] = [5 + (a % 2), 7 + (b % 2)];
    const joined = tried(plan, 'connect', typedCable(plan, `sw-a ${one} = sw-a ${two}`));
    if (joined === plan) return plan;
    const ports = [portNamed(joined, 'sw-a', one).id, portNamed(joined, 'sw-a', two).id];
    const open = tried(joined, 'assignPorts', { ports, role: 'access', vlan: vlanAt(plan, 1) });
    const box = boxOf(open, deviceNamed(open, 'sw-a').id)!;
    return b % 3 ? put(open, 'box', box, { spanningTree: 'none' }) : open;
  },
  hubTwice: (plan, a, b) => {
    const joined = tried(plan, 'connect', typedCable(plan, `sw-b ${3 + (a % 4)} = hub 4`));
    const ports = [portNamed(joined, 'sw-b', 3 + (a % 4)).id];
    const open = tried(joined, 'assignPorts', { ports, role: 'access', vlan: vlanFor(plan, 'staff')?.id });
    const hub = boxOf(open, deviceNamed(open, 'hub')?.id ?? '');
    return hub ? put(open, 'box', hub, { passes: b % 2 ? ['bpdu'] : [] }) : open;
  },
  cutOff: (plan) => {
    const cables = [...plan.cable.values()].filter(({ from, to }) =>
      [from, to].some((id) => id === portNamed(plan, 'sw-b', 9).id),
    );
    return cables.reduce((now, cable) => withRecord(now, 'cable', cable.id, null), plan);
  },
  crowd: (plan) => {
    const subnet = subnetOf(plan, vlanFor(plan, 'cameras').id, 4)!.id;
    let next = plan;
    for (let i = 0; i < 24; i++)
      next = tried(next, 'addHost', { subnet, name: `more-${next.device.size}-${i}`, kind: 'camera' });
    return next;
  },
  login: (plan, a) => put(plan, 'box', pick(plan.box.values(), a)!, { loginChanged: null }),
  weak: (plan, a, b) => {
    const box = pick(plan.box.values(), a)!;
    return put(
      plan,
      'box',
      box,
      b % 3 === 0 ? { vlanLimit: 2 } : b % 3 === 1 ? { mixesTags: false } : { poeBudget: 1 },
    );
  },
  hungry: (plan, a, b) =>
    put(plan, 'port', portNamed(plan, ['cam-1', 'cam-2', 'ap'][a % 3]!, 1), { poeClass: (b % 8) + 1 }),
  unpowered: (plan, a) =>
    put(plan, 'port', a % 3 ? portNamed(plan, 'sw-a', 1 + (a % 3)) : portNamed(plan, 'sw-b', 1), {
      poeClass: null,
    }),
  optics: (plan, a, b) => {
    const [one, two] = [portNamed(plan, 'sw-a', 9), portNamed(plan, 'sw-b', 9)];
    const first = put(plan, 'port', one, { optic: 'short', speed: a % 2 ? 10_000 : one.speed });
    return put(first, 'port', two, { optic: b % 2 ? 'short' : 'long' });
  },
  longCable: (plan, a, b) =>
    put(plan, 'cable', pick(plan.cable.values(), a)!, b % 2 ? { length: 130 } : { media: 'single-mode' }),
  tagsThroughHub: (plan) =>
    tried(plan, 'assignPorts', {
      ports: [portNamed(plan, 'sw-b', 2).id],
      role: 'trunk',
      vlan: vlanFor(plan, 'staff').id,
      tagged: [vlanFor(plan, 'guest').id],
    }),
  mixedHub: (plan) => tried(plan, 'connect', typedCable(plan, 'hub 4 = cam-2')),
};
const names = Object.keys(gearDamages);
const step = fc.tuple(fc.constantFrom(...names), fc.nat(1000), fc.nat(1000));
export const damagedGear = fc.array(step, { minLength: 1, maxLength: 4 });
export const gearWalk = fc.array(step, { minLength: 1, maxLength: 5 });
export const buildGear = (
  damage: readonly (readonly [string, number, number])[],
  from: Plan,
  known: Readonly<Record<string, Damage>> = gearDamages,
): Plan => damage.reduce((plan, [name, a, b]) => known[name]!(plan, a, b), from);
