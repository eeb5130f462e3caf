import fc from 'fast-check';
import { typedCable } from '../edit';
import { parseAddress } from '../address';
import { type Plan, type Port, addressesOn, gatewaysOf, interfacesOf, subnetOf, withRecord } from '../plan';
import { type PortGuards, noVlanGuards, factoryPortGuards, portGuardOf, vlanGuardOf } from '../model/guards';
import { deviceNamed, portNamed, put, soundGear, vlanFor } from './gear';
import { type Damage, done, tried } from './plans';

/** Sites with guards: two switches that watch what is said, as they should, then what goes wrong. */

export function soundGuards(): Plan {
  let plan = soundGear();
  const subnet = (purpose: string) => subnetOf(plan, vlanFor(plan, purpose).id, 4)!.id;
  plan = done(plan, 'addHost', {
    subnet: subnet('staff'),
    name: 'leased',
    kind: 'computer',
    assignment: 'reservation',
    mac: '00:00:5E:00:53:77',
  });
  plan = done(plan, 'addHost', {
    subnet: subnet('staff'),
    name: 'visitor',
    kind: 'computer',
    assignment: 'static',
  });
  for (const [text, name, number] of [
    ['sw-b 3 = leased', 'sw-b', 3],
    ['sw-a 5 = visitor', 'sw-a', 5],
  ] as const) {
    plan = done(plan, 'connect', typedCable(plan, text));
    plan = done(plan, 'assignPorts', {
      ports: [portNamed(plan, name, number).id],
      role: 'access',
      vlan: vlanFor(plan, 'staff').id,
    });
  }
  // It takes whatever it is leased.
  const [card] = interfacesOf(plan, deviceNamed(plan, 'visitor').id);
  for (const { id } of addressesOn(plan, card!.id)) plan = withRecord(plan, 'address', id, null);
  return done(plan, 'switchOnGuards', {
    devices: switches(plan),
    vlans: ['cameras', 'staff'].map((purpose) => vlanFor(plan, purpose).id),
    set: { snooping: true, inspection: true },
  });
}
/** An id of what is put in by hand. */
const idOf = (...parts: readonly string[]): string => parts.join('').replaceAll(/[^a-z0-9]/g, '');

/** The guards of a segment at a box, whatever operations say. */
export function guarded(plan: Plan, name: string, purpose: string, fields: object): Plan {
  const [device, vlan] = [deviceNamed(plan, name).id, vlanFor(plan, purpose).id];
  const known = vlanGuardOf(plan, device, vlan) ?? {
    id: idOf('g', name, purpose),
    device,
    vlan,
    ...noVlanGuards,
  };
  return withRecord(plan, 'vlanGuard', known.id, { ...known, ...fields });
}
/** Without what was entered at boxes by hand, or at one of them. */
export const unbound = (plan: Plan, name?: string): Plan =>
  [...plan.binding.values()]
    .filter(({ device }) => name === undefined || plan.device.get(device)!.name === name)
    .reduce((next, { id }) => withRecord(next, 'binding', id, null), plan);

/** IPv6 in a segment, announced by its router; leased by it as well, or not. */
export function withSix(plan: Plan, purpose: string, leased: boolean): Plan {
  const vlan = vlanFor(plan, purpose).id;
  const net = `fd00:53:${purpose === 'staff' ? 11 : 10}`;
  const made = subnetOf(plan, vlan, 6) ? plan : tried(plan, 'addSubnet', { vlan, prefix: `${net}::/64` });
  const subnet = subnetOf(made, vlan, 6);
  const gateway = subnet && gatewaysOf(made, subnet.id)[0];
  if (!leased || !gateway || made.pool.group(subnet.id).size > 0) return made;
  const pool = {
    id: idOf('pool6', purpose),
    subnet: subnet.id,
    start: parseAddress(`${net}::100`)!,
    end: parseAddress(`${net}::1ff`)!,
    lease: 86_400,
    servedBy: [gateway.interface],
  };
  return withRecord(made, 'pool', pool.id, pool);
}

/** A second cable between the switches, of which a tree lets one pass. */
export function withReserve(plan: Plan): Plan {
  const made = done(plan, 'connect', typedCable(plan, 'sw-a 6 = sw-b 5'));
  const tagged = ['management', 'cameras', 'staff', 'guest', 'voice'].map((one) => vlanFor(made, one).id);
  const ports = [portNamed(made, 'sw-a', 6).id, portNamed(made, 'sw-b', 5).id];
  return done(made, 'assignPorts', { ports, role: 'trunk', vlan: null, tagged });
}
export const switches = (plan: Plan): string[] => ['sw-a', 'sw-b'].map((name) => deviceNamed(plan, name).id);

export const pick = <T>(items: Iterable<T>, n: number): T | undefined => {
  const list = [...items];
  return list.length ? list[n % list.length] : undefined;
};
const ports = (plan: Plan): Port[] =>
  switches(plan).flatMap((id) => [...plan.port.group(id).values()].filter(({ number }) => number > 0));
export const cabled = (plan: Plan): Port[] => {
  const ends = new Set([...plan.cable.values()].flatMap(({ from, to }) => [from, to]));
  return ports(plan).filter(({ id }) => ends.has(id));
};
/** The guards of a port, whatever operations say. */
export const held = (plan: Plan, port: string, fields: Partial<PortGuards>): Plan => {
  const known = portGuardOf(plan, port) ?? { id: `held${port}`, port, ...factoryPortGuards };
  return withRecord(plan, 'portGuard', known.id, { ...known, ...fields });
};
const setPort =
  (fields: (b: number) => Partial<PortGuards>, of: (plan: Plan) => Port[] = cabled): Damage =>
  (plan, a, b) => {
    const port = pick(of(plan), a);
    return port ? held(plan, port.id, fields(b)) : plan;
  };
const setVlan =
  (fields: (b: number) => object): Damage =>
  (plan, a, b) => {
    const purpose = ['staff', 'cameras', 'guest', 'voice'][b % 4]!;
    return guarded(plan, a % 2 ? 'sw-b' : 'sw-a', purpose, fields(b));
  };

export const guardDamages: Readonly<Record<string, Damage>> = {
  untrusted: setPort((b) => ({ trustsDhcp: false, trustsArp: b % 2 === 0 })),
  trusted: setPort((b) => ({ trustsDhcp: b % 3 > 0, trustsArp: b % 2 > 0, trustsRouters: b % 5 === 0 })),
  limited: setPort((b) => ({ macLimit: 1 + (b % 2), macAction: (['drop', 'tell', 'shut'] as const)[b % 3] })),
  rated: setPort((b) => ({ dhcpRate: 1 + (b % 4) })),
  snooping: setVlan((b) => ({ snooping: b % 3 > 0 })),
  inspection: setVlan((b) => ({ inspection: b % 4 > 0 })),
  sourceGuard: setVlan(() => ({ snooping: true, sourceGuard: true })),
  raGuard: setVlan((b) => ({ raGuard: true, dhcp6Guard: b % 2 > 0 })),
  option82: (plan, a) => setVlan(() => ({ snooping: true, option82: true }))(plan, a, 0),
  blind: (plan, a) => setVlan(() => ({ snooping: false, inspection: true }))(plan, a % 3, 0),
  phone: setPort(
    (b) => ({ macLimit: 1, macAction: b % 2 ? 'drop' : 'shut' }),
    (plan) => [portNamed(plan, 'sw-a', 4)],
  ),
  unbound: (plan, a) => {
    const binding = pick(plan.binding.values(), a);
    return binding ? withRecord(plan, 'binding', binding.id, null) : plan;
  },
  unguarded: (plan, a) => {
    const guard = pick(plan.vlanGuard.values(), a);
    return guard ? withRecord(plan, 'vlanGuard', guard.id, null) : plan;
  },
  unable: (plan, a) => {
    const box = [...plan.box.values()].find(({ device }) => device === switches(plan)[a % 2]);
    return box ? put(plan, 'box', box, { snooping: false }) : plan;
  },
  host: (plan, a, b) => {
    const vlan = vlanFor(plan, b % 2 ? 'staff' : 'cameras');
    const name = `new-${a}`;
    if (deviceNamed(plan, name)) return plan;
    const made = tried(plan, 'addHost', {
      subnet: subnetOf(plan, vlan.id, 4)!.id,
      name,
      kind: b % 2 ? 'computer' : 'camera',
      assignment: b % 3 ? 'static' : 'reservation',
      mac: `02:00:00:00:00:${(a % 256).toString(16).padStart(2, '0')}`,
    });
    if (made === plan) return plan;
    const at = `sw-${a % 2 ? 'a' : 'b'} ${6 + (b % 3)}`;
    const plugged = tried(made, 'connect', typedCable(made, `${at} = ${name}`));
    const port = portNamed(plugged, at.slice(0, 4), Number(at.slice(5)));
    return plugged === made
      ? plan
      : tried(plugged, 'assignPorts', { ports: [port.id], role: 'access', vlan: vlan.id });
  },
  secondWay: (plan, a) => {
    const text = `sw-b ${5 + (a % 4)} = gw-1 3`;
    const made = tried(plan, 'connect', typedCable(plan, text));
    if (made === plan) return plan;
    const ends = text.split(' = ').map((end) => {
      const [name, number] = end.split(' ') as [string, string];
      return portNamed(made, name, Number(number)).id;
    });
    const tagged = ['management', 'cameras', 'staff', 'guest', 'voice'].map((one) => vlanFor(made, one).id);
    return tried(made, 'assignPorts', { ports: ends, role: 'trunk', vlan: null, tagged });
  },
  server: (plan, a) => {
    const device = deviceNamed(plan, a % 2 ? 'desk' : 'till');
    const [card] = device ? interfacesOf(plan, device.id) : [];
    const subnet = subnetOf(plan, vlanFor(plan, 'staff').id, 4)!.id;
    const pool = [...plan.pool.group(subnet).values()][0];
    return card && pool ? put(plan, 'pool', pool, { servedBy: [...pool.servedBy, card.id] }) : plan;
  },
  relay: (plan, a) => {
    const gateway = pick(
      [...plan.address.values()].filter(({ gateway }) => gateway),
      a,
    );
    const server = interfacesOf(plan, deviceNamed(plan, 'desk')?.id ?? '')[0];
    return gateway && server
      ? tried(plan, 'setRelay', { interface: gateway.interface, servers: [server.id] })
      : plan;
  },
  six: (plan, a, b) => withSix(plan, b % 2 ? 'staff' : 'cameras', a % 2 > 0),
  checkedSix: (plan, a, b) => {
    const purpose = b % 2 ? 'staff' : 'cameras';
    const fields = { sourceGuard6: true, dhcp6Guard: b % 4 > 2 };
    return guarded(withSix(plan, purpose, a % 4 > 0), a % 2 ? 'sw-b' : 'sw-a', purpose, fields);
  },
  exposed: (plan, a) => {
    const port = pick(ports(plan), a);
    return port ? put(plan, 'port', port, { exposed: true }) : plan;
  },
  unplugged: (plan, a) => {
    const cable = pick(plan.cable.values(), a);
    return cable && a % 3 === 0 ? withRecord(plan, 'cable', cable.id, null) : plan;
  },
};

const step = fc.tuple(fc.constantFrom(...Object.keys(guardDamages)), fc.nat(60), fc.nat(60));
export const damagedGuards = fc.array(step, { minLength: 1, maxLength: 5 });
export const buildGuards = (path: readonly (readonly [string, number, number])[], sound: Plan): Plan =>
  path.reduce((plan, [name, a, b]) => guardDamages[name]!(plan, a, b), sound);
