import { type IpAddress, familyOf, formatAddress } from '../address';
import { type Flood, stateKey, isMember } from '../model/wiring';
import {
  boxOf,
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
  subnetsOf,
} from '../plan';
import { dynamicNeed } from '../model/pools';
import { decide } from '../model/policy';
import { routersIn } from '../model/routing';
import { fabric } from '../model/switching';
import { converse } from './converse';
import { anyGuards } from '../model/guards';
import { segmentsOf } from '../model/hosts';
import { type Place, deliver, placeOf } from './frames';
import { isMarked, offerStops, passagesOf, requestStops } from './guards/at-hop';
import { firstFree, hostAt } from './host';

/** What every server and relay makes of a discover: whether it hears it, what it offers, and whether that gets back. */

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
  /** The pool it offers from, or in which nothing is left to offer. */
  readonly pool: Pool | null;
  /** Its ports are not recorded, so it is taken to be reached. */
  readonly assumed: boolean;
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
      for (const vlan of segmentsOf(plan, item)) {
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
): Pick<Hearing, 'offer' | 'why' | 'pool'> {
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
      pool: pools[0]!,
      why: `reserved for ${plan.device.get(plan.interface.get(reserved.interface)!.device)!.name}`,
    };
  const { need, capacity } = dynamicNeed(plan, subnet);
  const free = pools
    .map((pool) => ({ pool, address: firstFree(plan, subnet, pool) }))
    .find(({ address }) => address !== null);
  if (!free) return { offer: null, pool: pools[0]!, why: 'the pool is exhausted: no address in it is free' };
  const late =
    need.total > capacity
      ? `; ${capacity} leases for ${need.total} who may want one, so latecomers get none`
      : '';
  return {
    offer: leaseFrom(plan, subnet, free.pool, free.address!),
    pool: free.pool,
    why: `from the pool ${formatAddress(free.pool.start)}–${formatAddress(free.pool.end)}${late}`,
  };
}

/** The pools of a server for one segment. */
const poolsOf = (plan: Plan, server: string, vlan: string): Pool[] =>
  [...plan.pool.values()].filter(
    ({ subnet, servedBy, start }) =>
      familyOf(start) === 4 && servedBy.includes(server) && plan.subnet.get(subnet)!.vlan === vlan,
  );

/** Somebody a discover gets to, in a segment; `by` is the relay that passed it on. */
interface Asked {
  readonly item: Interface;
  readonly vlan: string;
  readonly by: Interface | null;
}

/** What keeps a server or relay from hearing a client in its segment, or the client from hearing it; null for nothing. */
function unheard(plan: Plan, { item, vlan, by }: Asked, client: Place, today: string | null): string | null {
  const device = plan.device.get(item.device)!;
  if (routersIn(plan).has(device.id)) {
    // A client has no address yet and asks everybody (RFC 2131, 4.1).
    const packet = { from: 0, to: 0xff_ff_ff_ff, wanted: { protocol: 'udp', port: 67 } } as const;
    const verdict = decide(plan, device, packet, { from: { vlan }, to: { gateway: true } }, today);
    if (!verdict.passes) return `its filter drops the question: ${verdict.why}`;
  }
  const place = placeOf(plan, device.id);
  if (place.kind === 'assumed') return null;
  const { why, hops } = deliver(plan, place, vlan, client, vlan);
  if (why !== null) return `its answer does not get back: ${why}`;
  const asks = passagesOf(anyGuards(plan) ? deliver(plan, client, vlan, place, vlan).hops : []);
  const [stopped] = [...requestStops(plan, asks), ...offerStops(plan, passagesOf(hops))];
  if (stopped) return stopped.why;
  return by && isMarked(plan, asks) ? 'it drops requests that carry option 82 already' : null;
}

/** The way of a relay to a server and back, from the address it has among the clients (RFC 2131, 4.1); null when it gets through. */
function relayFails(
  plan: Plan,
  relay: Interface,
  vlan: string,
  server: IpAddress,
  today: string | null,
): string | null {
  const own = addressesOn(plan, relay.id).find(
    ({ address, subnet }) => familyOf(address) === 4 && plan.subnet.get(subnet)!.vlan === vlan,
  );
  if (!own) return 'the relay has no address in this segment';
  const router = routersIn(plan).get(relay.device);
  const packet = {
    from: own.address,
    to: server,
    wanted: { protocol: 'udp', port: 67 },
    reply: false,
  } as const;
  const { stop } = converse(plan, today, { newcomers: [], over: new Map() }, packet, (walk) =>
    router ? walk.fromRouter(router) : walk.fromHost(hostAt(plan, own)),
  );
  if (stop === null) return null;
  const way = stop.way === 'forth' ? 'does not get through' : 'gets no answer';
  return `the relay ${way}: ${stop.what}: ${stop.why}`;
}

/** What one who is asked answers: its offer, or what stands in the way; nothing where it has no pool for the segment. */
function answerOf(
  plan: Plan,
  asked: Asked,
  client: Place,
  mac: string | null,
  today: string | null,
): Hearing | null {
  const { item, vlan, by } = asked;
  const nameOf = ({ device }: Interface) => plan.device.get(device)!.name;
  const pools = poolsOf(plan, item.id, vlan);
  const hearing = {
    name: nameOf(item),
    on: { table: 'interface' as const, id: item.id },
    by: by && nameOf(by),
    rogue: false,
    assumed: placeOf(plan, (by ?? item).device).kind === 'assumed',
  };
  const silent = (why: string): Hearing => ({ ...hearing, offer: null, pool: null, why });
  if (by) {
    const at = addressesOn(plan, item.id).find(({ address }) => familyOf(address) === 4);
    const fails = at ? relayFails(plan, by, vlan, at.address, today) : 'the server has no address';
    if (fails !== null) return silent(fails);
    if (pools.length === 0) return silent('it has no pool for this segment');
  }
  const [pool] = pools;
  if (!pool) return null;
  const why = unheard(plan, { ...asked, item: by ?? item }, client, today);
  return why === null
    ? { ...hearing, ...answer(plan, plan.subnet.get(pool.subnet)!, pools, mac) }
    : silent(why);
}

/** Does a card stand in a segment, with ports that nobody recorded? Then it is taken to hear what is said there. */
const isTakenToHear = (plan: Plan, item: Interface, vlan: string): boolean =>
  placeOf(plan, item.device).kind === 'assumed' &&
  [item.vlan, ...addressesOn(plan, item.id).map(({ subnet }) => plan.subnet.get(subnet)!.vlan)].includes(
    vlan,
  );

/** The servers of a segment, each once. */
const serversOf = (plan: Plan, vlan: string): Interface[] =>
  [
    ...new Set(
      subnetsOf(plan, vlan).flatMap(({ id }) =>
        [...plan.pool.group(id).values()].flatMap(({ servedBy }) => servedBy),
      ),
    ),
  ].map((id) => plan.interface.get(id)!);

/** What a client sends: the segment it lands in, and how far it is heard. */
export interface Discover {
  readonly place: Place;
  readonly landed: Vlan | null;
  readonly covered: Flood;
  readonly mac: string | null;
}

/** Everybody whom the discover of a client gets to, and what they make of it. */
export function hearingsOf(
  plan: Plan,
  { place, landed, covered, mac }: Discover,
  today: string | null,
): Hearing[] {
  const asked: Asked[] = [];
  const relayed = (by: Interface, vlan: string) => {
    for (const relay of plan.relay.values())
      if (relay.interface === by.id)
        for (const id of relay.servers) asked.push({ item: plan.interface.get(id)!, vlan, by });
  };
  for (const { item, vlan } of listeners(plan, covered)) {
    for (const own of segmentsOf(plan, { id: item.id, vlan })) asked.push({ item, vlan: own, by: null });
    if (vlan !== null) relayed(item, vlan);
  }
  if (landed) {
    for (const item of serversOf(plan, landed.id))
      if (isTakenToHear(plan, item, landed.id)) asked.push({ item, vlan: landed.id, by: null });
    for (const { interface: id } of plan.relay.values()) {
      const item = plan.interface.get(id)!;
      if (isTakenToHear(plan, item, landed.id)) relayed(item, landed.id);
    }
  }
  return asked.flatMap((one) => answerOf(plan, one, place, mac, today) ?? []);
}
