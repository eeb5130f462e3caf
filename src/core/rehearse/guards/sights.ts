import { familyOf, type IpAddress } from '../../address';
import {
  type Address,
  type Interface,
  type Plan,
  addressesOf,
  addressesOn,
  derive,
  deriveBy,
  gatewaysOf,
  groupBy,
  interfacesOf,
  subnetsOf,
} from '../../plan';
import { segmentsOf } from '../../model/hosts';
import { type VlanGuards, anyGuards } from '../../model/guards';
import { type Hop, landsIn } from '../../model/switching';
import { carries } from '../../model/wiring';
import { accessPointOf } from '../../model/wireless';
import { type Place, deliver, placeOf, socketPort } from '../frames';
import {
  type GuardStop,
  type Sender,
  advertStops,
  arpStops,
  isMarked,
  offer6Stops,
  offerStops,
  packetStops,
  requestStops,
} from './at-hop';

/** What boxes on the way see of everybody in a segment, and whom their guards stop, now. */

export type Guarded = keyof VlanGuards;

/** Something that somebody in a segment says, box by box on its way, and where a guard stops it. */
export interface Sight {
  /** The device that says it. */
  readonly device: string;
  readonly vlan: string;
  /** Null for who is leased an address that nobody recorded. */
  readonly address: IpAddress | null;
  /** The record of the address. */
  readonly record: string | null;
  readonly says:
    'answers of DHCP' | 'requests of DHCP' | 'ARP' | 'router advertisements' | 'answers of DHCPv6';
  readonly hops: readonly Hop[];
  /** Where guards stop it, the first of them in fact and the others were it to get there. */
  readonly stops: readonly (GuardStop & { readonly guard: Guarded })[];
  /** Who goes without when it is stopped, besides who says it. */
  readonly to: readonly string[];
}

/** The cards in a segment that may answer DHCP clients there or pass answers on: servers, and relays. */
export function leasersIn(
  plan: Plan,
  vlan: string,
): { readonly item: Interface; readonly relays: boolean }[] {
  const own = subnetsOf(plan, vlan).flatMap(({ id }) =>
    [...plan.pool.group(id).values()].flatMap(({ start, servedBy }) =>
      familyOf(start) === 4 ? servedBy : [],
    ),
  );
  const relays = new Set([...plan.relay.values()].map(({ interface: id }) => id));
  // A server says to a relay what it says to a client.
  const asked = [...plan.relay.values()].flatMap(({ servers }) => servers);
  return [...new Set([...own, ...asked, ...relays])]
    .map((id) => plan.interface.get(id)!)
    .filter((item) => segmentsOf(plan, item).includes(vlan))
    .map((item) => ({ item, relays: relays.has(item.id) && !own.includes(item.id) }));
}

/** Somebody in a segment. */
interface Talker {
  readonly device: string;
  readonly place: Place;
  readonly address: Address | null;
  readonly leased: boolean;
}

/** Where a card without an address ends up: by its cable, or on the air. */
function landingOf(plan: Plan, device: string): string | null {
  const joined = accessPointOf(plan, device);
  if (joined) return plan.ssid.get(joined.ssid)!.vlan;
  const port = socketPort(plan, device);
  return port ? (landsIn(plan, port).vlan?.id ?? null) : null;
}

/** The devices for which no address is recorded. */
const bareDevices = derive((plan): readonly string[] => {
  const held = new Set<string>();
  for (const { interface: card } of plan.address.values()) held.add(card);
  const addressed = new Set<string>();
  for (const { id, device } of plan.interface.values()) if (held.has(id)) addressed.add(device);
  return [...plan.device.values()].flatMap(({ id }) => (addressed.has(id) ? [] : [id]));
});
/** Those of them that take whatever address they are leased, by the segment they land in. */
const leasing = derive((plan): ReadonlyMap<string, readonly string[]> => {
  const landed = bareDevices(plan).flatMap((device) => {
    const { kind } = placeOf(plan, device);
    const vlan = kind === 'socket' || kind === 'air' ? landingOf(plan, device) : null;
    return vlan === null ? [] : [{ vlan, device }];
  });
  return new Map(
    [...groupBy(landed, ({ vlan }) => vlan)].map(([vlan, all]) => [vlan, all.map(({ device }) => device)]),
  );
});
const leasingDevices = deriveBy((plan, vlan: string): readonly string[] => leasing(plan).get(vlan) ?? []);

const talkersIn = (plan: Plan, vlan: string): Talker[] => [
  ...subnetsOf(plan, vlan).flatMap(({ id }) =>
    addressesOf(plan, id).flatMap((address) => {
      const { device } = plan.interface.get(address.interface)!;
      // A pair that shares an address sends for it as whoever holds it at the time.
      return familyOf(address.address) === 4 && address.assignment !== 'virtual'
        ? [{ device, place: placeOf(plan, device), address, leased: address.assignment === 'reservation' }]
        : [];
    }),
  ),
  ...leasingDevices(plan, vlan).map((device) => ({
    device,
    place: placeOf(plan, device),
    address: null,
    leased: true,
  })),
];

/** The way of a frame within a segment; null where it does not get there anyway, or nobody recorded by which boxes. */
function wayBetween(plan: Plan, from: Place, vlan: string, to: Place): readonly Hop[] | null {
  const { hops, why, assumed } = deliver(plan, from, vlan, to, vlan);
  return why === null && !assumed && hops.length > 0 ? hops : null;
}

const guardedBy = (stops: readonly GuardStop[], guard: Guarded): Sight['stops'] =>
  stops.map((stop) => ({ ...stop, guard }));

/** The same, said to several and stopped at the same place, told once. */
function gathered(sights: readonly Sight[]): Sight[] {
  const groups = new Map<string, Sight>();
  for (const sight of sights) {
    const key = `${sight.device} ${sight.address} ${sight.stops.map(({ port }) => port.id).join(',')}`;
    const known = groups.get(key);
    groups.set(key, known ? { ...known, to: [...known.to, ...sight.to] } : sight);
  }
  return [...groups.values()];
}

/** What the servers and relays of a segment say to its clients. */
const answering = (plan: Plan, vlan: string, clients: readonly Talker[]): Sight[] =>
  leasersIn(plan, vlan).flatMap(({ item: { device } }) =>
    saidTo(plan, vlan, device, clients, {
      says: 'answers of DHCP',
      stopped: (hops) => guardedBy(offerStops(plan, hops), 'snooping'),
    }),
  );

interface Saying {
  readonly says: Sight['says'];
  readonly stopped: (hops: readonly Hop[]) => Sight['stops'];
}
/** What a server or a router says to everybody else in a segment. */
function saidTo(
  plan: Plan,
  vlan: string,
  device: string,
  to: readonly Talker[],
  { says, stopped }: Saying,
): Sight[] {
  const place = placeOf(plan, device);
  return gathered(
    to.flatMap((other): Sight[] => {
      const hops = other.device === device ? null : wayBetween(plan, place, vlan, other.place);
      return hops
        ? [
            {
              device,
              vlan,
              address: null,
              record: null,
              says,
              hops,
              stops: stopped(hops),
              to: [other.device],
            },
          ]
        : [];
    }),
  );
}

/** What the clients of a segment ask its servers and relays. */
const asking = (plan: Plan, vlan: string, clients: readonly Talker[]): Sight[] =>
  leasersIn(plan, vlan).flatMap(({ item, relays }) =>
    clients.flatMap((client): Sight[] => {
      const hops =
        client.device === item.device
          ? null
          : wayBetween(plan, client.place, vlan, placeOf(plan, item.device));
      if (!hops) return [];
      const { entered } = hops.at(-1)!;
      const marked: GuardStop[] =
        relays && entered && isMarked(plan, hops)
          ? [
              {
                device: item.device,
                port: entered,
                why: `${plan.device.get(item.device)!.name} relays, and drops requests that carry option 82 already`,
              },
            ]
          : [];
      const stops = guardedBy([...requestStops(plan, hops), ...marked], 'option82');
      return [{ ...said(client, vlan), says: 'requests of DHCP', hops, stops, to: [] }];
    }),
  );

const said = ({ device, address }: Talker, vlan: string) => ({
  device,
  vlan,
  address: address?.address ?? null,
  record: address?.id ?? null,
});

const senderOf = ({ address, leased }: Talker): Sender => ({
  address: address?.address ?? 0,
  records: address ? [address.id] : [],
  leased,
});

/** ARP and packets of everybody to whom they need most: their gateway, else the first neighbour. */
function speaking(plan: Plan, vlan: string, talkers: readonly Talker[]): Sight[] {
  const gateways = new Set(
    subnetsOf(plan, vlan).flatMap(({ id }) => gatewaysOf(plan, id).map(({ interface: card }) => card)),
  );
  const isGateway = ({ address }: Talker) => address !== null && gateways.has(address.interface);
  return talkers.flatMap((talker): Sight[] => {
    const others = talkers.filter(({ device }) => device !== talker.device);
    const led = isGateway(talker);
    const targets = led ? others : [others.find(isGateway) ?? others[0]];
    const sender = senderOf(talker);
    return gathered(
      targets.flatMap((other): Sight[] => {
        const hops = other && wayBetween(plan, talker.place, vlan, other.place);
        if (!hops) return [];
        const stops = [
          ...guardedBy(arpStops(plan, hops, sender), 'inspection'),
          ...guardedBy(packetStops(plan, hops, sender), 'sourceGuard'),
        ];
        return [{ ...said(talker, vlan), says: 'ARP', hops, stops, to: led ? [other.device] : [] }];
      }),
    );
  });
}

/** What routers and servers say over IPv6. */
function speakingSix(plan: Plan, vlan: string, talkers: readonly Talker[]): Sight[] {
  const six = subnetsOf(plan, vlan).filter(({ prefix }) => familyOf(prefix.address) === 6);
  const announcing = six
    .filter(({ advertised }) => advertised)
    .flatMap(({ id }) => gatewaysOf(plan, id).map(({ interface: card }) => card));
  const serving = six
    .flatMap(({ id }) => [...plan.pool.group(id).values()].flatMap(({ servedBy }) => servedBy))
    .filter((id) => segmentsOf(plan, plan.interface.get(id)!).includes(vlan));
  const by = (cards: readonly string[], saying: Saying) =>
    [...new Set(cards.map((card) => plan.interface.get(card)!.device))].flatMap((device) =>
      saidTo(plan, vlan, device, talkers, saying),
    );
  return [
    ...by(announcing, {
      says: 'router advertisements',
      stopped: (hops) => guardedBy(advertStops(plan, hops), 'raGuard'),
    }),
    ...by(serving, {
      says: 'answers of DHCPv6',
      stopped: (hops) => guardedBy(offer6Stops(plan, hops), 'dhcp6Guard'),
    }),
  ];
}

/** Everything that is said in a segment which guards look at. */
export const sightsIn = deriveBy((plan, vlan: string): readonly Sight[] => {
  const talkers = talkersIn(plan, vlan);
  const clients = talkers.filter(({ leased }) => leased);
  return [
    ...answering(plan, vlan, clients),
    ...asking(plan, vlan, clients),
    ...speaking(plan, vlan, talkers),
    ...speakingSix(plan, vlan, talkers),
  ];
});

/** What guards stop in a segment. */
export const stoppedIn = deriveBy((plan, vlan: string): readonly Sight[] =>
  anyGuards(plan) ? sightsIn(plan, vlan).filter(({ stops }) => stops.length > 0) : [],
);

/** Why the address of somebody is kept from its gateway by guards, by the record of the address. */
export const cutOffIn = deriveBy((plan, vlan: string): ReadonlyMap<string, string> => {
  const cut = new Map<string, string>();
  for (const { says, record, to, stops } of stoppedIn(plan, vlan)) {
    if (says !== 'ARP') continue;
    const stop = stops[0]!;
    if (record !== null && to.length === 0) cut.set(record, stop.why);
    for (const device of to)
      for (const item of interfacesOf(plan, device))
        for (const { id, subnet } of addressesOn(plan, item.id))
          if (plan.subnet.get(subnet)!.vlan === vlan) cut.set(id, stop.why);
  }
  return cut;
});

/** Does a box carry a segment at any of its ports? */
export const vlanIsAt = (plan: Plan, device: string, vlan: string): boolean =>
  [...plan.port.group(device).values()].some((port) => port.number > 0 && carries(port, vlan));
