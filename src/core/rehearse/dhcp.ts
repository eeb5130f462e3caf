import { formatAddress } from '../address';
import { portsTitle, type Flood, flood } from '../model/wiring';
import { type Remedy, type Plan, type Vlan, addressesOn, gatewaysOf, subnetOf, portTitle } from '../plan';
import { carryRemedy } from './remedies';
import { missingPorts, fabric, landsIn } from '../model/switching';
import { type Entry, heardFrom, landsAt, placeAt, reachesEntry } from './entry';
import { deliver, reachesPlug } from './frames';
import { offerStops, passagesOf } from './guards/at-hop';
import { type Hearing, hearingsOf } from './lease-offers';

/** DHCP (RFC 2131) as a client at a port or on the air lives through it: who hears its discover, and what each of them answers. */

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
  readonly at: Entry;
  /** Null for a laptop nobody knows. */
  readonly mac: string | null;
  /** A port into which somebody plugged a server of their own. */
  readonly rogueAt: string | null;
}

/** A server somebody brought along: what such boxes hand out as they come. */
function rogueHearing(plan: Plan, client: Client, landed: Vlan | null, covered: Flood): Hearing | null {
  if (client.rogueAt === null) return null;
  const port = plan.port.get(client.rogueAt)!;
  const hears = reachesPlug(plan, covered, port);
  // Its offer has to get back as well.
  const back = reachesEntry(plan, flood(fabric(plan), { port: port.id, tag: 0 }), client.at, landed);
  if (!hears || !back) return null;
  const own = 0xc0a80001;
  const stray = {
    name: `stray router in ${portTitle(plan, port)}`,
    on: { table: 'port', id: port.id },
    by: null,
    rogue: true,
    pool: null,
    assumed: false,
  } as const;
  const { vlan } = landsIn(plan, port);
  const hops =
    landed && vlan
      ? deliver(plan, placeAt(plan, { port: port.id }), vlan.id, placeAt(plan, client.at), landed.id).hops
      : [];
  const [stopped] = offerStops(plan, passagesOf(hops));
  if (stopped) return { ...stray, offer: null, why: stopped.why };
  return {
    ...stray,
    offer: {
      address: own + 99,
      length: 24,
      gateway: own,
      dns: [formatAddress(own)],
      domain: '',
      seconds: 86_400,
    },
    why: 'nothing keeps it from answering: it offers its own network, and itself as the gateway',
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
 * Plugs a client into a port, or lets it join a wireless network, and lets its discover run (RFC 2131 section 3.1). Every server or relay that hears it is
 * listed; with two that know nothing of each other the client takes whichever is faster, so the first that is no stranger
 * is only what is hoped for.
 */
export function discover(plan: Plan, client: Client, today: string | null = null): Discovery {
  const { vlan, why: unlanded } = landsAt(plan, client.at);
  const covered = heardFrom(plan, client.at, vlan);
  const place = placeAt(plan, client.at);
  const hearings = hearingsOf(plan, { place, landed: vlan, covered, mac: client.mac }, today);
  const rogue = rogueHearing(plan, client, vlan, covered);
  if (rogue) hearings.push(rogue);
  const offering = hearings.filter(({ offer }) => offer !== null);
  const taken = offering.find((hearing) => !hearing.rogue) ?? offering[0] ?? null;
  if (!taken) {
    const why = hearings.find((hearing) => hearing.why && !hearing.rogue);
    if (why)
      return {
        vlan,
        hearings,
        taken,
        summary: `No address: ${why.name}: ${why.why}`,
        remedies: why.pool ? widen(plan, vlan) : [],
      };
    if (!vlan) return { vlan, hearings, taken, summary: `No address: ${unlanded}`, remedies: [] };
    const { summary, remedies } = silence(plan, vlan);
    return { vlan, hearings, taken, summary: `No address: ${summary}`, remedies };
  }
  const { address, length } = taken.offer!;
  const strangers = rogue?.offer ? `; the ${rogue.name} answers too, and the faster one is believed` : '';
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
