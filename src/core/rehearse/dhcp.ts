import { type IpAddress, familyOf, formatAddress } from '../address';
import { portsTitle, type Flood, flood, stateKey, isMember } from '../model/wiring';
import {
  boxOf,
  type Remedy,
  type Plan,
  type Interface,
  type Pool,
  type Subnet,
  type Vlan,
  type RecordRef,
  addressesOf,
  addressesOn,
  dnsOf,
  gatewaysOf,
  interfacesOf,
  subnetOf,
  portTitle,
} from '../plan';
import { carryRemedy } from './remedies';
import { dynamicNeed } from '../model/pools';
import { missingPorts, plugIn, fabric } from '../model/switching';
import { reachesPlug } from './frames';
import { firstFree } from './host';
import { probe } from './probe';

/** DHCP (RFC 2131) as a client at a port lives through it: who hears its discover, and what each of them answers. */

export interface Lease {
  readonly address: IpAddress;
  readonly length: number;
  readonly gateway: IpAddress | null;
  readonly dns: readonly string[];
  readonly domain: string;
  /** Seconds. */
  readonly seconds: number;
}

/** What one who hears the discover makes of it. */
export interface Hearing {
  readonly name: string;
  readonly on: RecordRef | null;
  /** The relay that passed it on; null where the server hears it itself. */
  readonly by: string | null;
  readonly offer: Lease | null;
  /** What decided: a reservation, the pool, or why there is no offer. */
  readonly why: string;
  /** Nobody of this site: a server somebody plugged in. */
  readonly rogue: boolean;
}

export interface Discovery {
  /** The segment the discover is in; null where it is in none. */
  readonly vlan: Vlan | null;
  readonly hearings: readonly Hearing[];
  /** The offer that comes first by what is recorded, or null. */
  readonly taken: Hearing | null;
  /** One sentence. */
  readonly summary: string;
  readonly remedies: readonly Remedy[];
}

export interface Client {
  readonly port: string;
  /** Null for a laptop nobody knows. */
  readonly mac: string | null;
  /** A port into which somebody plugged a server of their own. */
  readonly rogueAt: string | null;
}

/** The interfaces that hear a broadcast, each in the segment it hears it in. */
function listeners(plan: Plan, covered: Flood): { readonly item: Interface; readonly vlan: string | null }[] {
  const { bridges } = fabric(plan);
  const found: { item: Interface; vlan: string | null }[] = [];
  for (const [at, bridge] of bridges.entries()) {
    const inner = bridge.ports.findIndex((port) => port.number === 0);
    const facts = bridge.facts[inner];
    if (!facts) continue;
    for (const item of interfacesOf(plan, bridge.device)) {
      const vlans =
        item.vlan === null
          ? addressesOn(plan, item.id).map(({ subnet }) => plan.subnet.get(subnet)!.vlan)
          : [item.vlan];
      for (const vlan of new Set(vlans)) {
        const { vid } = plan.vlan.get(vlan)!;
        const state = { bridge: at, vid: bridge.box.vlanAware ? vid : 0 };
        const member = !bridge.box.vlanAware || isMember(facts, vid);
        if (member && covered.came.has(stateKey(state))) found.push({ item, vlan });
      }
    }
  }
  const seen = new Set<string>();
  for (const { port, tag } of covered.heard) {
    const device = plan.port.get(port)!.device;
    if (tag !== 0 || boxOf(plan, device) || seen.has(device)) continue;
    seen.add(device);
    for (const item of interfacesOf(plan, device)) found.push({ item, vlan: null });
  }
  return found;
}

function leaseFrom(plan: Plan, subnet: Subnet, pool: Pool, address: IpAddress): Lease {
  return {
    address,
    length: subnet.prefix.length,
    gateway: gatewaysOf(plan, subnet.id)[0]?.address ?? null,
    dns: dnsOf(plan, subnet).map(formatAddress),
    domain: subnet.domain,
    seconds: pool.lease,
  };
}

/** What a server answers from its pools of one subnet. */
function answer(
  plan: Plan,
  subnet: Subnet,
  pools: readonly Pool[],
  mac: string | null,
): Pick<Hearing, 'offer' | 'why'> {
  const reserved =
    mac === null
      ? undefined
      : addressesOf(plan, subnet.id).find(
          ({ assignment, interface: id }) =>
            assignment === 'reservation' && plan.interface.get(id)!.mac === mac,
        );
  if (reserved)
    return {
      offer: leaseFrom(plan, subnet, pools[0]!, reserved.address),
      why: `reserved for ${plan.device.get(plan.interface.get(reserved.interface)!.device)!.name}`,
    };
  const { need, capacity } = dynamicNeed(plan, subnet);
  const free = pools
    .map((pool) => ({ pool, address: firstFree(plan, subnet, pool) }))
    .find(({ address }) => address !== null);
  if (!free) return { offer: null, why: 'the pool is exhausted: no address in it is free' };
  const late =
    need.total > capacity
      ? `; ${capacity} leases for ${need.total} who may want one, so latecomers get none`
      : '';
  return {
    offer: leaseFrom(plan, subnet, free.pool, free.address!),
    why: `from the pool ${formatAddress(free.pool.start)}–${formatAddress(free.pool.end)}${late}`,
  };
}

/** The pools of a server for one segment. */
const poolsOf = (plan: Plan, server: string, vlan: string): Pool[] =>
  [...plan.pool.values()].filter(
    ({ subnet, servedBy, start }) =>
      familyOf(start) === 4 && servedBy.includes(server) && plan.subnet.get(subnet)!.vlan === vlan,
  );

function hearingsOf(plan: Plan, covered: Flood, mac: string | null, today: string | null): Hearing[] {
  const found: Hearing[] = [];
  const nameOf = (item: Interface) => plan.device.get(item.device)!.name;
  const offers = (item: Interface, vlan: string, by: string | null) => {
    const pools = poolsOf(plan, item.id, vlan);
    if (pools.length === 0) return;
    const subnet = plan.subnet.get(pools[0]!.subnet)!;
    const on = { table: 'interface' as const, id: item.id };
    found.push({ name: nameOf(item), on, by, rogue: false, ...answer(plan, subnet, pools, mac) });
  };
  for (const { item, vlan } of listeners(plan, covered)) {
    const vlans =
      vlan === null
        ? [...new Set(addressesOn(plan, item.id).map(({ subnet }) => plan.subnet.get(subnet)!.vlan))]
        : [vlan];
    for (const own of vlans) offers(item, own, null);
    if (vlan === null) continue;
    for (const relay of plan.relay.values()) {
      if (relay.interface !== item.id) continue;
      for (const id of relay.servers) {
        const server = plan.interface.get(id)!;
        const to = addressesOn(plan, id)[0];
        const way =
          to &&
          probe(
            plan,
            {
              from: { device: item.device },
              to: { address: to.address },
              wanted: { protocol: 'udp', port: 67 },
            },
            today,
          );
        if (way?.delivered) offers(server, vlan, nameOf(item));
        else
          found.push({
            name: nameOf(server),
            on: { table: 'interface', id },
            by: nameOf(item),
            offer: null,
            why: `the relay does not get through: ${way ? way.summary : 'the server has no address'}`,
            rogue: false,
          });
      }
    }
  }
  return found;
}

/** A server somebody brought along: what such boxes hand out as they come. */
function rogueHearing(plan: Plan, client: Client, covered: Flood): Hearing | null {
  if (client.rogueAt === null) return null;
  const port = plan.port.get(client.rogueAt)!;
  const hears = reachesPlug(plan, covered, port);
  // Its offer has to get back as well.
  const back = reachesPlug(plan, flood(fabric(plan), { port: port.id, tag: 0 }), plan.port.get(client.port)!);
  if (!hears || !back) return null;
  const own = 0xc0a80001;
  return {
    name: `stray router in ${portTitle(plan, port)}`,
    on: { table: 'port', id: port.id },
    by: null,
    offer: {
      address: own + 99,
      length: 24,
      gateway: own,
      dns: [formatAddress(own)],
      domain: '',
      seconds: 86_400,
    },
    why: 'nothing keeps it from answering: it offers its own network, and itself as the gateway',
    rogue: true,
  };
}

/** Why nobody who is meant to answers, and what would make them. */
function silence(plan: Plan, vlan: Vlan): Pick<Discovery, 'summary' | 'remedies'> {
  const subnet = subnetOf(plan, vlan.id, 4);
  if (!subnet) return { summary: `${vlan.name} has no addresses, so nobody leases any`, remedies: [] };
  const pools = [...plan.pool.group(subnet.id).values()];
  if (pools.length === 0)
    return { summary: `${vlan.name} has no pool: addresses there are set by hand`, remedies: [] };
  const servers = [...new Set(pools.flatMap(({ servedBy }) => servedBy))].map((id) =>
    plan.interface.get(id)!,
  );
  if (servers.length === 0) return { summary: `the pool of ${vlan.name} has no server`, remedies: [] };
  const names = [...new Set(servers.map((item) => plan.device.get(item.device)!.name))].join(' and ');
  const local = servers.some(
    (item) =>
      item.vlan === vlan.id ||
      addressesOn(plan, item.id).some(({ subnet: id }) => plan.subnet.get(id)!.vlan === vlan.id),
  );
  if (!local) {
    const gateway = gatewaysOf(plan, subnet.id)[0];
    const relay = gateway && [...plan.relay.values()].find((item) => item.interface === gateway.interface);
    return {
      summary: relay
        ? `${names} stands in another segment, and the relay does not pass the discover on to it`
        : `${names} stands in another segment, and no relay in ${vlan.name} passes the discover on`,
      remedies: gateway
        ? [
            {
              label: `Relay to ${names} at ${plan.device.get(plan.interface.get(gateway.interface)!.device)!.name}`,
              operation: 'setRelay',
              input: { interface: gateway.interface, servers: servers.map(({ id }) => id) },
            },
          ]
        : [],
    };
  }
  const missing = missingPorts(plan, vlan.id);
  return {
    summary:
      missing.length > 0
        ? `VLAN ${vlan.vid} is not carried to ${names}: ${portsTitle(plan, missing)} would have to`
        : `${names} does not hear VLAN ${vlan.vid} from here`,
    remedies:
      missing.length > 0 ? [carryRemedy(`Carry ${vlan.vid} ${vlan.code} where it is needed`, vlan)] : [],
  };
}

/**
 * Plugs a client into a port and lets its discover run (RFC 2131 section 3.1). Every server or relay that hears it is
 * listed; with two that know nothing of each other the client takes whichever is faster, so the first that is no stranger
 * is only what is hoped for.
 */
export function discover(plan: Plan, client: Client, today: string | null = null): Discovery {
  const port = plan.port.get(client.port)!;
  const plugged = plugIn(plan, port);
  const vlan = plugged.vlan;
  const covered = flood(fabric(plan), { port: port.id, tag: 0 });
  const hearings = hearingsOf(plan, covered, client.mac, today);
  const rogue = rogueHearing(plan, client, covered);
  if (rogue) hearings.push(rogue);
  const offering = hearings.filter(({ offer }) => offer !== null);
  const taken = offering.find((hearing) => !hearing.rogue) ?? offering[0] ?? null;
  if (!taken) {
    const why = hearings.find(({ why: reason }) => reason);
    if (why)
      return {
        vlan,
        hearings,
        taken,
        summary: `No address: ${why.name}: ${why.why}`,
        remedies: widen(plan, vlan),
      };
    if (!vlan) return { vlan, hearings, taken, summary: `No address: ${plugged.sentence}`, remedies: [] };
    const { summary, remedies } = silence(plan, vlan);
    return { vlan, hearings, taken, summary: `No address: ${summary}`, remedies };
  }
  const { address, length } = taken.offer!;
  const strangers = rogue ? `; the ${rogue.name} answers too, and the faster one is believed` : '';
  const many = new Set(offering.filter((hearing) => !hearing.rogue).map(({ name }) => name));
  const others = many.size > 1 ? `; ${[...many].join(' and ')} both answer` : '';
  return {
    vlan,
    hearings,
    taken,
    summary: `${formatAddress(address)}/${length} from ${taken.name}, ${taken.why}${others}${strangers}`,
    remedies: [],
  };
}

function widen(plan: Plan, vlan: Vlan | null): Remedy[] {
  const subnet = vlan && subnetOf(plan, vlan.id, 4);
  return subnet
    ? [{ label: 'Widen the pool to what is needed', operation: 'widenPool', input: { subnet: subnet.id } }]
    : [];
}
