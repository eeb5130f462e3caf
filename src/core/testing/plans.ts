import fc from 'fast-check';
import { parsePrefix } from '../address';
import { perform, newSitePlan } from '../edit';
import {
  Draft,
  type RecordRef,
  applyChange,
  removeRecord,
  type Plan,
  planOf,
  withRecord,
  type AnyRecord,
  type TableName,
  purposes,
  tableNames,
  Refusal,
} from '../plan';

/** Plans for property tests: built by the operations, then damaged the ways people damage them. */

export const prefix = (text: string) => parsePrefix(text)!.prefix;

export const emptySite = (fields: Partial<Parameters<typeof newSitePlan>[0]> = {}): Plan =>
  newSitePlan({ name: 'Test site', kind: 'office', ...fields }, 'new');

let seeds = 0;
/** A seed that no other change of the test run has. */
export const nextSeed = (): string => `t${(seeds++).toString(36)}x`;

/** The same plan with nothing known of it: all that follows from it is made from nothing. */
export const afresh = (plan: Plan): Plan =>
  planOf(Object.fromEntries(tableNames.map((table) => [table, [...plan[table].values()]])));

/** Performs an operation and returns the plan after it. Throws the Refusal when it is refused. */
export function done(plan: Plan, operation: string, input: unknown): Plan {
  const change = perform(plan, { operation, input }, nextSeed());
  const applied = applyChange(plan, change);
  if (!applied.ok) throw new Error(`${change.label} does not apply`);
  return applied.plan;
}

/** The same, leaving the plan as it is when the operation is refused. */
export function tried(plan: Plan, operation: string, input: unknown): Plan {
  try {
    return done(plan, operation, input);
  } catch (error) {
    if (error instanceof Refusal) return plan;
    throw error;
  }
}

/** A plan without a record and what cannot be without it, deleted the way people delete. */
export function without(plan: Plan, ref: RecordRef): Plan {
  const draft = new Draft(plan, nextSeed());
  removeRecord(draft, ref);
  return draft.plan;
}

const pick = <T>(items: Iterable<T>, n: number): T | undefined => {
  const list = [...items];
  return list.length ? list[n % list.length] : undefined;
};

const put = (plan: Plan, table: TableName, record: AnyRecord, fields: object): Plan =>
  withRecord(plan, table, record.id, { ...record, ...fields } as AnyRecord);

/** One way to go wrong (or on): a plan and two numbers that choose where. */
export type Damage = (plan: Plan, a: number, b: number) => Plan;

const hostOf = (plan: Plan, n: number) =>
  pick(
    [...plan.address.values()].filter((address) => !address.gateway),
    n,
  );
const gatewayOf = (plan: Plan, n: number) =>
  pick(
    [...plan.address.values()].filter((address) => address.gateway),
    n,
  );
const subnetOf = (plan: Plan, n: number) =>
  pick(
    [...plan.subnet.values()].filter((subnet) => typeof subnet.prefix.address === 'number'),
    n,
  );
const first = (plan: Plan, id: string) => plan.subnet.get(id)!.prefix.address as number;

export const damages: Readonly<Record<string, Damage>> = {
  addHost: (plan, a, b) => {
    const subnet = subnetOf(plan, a);
    const kinds = ['computer', 'camera', 'recorder', 'switch', 'printer', 'safety-controller'];
    const mac = b % 3 === 0 ? null : `00:00:5E:00:53:${(b % 256).toString(16).padStart(2, '0')}`;
    const assignment = b % 4 === 0 ? 'reservation' : 'static';
    return subnet
      ? tried(plan, 'addHost', { subnet: subnet.id, kind: kinds[b % kinds.length], mac, assignment })
      : plan;
  },
  overlapSubnet: (plan, a, b) => {
    const [one, two] = [subnetOf(plan, a), subnetOf(plan, b)];
    return one && two && one !== two ? put(plan, 'subnet', one, { prefix: two.prefix }) : plan;
  },
  moveOutside: (plan, a, b) => {
    const subnet = subnetOf(plan, a);
    const places = ['172.20.4.0/24', '203.0.113.0/24', '100.64.3.0/24', '8.8.8.0/24', '198.18.0.0/24'];
    return subnet ? put(plan, 'subnet', subnet, { prefix: prefix(places[b % places.length]!) }) : plan;
  },
  shrinkSubnet: (plan, a) => {
    const subnet = subnetOf(plan, a);
    return subnet && subnet.prefix.length < 29
      ? put(plan, 'subnet', subnet, { prefix: { ...subnet.prefix, length: 29 } })
      : plan;
  },
  foreign: (plan, a) => {
    const subnet = subnetOf(plan, a);
    const site = plan.site.get('site')!;
    return subnet
      ? put(plan, 'site', site, { foreign: [...site.foreign, { prefix: subnet.prefix, why: 'neighbour' }] })
      : plan;
  },
  sameVid: (plan, a, b) => {
    const [one, two] = [pick(plan.vlan.values(), a), pick(plan.vlan.values(), b)];
    return one && two ? put(plan, 'vlan', one, { vid: two.vid, code: two.code, name: two.name }) : plan;
  },
  reservedVid: (plan, a, b) => {
    const vlan = pick(plan.vlan.values(), a);
    return vlan ? put(plan, 'vlan', vlan, { vid: b % 2 ? 1 : 1003 }) : plan;
  },
  noManagement: (plan) => {
    let next = plan;
    for (const vlan of plan.vlan.values())
      if (vlan.purpose === 'management') next = put(next, 'vlan', vlan, { purpose: 'servers' });
    return next;
  },
  purpose: (plan, a, b) => {
    const vlan = pick(plan.vlan.values(), a);
    return vlan ? put(plan, 'vlan', vlan, { purpose: purposes[b % purposes.length] }) : plan;
  },
  visitors: (plan, a, b) => {
    const vlan = pick(plan.vlan.values(), a);
    const transient = { present: (b % 60) + 1, arrivalsPerHour: (b % 7) + 1, openHours: 8 };
    return vlan ? put(plan, 'vlan', vlan, { transient, internet: true }) : plan;
  },
  devices: (plan, a, b) => {
    const vlan = pick(plan.vlan.values(), a);
    return vlan ? put(plan, 'vlan', vlan, { devices: b % 400 }) : plan;
  },
  noPool: (plan, a) => {
    const bare = subnetOf(plan, a);
    const pools = bare ? [...plan.pool.group(bare.id).keys()] : [];
    return pools.reduce((rest, id) => withRecord(rest, 'pool', id, null), plan);
  },
  noDns: (plan, a) => {
    const subnet = subnetOf(plan, a);
    return subnet ? put(plan, 'subnet', subnet, { dns: [] }) : plan;
  },
  wrongDns: (plan, a, b) => {
    const subnet = subnetOf(plan, a);
    const host = b % 2 ? hostOf(plan, b) : undefined;
    if (!subnet) return plan;
    const server = host?.address ?? first(plan, subnet.id) + 3 + (b % 20);
    const item = host && plan.interface.get(host.interface);
    const next = put(plan, 'subnet', subnet, { dns: [{ literal: server }] });
    return item ? tried(next, 'addListener', { device: item.device, port: b % 4 === 1 ? 53 : 443 }) : next;
  },
  otherServer: (plan, a, b) => {
    const subnet = subnetOf(plan, a);
    const server = hostOf(plan, b);
    if (!subnet || !server) return plan;
    const { length } = subnet.prefix;
    const start = first(plan, subnet.id) + Math.min(2 ** (32 - length) - 4, 200 + (b % 20));
    const pool = { subnet: subnet.id, start, end: start + 1, lease: 3600, servedBy: [server.interface] };
    const id = nextSeed();
    return withRecord(plan, 'pool', id, { ...pool, id });
  },
  elsewhereServed: (plan, a, b) => {
    const [pool, server] = [pick(plan.pool.values(), a), hostOf(plan, b)];
    return pool && server ? put(plan, 'pool', pool, { servedBy: [server.interface] }) : plan;
  },
  routesNothing: (plan, a) => {
    const gateway = gatewayOf(plan, a);
    const device = gateway && plan.device.get(plan.interface.get(gateway.interface)!.device)!;
    return device ? put(plan, 'device', device, { kind: 'layer3-switch' }) : plan;
  },
  six: (plan, a, b) => {
    const vlan = pick(plan.vlan.values(), a);
    const gateway = gatewayOf(plan, a);
    if (!vlan || !gateway) return plan;
    const length = [64, 80, 56, 64][b % 4]!;
    const net = prefix(`fd42:7:${(b % 9) + 1}:${vlan.vid.toString(16)}::/${length}`);
    const [subnet, address] = [nextSeed(), nextSeed()];
    const record = { id: subnet, vlan: vlan.id, prefix: net, pinned: false, dns: [], domain: '' };
    const next = withRecord(plan, 'subnet', subnet, { ...record, advertised: b % 3 > 0 });
    return withRecord(next, 'address', address, {
      ...gateway,
      id: address,
      subnet,
      address: (net.address as bigint) + 1n,
    });
  },
  badDomain: (plan, a, b) => {
    const subnet = subnetOf(plan, a);
    if (b % 3 === 0) return put(plan, 'site', plan.site.get('site')!, { domain: '-bad-.example.net' });
    return subnet ? put(plan, 'subnet', subnet, { domain: 'not ok' }) : plan;
  },
  noGateway: (plan, a) => {
    const gateway = gatewayOf(plan, a);
    return gateway ? withRecord(plan, 'address', gateway.id, null) : plan;
  },
  gatewayAway: (plan, a, b) => {
    const gateway = gatewayOf(plan, a);
    if (!gateway || typeof gateway.address !== 'number') return plan;
    const { address, length } = plan.subnet.get(gateway.subnet)!.prefix;
    const places = [(address as number) - 5, address as number, (address as number) + 2 ** (32 - length) - 1];
    const [pool] = plan.pool.group(gateway.subnet).values();
    if (pool) places.push(pool.start as number);
    return put(plan, 'address', gateway, { address: places[b % places.length] });
  },
  sameAddress: (plan, a, b) => {
    const host = hostOf(plan, a);
    const other = host && pick([...plan.address.group(host.subnet).values()], b);
    return host && other ? put(plan, 'address', host, { address: other.address }) : plan;
  },
  hostAway: (plan, a, b) => {
    const host = hostOf(plan, a);
    if (!host || typeof host.address !== 'number') return plan;
    return put(plan, 'address', host, { address: first(plan, host.subnet) - (b % 2) * 300 });
  },
  hostIntoPool: (plan, a, b) => {
    const host = hostOf(plan, a);
    const pool = host && pick(plan.pool.group(host.subnet).values(), b);
    if (!host || !pool || typeof pool.start !== 'number') return plan;
    const size = (pool.end as number) - pool.start + 1;
    return put(plan, 'address', host, { address: pool.start + (b % size) });
  },
  serverRefuses: (plan, a, b) => {
    const host = hostOf(plan, a);
    const strict = put(plan, 'site', plan.site.get('site')!, { reservationInPool: false });
    return host
      ? damages.hostIntoPool!(put(strict, 'address', host, { assignment: 'reservation' }), a, b)
      : strict;
  },
  longLease: (plan, a, b) => {
    const pool = pick(plan.pool.values(), a);
    if (!pool) return plan;
    const vlan = plan.vlan.get(plan.subnet.get(pool.subnet)!.vlan)!;
    const transient = { present: 2, arrivalsPerHour: (b % 3) + 1, openHours: 10 };
    return put(put(plan, 'vlan', vlan, { transient, devices: 3 }), 'pool', pool, { lease: 604800 });
  },
  addPool: (plan, a, b) => {
    const subnet = subnetOf(plan, a);
    if (!subnet) return plan;
    const start = (subnet.prefix.address as number) + (b % 12);
    const record = {
      id: nextSeed(),
      subnet: subnet.id,
      start,
      end: start + (b % 90),
      lease: 3600,
      servedBy: [],
    };
    return withRecord(plan, 'pool', record.id, record);
  },
  badName: (plan, a, b) => {
    const device = hostOf(plan, a) && plan.device.get(plan.interface.get(hostOf(plan, a)!.interface)!.device);
    const names = ['Pump 1', 'über pumpe', '***', '12', 'a.b'];
    return device ? put(plan, 'device', device, { name: names[b % names.length] }) : plan;
  },
  sameName: (plan, a, b) => {
    const [one, two] = [pick(plan.device.values(), a), pick(plan.device.values(), b)];
    return one && two ? put(plan, 'device', one, { name: two.name }) : plan;
  },
  sameMac: (plan, a, b) => {
    const [one, two] = [pick(plan.interface.values(), a), pick(plan.interface.values(), b)];
    return one && two ? put(plan, 'interface', one, { mac: two.mac }) : plan;
  },
  groupMac: (plan, a) => {
    const item = pick(plan.interface.values(), a);
    return item ? put(plan, 'interface', item, { mac: '01:00:5E:00:53:01' }) : plan;
  },
  ownSettings: (plan, a, b) => {
    const item = pick(
      [...plan.interface.values()].filter((candidate) => candidate.kind === 'nic'),
      a,
    );
    const settings = [
      { ownLength: 16 },
      { ownGateway: 42 },
      { ownDns: [99] },
      { ownLength: 30, ownGateway: 7 },
    ];
    return item ? put(plan, 'interface', item, settings[b % settings.length]!) : plan;
  },
  forgetMac: (plan, a) => {
    const host = hostOf(plan, a);
    if (!host) return plan;
    return put(put(plan, 'interface', plan.interface.get(host.interface)!, { mac: null }), 'address', host, {
      assignment: 'reservation',
    });
  },
};

const names = Object.keys(damages);

/** A site of a few segments with hosts, damaged in a few ways: what a property draws, small enough to print. */
export const damagedSite = fc.record({
  numbering: fc.constantFrom('third-octet' as const, 'free' as const),
  sizing: fc.constantFrom('need' as const, 'slash-24' as const),
  fixed: fc.constantFrom('outside-pool' as const, 'reservation' as const),
  segments: fc.array(fc.constantFrom(...purposes), { minLength: 2, maxLength: 5 }),
  hosts: fc.array(fc.tuple(fc.nat(1000), fc.nat(1000)), { maxLength: 8 }),
  damage: fc.array(fc.tuple(fc.constantFrom(...names), fc.nat(1000), fc.nat(1000)), {
    minLength: 1,
    maxLength: 4,
  }),
});
type DamagedSite = typeof damagedSite extends fc.Arbitrary<infer T> ? T : never;

export function build({ numbering, sizing, fixed, segments, hosts, damage }: DamagedSite): Plan {
  let plan = emptySite({ numbering, sizing, fixed });
  for (const purpose of segments) plan = tried(plan, 'addSegment', { purpose });
  for (const [a, b] of hosts) plan = damages.addHost!(plan, a, b);
  for (const [name, a, b] of damage) plan = damages[name]!(plan, a, b);
  return plan;
}

/** What somebody might do next, as damage with places: used to walk from plan to plan. */
export const walk = fc.array(fc.tuple(fc.constantFrom(...names), fc.nat(1000), fc.nat(1000)), {
  minLength: 1,
  maxLength: 6,
});
