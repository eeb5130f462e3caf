import fc from 'fast-check';
import { typedCable } from '../edit';
import { type Plan, Refusal, withRecord, type Interface, type Uplink, addressesOn, routersOf } from '../plan';
import { portsOf } from '../model/wiring';
import { uplinksOf } from '../model/uplink';
import { routedBehind } from './behind';
import { buildGear, deviceNamed, portNamed, put, soundGear, vlanFor } from './gear';
import { type Damage, done, nextSeed, prefix, tried, without } from './plans';

/** Sites with an Internet side for property tests: two uplinks and a forward as they should be, then what goes wrong. */

const v4 = (text: string) => prefix(`${text}/32`).address;

export const uplinkNamed = (plan: Plan, name: string): Uplink =>
  uplinksOf(plan).find((uplink) => uplink.name === name)!;
/** The network card of an end device. */
export const cardOf = (plan: Plan, name: string): Interface =>
  [...plan.interface.values()].find(({ device }) => device === deviceNamed(plan, name).id)!;

export function soundInternet(): Plan {
  let plan = soundGear();
  const fields: Partial<Uplink> = { outside: 'public', monitor: v4('192.0.2.53') };
  plan = put(plan, 'uplink', uplinksOf(plan)[0]!, { ...fields, name: 'fibre', tier: 1 });
  const port = portsOf(plan, deviceNamed(plan, 'gw-1').id).find(({ number }) => number === 6)!;
  plan = done(plan, 'addUplink', { name: 'mobile', port: port.id });
  plan = put(plan, 'uplink', uplinkNamed(plan, 'mobile'), { ...fields, tier: 2 });
  const target = cardOf(plan, 'desk').id;
  return done(plan, 'addForward', { uplink: uplinkNamed(plan, 'fibre').id, target, inside: 443 });
}

const pick = <T>(items: Iterable<T>, n: number): T | undefined => {
  const list = [...items];
  return list.length ? list[n % list.length] : undefined;
};
const setUplink =
  (fields: (plan: Plan, b: number, uplink: Uplink) => Partial<Uplink>): Damage =>
  (plan, a, b) => {
    const uplink = pick(uplinksOf(plan), a);
    return uplink ? put(plan, 'uplink', uplink, fields(plan, b, uplink)) : plan;
  };
const cards = (plan: Plan) =>
  ['desk', 'till', 'cam-1', 'cam-2'].map((name) => cardOf(plan, name)).filter(Boolean);
const insidePorts = [80, 443, 23, 554, 8883, 502, 22, 6000];

export const internetDamages: Readonly<Record<string, Damage>> = {
  upstream: setUplink((_plan, b) => ({
    upstream: 'routing',
    passes: (['nothing', 'listed', 'everything'] as const)[b % 3]!,
  })),
  outside: setUplink((_plan, b) => ({
    outside: (['shared', 'private', 'unknown', 'public'] as const)[b % 4]!,
    upstream: 'modem',
  })),
  address: setUplink((_plan, b) => ({
    address: v4(['203.0.113.5', '192.168.1.2', '100.64.0.7'][b % 3]!),
    outside: (['public', 'unknown', 'private', 'shared'] as const)[b % 4]!,
    addressing: 'static',
    ...(b % 5 === 0 ? { network: prefix('198.51.100.0/24') } : {}),
  })),
  noAddress: setUplink(() => ({ address: null, addressing: 'static' })),
  network: setUplink((plan, b) => ({
    network: b % 2 ? prefix('198.51.100.0/24') : (pick(plan.subnet.values(), b)?.prefix ?? null),
  })),
  mtu: setUplink((_plan, b) => ({ addressing: b % 2 ? 'pppoe' : 'dhcp', mtu: [1492, 1500, 1600][b % 3]! })),
  name: setUplink((plan, b) => ({
    dynamicName: 'site.example.net',
    updater: b % 2 ? deviceNamed(plan, 'gw-1').id : null,
    ...(b % 4 === 3 ? { outside: 'shared' as const, address: null } : {}),
  })),
  monitor: setUplink((_plan, b) =>
    b % 2 ? { monitor: null } : { monitor: v4('198.51.100.1'), network: prefix('198.51.100.0/24') },
  ),
  closed: setUplink((_plan, b) => (b % 2 ? { noForwards: true } : { enabled: false })),
  oneTier: setUplink(() => ({ tier: 1 })),
  portRole: (plan, a, b) => {
    const port = plan.port.get(pick(uplinksOf(plan), a)?.port ?? '');
    const wrong = [{ role: 'parked' }, { defective: true }, { enabled: false }][b % 3]!;
    return port ? put(plan, 'port', port, wrong) : plan;
  },
  noPort: setUplink(() => ({ port: null })),
  samePort: setUplink((plan) => ({ port: uplinksOf(plan)[0]!.port, providerVlan: null })),
  unrecorded: (plan) =>
    uplinksOf(plan).reduce((now, { id }) => tried(now, 'removeUplink', { uplink: id }), plan),
  forward: (plan, a, b) => {
    const uplink = pick(uplinksOf(plan), a);
    const target = pick(cards(plan), b);
    return uplink && target
      ? tried(plan, 'addForward', { uplink: uplink.id, target: target.id, inside: insidePorts[(a + b) % 8]! })
      : plan;
  },
  forwardNowhere: (plan, a, b) => internetDamages.forward!(internetDamages.upstream!(plan, a, 0), a, b),
  twice: (plan, a, b) => {
    const forward = pick(plan.forward.values(), a);
    if (!forward) return plan;
    const id = nextSeed();
    return withRecord(plan, 'forward', id, { ...forward, id, inside: insidePorts[b % 8]! });
  },
  floating: (plan, a) => {
    const forward = pick(plan.forward.values(), a);
    const lost = forward ? addressesOn(plan, forward.target) : [];
    return lost.reduce((now, { id }) => without(now, { table: 'address', id }), plan);
  },
  route: (plan, a, b) =>
    tried(plan, 'addRoute', { prefix: `10.9${a % 9}.0.0/16`, via: ['10.99.0.1', '10.20.20.77'][b % 2]! }),
  tunnel: (plan, a, b) =>
    tried(plan, 'addTunnel', {
      name: `plant ${a % 3}`,
      remote: [['10.60.0.0/16', '10.60.4.0/24', '10.70.0.0/16'][b % 3]!],
      initiates: b % 2 === 0,
    }),
  inFront: (plan, a) => {
    const made = deviceNamed(plan, 'isp-front')
      ? plan
      : tried(plan, 'addDevice', { name: 'isp-front', model: { shelf: 'provider-4' }, managed: false });
    const joined = tried(made, 'connect', typedCable(made, 'isp-front 2 = gw-1 1'));
    const subnet = pick(plan.subnet.values(), a)!;
    const name = `front-${nextSeed()}`;
    const host = tried(joined, 'addHost', { subnet: subnet.id, name, kind: 'computer' });
    if (!deviceNamed(host, name)) return joined;
    return tried(host, 'connect', typedCable(host, `isp-front ${3 + (a % 3)} = ${name}`));
  },
  inner: (plan, a, b) => {
    const uplink = pick(uplinksOf(plan), a);
    const second = deviceNamed(plan, 'gw-2')
      ? plan
      : tried(plan, 'addDevice', { name: 'gw-2', model: { shelf: 'gateway-6' } });
    const made = tried(second, 'addUplink', { device: deviceNamed(second, 'gw-2')?.id, name: `inner ${b}` });
    const added = uplinkNamed(made, `inner ${b}`) ?? uplink;
    const segment = vlanFor(made, ['staff', 'voice', 'parking'][b % 3]!)?.id;
    return added && segment ? tried(made, 'standBehind', { uplink: added.id, segment }) : made;
  },
  exposedTwice: (plan) =>
    uplinksOf(plan).reduce(
      (now, uplink) =>
        put(now, 'uplink', uplink, {
          upstream: 'routing',
          passes: 'everything',
          network: prefix('198.51.100.0/24'),
        }),
      plan,
    ),
  tunnelShut: (plan, a) => {
    const uplink = pick(uplinksOf(plan), a);
    const made = internetDamages.tunnel!(plan, a, 1);
    const tunnel = pick(made.tunnel.values(), a);
    if (!uplink || !tunnel) return plan;
    const bound = put(made, 'tunnel', tunnel, { uplink: uplink.id, initiates: false, device: uplink.device });
    return put(bound, 'uplink', uplink, { outside: 'shared', address: null });
  },
  translation: (plan, a, b) => {
    const subnet = pick(plan.subnet.values(), a)!;
    const outside = ['172.20.5.0', '10.20.20.0', '172.20.5.0'][b % 3]!;
    return tried(plan, 'addTranslation', {
      subnet: subnet.id,
      outside: `${outside}/${subnet.prefix.length}`,
    });
  },
  uneven: (plan, a, b) => {
    const subnet = pick(plan.subnet.values(), a)!;
    const now = tried(plan, 'addTranslation', {
      subnet: subnet.id,
      outside: `172.20.5.0/${subnet.prefix.length}`,
    });
    const item = pick(now.translation.values(), a);
    return item
      ? put(now, 'translation', item, {
          outside: prefix(['172.20.6.0/30', '172.20.6.128/27', '2001:db8:9::/64'][b % 3]!),
        })
      : now;
  },
  voiceBox: (plan, a, b) => {
    const subnet = pick(plan.subnet.values(), a)!;
    const kept = tried(plan, 'addHost', { subnet: subnet.id, name: 'isp-box', kind: 'provider-box' });
    const device = deviceNamed(kept, 'isp-box');
    if (!device) return plan;
    const made = tried(kept, 'keepVoiceBox', { device: device.id });
    const [box] = [...made.voiceBox.values()];
    const own = b % 4 === 0 ? subnet.prefix : null;
    return box
      ? put(made, 'voiceBox', box, { own, needsTag: b % 2 === 0, dscp: b % 3 === 0 ? 46 : 0 })
      : made;
  },
  secondRouter: (plan) => {
    const gateway = deviceNamed(plan, 'gw-1');
    const [voice, staff] = [vlanFor(plan, 'voice'), vlanFor(plan, 'staff')];
    const item = [...plan.interface.values()].find(
      ({ device, vlan }) => device === gateway.id && vlan === voice.id,
    );
    if (!item) return plan;
    const [device, leg] = [nextSeed(), nextSeed()];
    const subnet = [...plan.subnet.values()].find(({ vlan }) => vlan === staff.id)!;
    let next = withRecord(plan, 'device', device, {
      id: device,
      name: `core-${device}`,
      kind: 'gateway',
      firewall: 'unknown',
    });
    next = put(next, 'interface', item, { device });
    next = withRecord(next, 'interface', leg, { ...item, id: leg, device, vlan: staff.id });
    const address = {
      interface: leg,
      subnet: subnet.id,
      assignment: 'static' as const,
      gateway: false,
      note: '',
    };
    const at = (subnet.prefix.address as number) + 5;
    const id = nextSeed();
    return withRecord(next, 'address', id, { ...address, id, address: at });
  },
  occupied: (plan, a, b) => {
    const port = plan.port.get(pick(uplinksOf(plan), a)?.port ?? '');
    const subnet = pick(plan.subnet.values(), a)!;
    const name = `line-${nextSeed()}`;
    const host = b % 2 ? tried(plan, 'addHost', { subnet: subnet.id, name, kind: 'computer' }) : plan;
    const far = deviceNamed(host, name) ? name : ['sw-a 7', 'sw-b 4'][a % 2]!;
    if (!port) return plan;
    const joined = tried(host, 'connect', typedCable(host, `gw-1 ${port.number} = ${far}`));
    const [at, number] = far.split(' ');
    const inside = number === undefined ? undefined : portNamed(joined, at!, Number(number));
    return inside
      ? tried(joined, 'assignPorts', { ports: [inside.id], role: 'access', vlan: subnet.vlan })
      : joined;
  },
  plugged: (plan, a, b) => {
    const made = deviceNamed(plan, 'gw-9')
      ? plan
      : tried(plan, 'addDevice', { name: 'gw-9', model: { shelf: 'gateway-6' } });
    const at = [5, 6, 7, 8][b % 4]!;
    const segment = vlanFor(made, ['staff', 'cameras', 'guest'][a % 3]!)?.id;
    const joined = tried(made, 'connect', typedCable(made, `gw-9 2 = sw-a ${at}`));
    const port = portNamed(joined, 'sw-a', at);
    return segment
      ? tried(joined, 'assignPorts', { ports: [port.id], role: 'access', vlan: segment })
      : joined;
  },
  shutIn: (plan, a, b) => {
    const forward = pick(plan.forward.values(), a);
    const card = forward && plan.interface.get(forward.target);
    if (!card) return plan;
    return b % 2
      ? put(plan, 'device', plan.device.get(card.device)!, { firewall: 'own-subnet' })
      : put(plan, 'interface', card, { ownGateway: 0 });
  },
  six: (plan, a, b) => {
    const segment = vlanFor(plan, ['staff', 'guest'][a % 2]!);
    if (!segment) return plan;
    const made = tried(plan, 'addSubnet', { vlan: segment.id, prefix: `2001:db8:77:${a + 1}::/64` });
    const [line] = uplinksOf(made);
    return b % 3 === 0 || !line ? made : put(made, 'uplink', line, { delegated: prefix('2001:db8:40::/48') });
  },
  noWayBack: (plan) => {
    if (plan.zone.size > 0 || routersOf(plan).length !== 1) return plan;
    try {
      return routedBehind(plan, false);
    } catch (error) {
      if (error instanceof Refusal) return plan;
      throw error;
    }
  },
  listeners: (plan, a, b) => {
    const card = pick(cards(plan), a);
    return card
      ? tried(plan, 'addListener', { device: card.device, port: [4443, 8080, 443, 10_000][b % 4]! })
      : plan;
  },
};

const step = fc.tuple(fc.constantFrom(...Object.keys(internetDamages)), fc.nat(60), fc.nat(60));
export const damagedInternet = fc.array(step, { minLength: 1, maxLength: 5 });
export const buildInternet = (damage: readonly (readonly [string, number, number])[], from: Plan): Plan =>
  buildGear(damage, from, internetDamages);
