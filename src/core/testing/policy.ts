import fc from 'fast-check';
import {
  type Plan,
  withRecord,
  type Party,
  type Rule,
  type Zone,
  vlansOf,
  boxOf,
  standardServices,
} from '../plan';
import { rulesOf, zonesOf } from '../model/policy';
import { buildGear, deviceNamed, gearDamages, put } from './gear';
import { cardOf, soundInternet } from './internet';
import { type Damage, done, nextSeed, prefix, tried } from './plans';

/** Sites with zones and rules for property tests: the starting point of an office, then what people do to it. */

export const zoneNamed = (plan: Plan, name: string): Zone =>
  zonesOf(plan).find((zone) => zone.name === name)!;

export function soundPolicy(): Plan {
  const plan = done(soundInternet(), 'startPolicy', { kind: 'office' });
  return done(plan, 'addRule', {
    action: 'allow',
    from: [{ device: deviceNamed(plan, 'till').id }],
    to: [{ zone: zoneNamed(plan, 'Devices').id }],
    services: ['stdrtsp'],
    note: 'the till shows the door',
  });
}

const pick = <T>(items: readonly T[], n: number): T | undefined => items[n % Math.max(1, items.length)];
const some = (plan: Plan, n: number): Party[] => {
  const hosts = ['desk', 'till', 'cam-1', 'phone'].flatMap((name) => deviceNamed(plan, name)?.id ?? []);
  const parties: Party[] = [
    ...zonesOf(plan).map(({ id }) => ({ zone: id })),
    ...vlansOf(plan).map(({ id }) => ({ vlan: id })),
    ...hosts.map((device) => ({ device })),
    { prefix: prefix('10.20.0.0/16') },
    { prefix: prefix('198.51.100.0/24') },
  ];
  return n % 7 === 0 ? [] : [pick(parties, n)!];
};
const services = (n: number): string[] => (n % 3 === 0 ? [] : [pick(standardServices, n)!.id]);
const wireOf = (parties: readonly Party[]) =>
  parties.map((party) => ('prefix' in party ? { prefix: '10.20.0.0/16' } : party));
const setRule =
  (fields: (plan: Plan, b: number) => Partial<Rule>): Damage =>
  (plan, a, b) => {
    const rule = pick(rulesOf(plan), a);
    return rule ? put(plan, 'rule', rule, fields(plan, b)) : plan;
  };
const setZone =
  (fields: (plan: Plan, b: number, zone: Zone) => Partial<Zone>): Damage =>
  (plan, a, b) => {
    const zone = pick(zonesOf(plan), a);
    return zone ? put(plan, 'zone', zone, fields(plan, b, zone)) : plan;
  };

export const policyDamages: Readonly<Record<string, Damage>> = {
  rule: (plan, a, b) =>
    tried(plan, 'addRule', {
      action: (a + b) % 2 ? 'allow' : 'deny',
      from: wireOf(some(plan, a)),
      to: wireOf(some(plan, b)),
      services: services(a * 5 + b),
    }),
  opposite: (plan, a) => {
    const rule = pick(rulesOf(plan), a);
    if (!rule) return plan;
    const id = nextSeed();
    const action = rule.action === 'allow' ? 'deny' : 'allow';
    return withRecord(plan, 'rule', id, { ...rule, id, action, rank: `${rule.rank}V` });
  },
  same: (plan, a) => {
    const rule = pick(rulesOf(plan), a);
    if (!rule) return plan;
    const id = nextSeed();
    return withRecord(plan, 'rule', id, { ...rule, id, rank: `${rule.rank}V` });
  },
  crossing: (plan, a, b) => {
    const [from, to] = [pick(vlansOf(plan), a)!, pick(vlansOf(plan), b + 1)!];
    const first = tried(plan, 'addRule', { action: 'deny', from: [{ vlan: from.id }] });
    return tried(first, 'addRule', { action: 'allow', to: [{ vlan: to.id }] });
  },
  any: (plan) => tried(plan, 'addRule', { action: 'allow' }),
  gone: setRule(() => ({ services: ['nosuchservice'] })),
  nobody: setRule(() => ({ from: [{ zone: 'nosuchzone' }] })),
  expired: setRule((_plan, b) => ({ until: b % 2 ? '2020-01-31' : '2031-01-31' })),
  off: setRule(() => ({ enabled: false })),
  wide: (plan, a) => {
    const device = deviceNamed(plan, a % 2 ? 'desk' : 'till').id;
    const listed = tried(plan, 'addListener', { device, port: 443 });
    return tried(listed, 'addRule', { action: 'allow', to: [{ device }] });
  },
  leave: setZone((_plan, b, zone) => ({ vlans: zone.vlans.filter((_, i) => i !== b % zone.vlans.length) })),
  twice: setZone((plan, b, zone) => ({
    vlans: [...new Set([...zone.vlans, pick(vlansOf(plan), b)!.id])].sort(),
  })),
  noUplinks: setZone((_plan, _b, zone) => ({ uplinks: zone.uplinks.slice(1) })),
  newUplink: (plan) => {
    const id = nextSeed();
    const [uplink] = [...plan.uplink.values()];
    return uplink ? withRecord(plan, 'uplink', id, { ...uplink, id, name: 'third', port: null }) : plan;
  },
  dropVlan: gearDamages.dropVlan!,
  native: gearDamages.native!,
  wrongAccess: gearDamages.wrongAccess!,
  ownSettings: (plan, a, b) => {
    const card = cardOf(plan, ['desk', 'till', 'cam-1', 'cam-2', 'phone'][a % 5]!);
    const wrong = [{ ownGateway: prefix('10.99.0.1/32').address }, { ownGateway: 0 }, { ownLength: 30 }][
      b % 3
    ]!;
    return put(plan, 'interface', card, wrong);
  },
  noGateway: setZone(() => ({ gateway: false })),
  manages: setZone(() => ({ manages: true })),
  together: setZone(() => ({ inside: 'allow' })),
  open: (plan, a, b) => {
    const [from, to] = [pick(zonesOf(plan), a)!, pick(zonesOf(plan), b)!];
    return tried(plan, 'decidePairs', { pairs: [{ from: from.id, to: to.id }], decision: 'allow' });
  },
  noDns: (plan, a) => {
    const zone = pick(zonesOf(plan), a)!;
    const gateway = zonesOf(plan).find((other) => other.gateway);
    if (!gateway) return plan;
    const pairs = [{ from: zone.id, to: gateway.id }];
    return tried(plan, 'decidePairs', { pairs, decision: 'services', services: ['stdping'] });
  },
  login: (plan) => {
    const outside = zonesOf(plan).find(({ uplinks }) => uplinks.length > 0);
    const gateway = zonesOf(plan).find((zone) => zone.gateway);
    if (!outside || !gateway) return plan;
    const pairs = [{ from: outside.id, to: gateway.id }];
    return tried(plan, 'decidePairs', { pairs, decision: 'services', services: ['stdssh', 'stdping'] });
  },
  visitors: (plan, a) => {
    const guests = zonesOf(plan).find(({ name }) => name === 'Guests');
    if (!guests) return plan;
    const pairs = [{ from: guests.id, to: pick(zonesOf(plan), a)!.id }];
    return tried(plan, 'decidePairs', { pairs, decision: 'services', services: ['stdprint'] });
  },
  ruleBox: setRule((plan, b) => ({ device: deviceNamed(plan, ['sw-a', 'gw-1', 'sw-b'][b % 3]!).id })),
  machines: (plan, a, b) => {
    const made = tried(plan, 'addSegment', { purpose: 'control-cell' });
    const cell = vlansOf(made).find(({ purpose }) => purpose === 'control-cell');
    const zoned = cell ? tried(made, 'ownZone', { vlan: cell.id }) : made;
    const to = zonesOf(zoned).find(({ vlans }) => vlans.includes(cell!.id))!;
    const pairs = [{ from: pick(zonesOf(zoned), a)!.id, to: to.id }];
    return tried(
      zoned,
      'decidePairs',
      b % 2 ? { pairs, decision: 'allow' } : { pairs, decision: 'services', services: ['stdmodbus'] },
    );
  },
  freeInternet: (plan, a) => {
    const to = zonesOf(plan).find(({ uplinks }) => uplinks.length > 0);
    if (!to) return plan;
    return tried(plan, 'decidePairs', {
      pairs: [{ from: pick(zonesOf(plan), a)!.id, to: to.id }],
      decision: 'allow',
    });
  },
  goneService: (plan, a, b) => {
    const [from, to] = [pick(zonesOf(plan), a)!, pick(zonesOf(plan), b)!];
    const id = nextSeed();
    if ([...plan.cell.values()].some((cell) => cell.from === from.id && cell.to === to.id)) return plan;
    return withRecord(plan, 'cell', id, {
      id,
      from: from.id,
      to: to.id,
      decision: 'services',
      services: ['stdhttp', 'nosuchservice'],
    });
  },
  filter: (plan, _a, b) =>
    put(plan, 'box', boxOf(plan, deviceNamed(plan, 'gw-1').id)!, {
      filter: (['none', 'stateless', 'stateful'] as const)[b % 3],
    }),
};

const step = fc.tuple(fc.constantFrom(...Object.keys(policyDamages)), fc.nat(60), fc.nat(60));
export const damagedPolicy = fc.array(step, { minLength: 1, maxLength: 5 });
export const buildPolicy = (damage: readonly (readonly [string, number, number])[], from: Plan): Plan =>
  buildGear(damage, from, policyDamages);
