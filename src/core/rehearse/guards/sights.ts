import { type Family, type IpAddress, familyOf } from '../../address';
import {
  type Address,
  type Interface,
  type Plan,
  addressesOf,
  addressesOn,
  derive,
  deriveBy,
  despite,
  equal,
  gatewaysOf,
  groupBy,
  interfacesOf,
  subnetsOf,
} from '../../plan';
import { segmentsOf } from '../../model/hosts';
import { type VlanGuards, anyGuards } from '../../model/guards';
import { fabric, landsIn, untouched, vidsOf } from '../../model/switching';
import { carries } from '../../model/wiring';
import { accessPointOf } from '../../model/wireless';
import { type Place, placeOf, socketPort, wayOf } from '../frames';
import {
  type GuardStop,
  type Passage,
  type Sender,
  advertStops,
  arpStops,
  isMarked,
  offer6Stops,
  offerStops,
  packet6Stops,
  packetStops,
  passagesOf,
  requestStops,
} from './at-hop';

/** What boxes on the way see of everybody in a segment, and whom their guards stop, now. */

export type Guarded = keyof VlanGuards;

/** Something that somebody in a segment says, box by box on its way, and where a guard stops it. */
export interface Sight {
  /** The device that says it. */
  readonly device: string;
  readonly vlan: string;
  /** Null for who is leased an address that nobody recorded, or makes one for itself. */
  readonly address: IpAddress | null;
  /** The record of the address. */
  readonly record: string | null;
  readonly says:
    'answers of DHCP' | 'requests of DHCP' | 'ARP' | 'IPv6' | 'router advertisements' | 'answers of DHCPv6';
  readonly way: readonly Passage[];
  /** Where guards stop it, the first of them in fact and the others were it to get there. */
  readonly stops: readonly (GuardStop & { readonly guard: Guarded })[];
  /** Who goes without when it is stopped, besides who says it. */
  readonly to: readonly string[];
}

interface Leaser {
  readonly item: Interface;
  readonly relays: boolean;
}
/** The cards in a segment that may answer DHCP clients there or pass answers on: servers, and relays. */
export const leasersIn = deriveBy((plan, vlan: string): readonly Leaser[] => {
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
});

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

/** Those with an address of one family. */
const holdersIn = (plan: Plan, vlan: string, family: Family): Talker[] =>
  subnetsOf(plan, vlan).flatMap(({ id }) =>
    addressesOf(plan, id).flatMap((address) => {
      const { device } = plan.interface.get(address.interface)!;
      // A pair that shares an address sends for it as whoever holds it at the time.
      return familyOf(address.address) === family && address.assignment !== 'virtual'
        ? [{ device, place: placeOf(plan, device), address, leased: address.assignment === 'reservation' }]
        : [];
    }),
  );
const talkersIn = (plan: Plan, vlan: string): Talker[] => [
  ...holdersIn(plan, vlan, 4),
  ...leasingDevices(plan, vlan).map((device) => ({
    device,
    place: placeOf(plan, device),
    address: null,
    leased: true,
  })),
];

/** Are IPv6 addresses leased in a segment (RFC 8415)? */
export const leasesSix = (plan: Plan, vlan: string): boolean =>
  subnetsOf(plan, vlan).some(
    ({ id, prefix }) =>
      familyOf(prefix.address) === 6 &&
      [...plan.pool.group(id).values()].some(({ servedBy }) => servedBy.length > 0),
  );

/** Who speaks IPv6: those with such an address, and devices that are leased one or make one from what a router announces. */
function talkersOverSix(plan: Plan, vlan: string, talkers: readonly Talker[]): Talker[] {
  const leased = leasesSix(plan, vlan);
  const announced = subnetsOf(plan, vlan).some(
    ({ prefix, advertised }) => advertised && familyOf(prefix.address) === 6,
  );
  const held = holdersIn(plan, vlan, 6);
  if (!leased && !announced) return held;
  const known = new Set(held.map(({ device }) => device));
  // A box takes no address from what another announces.
  const others = talkers.filter(({ device, place }) => place.kind !== 'inside' && !known.has(device));
  return [
    ...held,
    ...[...new Map(others.map((talker) => [talker.device, talker])).values()].map(({ device, place }) => ({
      device,
      place,
      address: null,
      leased,
    })),
  ];
}

/** A segment in which people talk. */
class Segment {
  readonly plan: Plan;
  readonly vlan: string;
  /** The VLANs that what is said there comes through. */
  readonly vids: Set<number>;

  constructor(plan: Plan, vlan: string) {
    this.plan = plan;
    this.vlan = vlan;
    this.vids = new Set([plan.vlan.get(vlan)!.vid]);
  }

  /** The way of a frame; null where it does not get there anyway, or nobody recorded by which boxes. */
  way(from: Place, to: Place): readonly Passage[] | null {
    const found = wayOf(this.plan, from, this.vlan, to);
    if (!found) return null;
    for (const vid of vidsOf(found.flood.came)) this.vids.add(vid);
    return found.hops && found.hops.length > 0 ? passagesOf(found.hops) : null;
  }
}

const guardedBy = (stops: readonly GuardStop[], guard: Guarded): Sight['stops'] =>
  stops.map((stop) => ({ ...stop, guard }));

/** The same, said to several and stopped at the same place, told once. */
function gathered(sights: readonly Sight[]): readonly Sight[] {
  if (sights.length < 2) return sights;
  const groups = new Map<string, Sight & { to: string[] }>();
  for (const sight of sights) {
    const key = `${sight.device} ${sight.address} ${sight.stops.map(({ port }) => port).join(',')}`;
    const known = groups.get(key);
    if (known) known.to.push(...sight.to);
    else groups.set(key, { ...sight, to: [...sight.to] });
  }
  return [...groups.values()];
}

/** What the servers and relays of a segment say to its clients. */
const answering = (segment: Segment, clients: readonly Talker[]): Sight[] =>
  leasersIn(segment.plan, segment.vlan).flatMap(({ item: { device } }) =>
    saidTo(segment, device, clients, {
      says: 'answers of DHCP',
      stopped: (way) => guardedBy(offerStops(segment.plan, way), 'snooping'),
    }),
  );

interface Saying {
  readonly says: Sight['says'];
  readonly stopped: (way: readonly Passage[]) => Sight['stops'];
}
/** What a server or a router says to everybody else in a segment. */
function saidTo(
  segment: Segment,
  device: string,
  to: readonly Talker[],
  { says, stopped }: Saying,
): readonly Sight[] {
  const place = placeOf(segment.plan, device);
  const said = { device, vlan: segment.vlan, address: null, record: null, says };
  return gathered(
    to.flatMap((other): Sight[] => {
      const way = other.device === device ? null : segment.way(place, other.place);
      return way ? [{ ...said, way, stops: stopped(way), to: [other.device] }] : [];
    }),
  );
}

/** What the clients of a segment ask its servers and relays. */
const asking = (segment: Segment, clients: readonly Talker[]): Sight[] => {
  const { plan, vlan } = segment;
  return leasersIn(plan, vlan).flatMap(({ item, relays }) =>
    clients.flatMap((client): Sight[] => {
      const way =
        client.device === item.device ? null : segment.way(client.place, placeOf(plan, item.device));
      if (!way) return [];
      const { port } = way.at(-1)!;
      const marked: GuardStop[] =
        relays && port !== null && isMarked(plan, way)
          ? [
              {
                device: item.device,
                port,
                why: `${plan.device.get(item.device)!.name} relays, and drops requests that carry option 82 already`,
              },
            ]
          : [];
      const stops = guardedBy([...requestStops(plan, way), ...marked], 'option82');
      return [{ ...said(client, vlan), says: 'requests of DHCP', way, stops, to: [] }];
    }),
  );
};

const said = ({ device, address }: Talker, vlan: string) => ({
  device,
  vlan,
  address: address?.address ?? null,
  record: address?.id ?? null,
});

const senderOf = ({ address, leased }: Talker): Sender => ({
  address: address?.address ?? null,
  records: address ? [address.id] : [],
  leased,
});

interface Speech {
  readonly says: 'ARP' | 'IPv6';
  readonly stopped: (way: readonly Passage[], sender: Sender) => Sight['stops'];
}
/** What everybody says to whom they need most: their gateway, else the first neighbour. */
function speaking(segment: Segment, talkers: readonly Talker[], { says, stopped }: Speech): Sight[] {
  const { plan, vlan } = segment;
  const gateways = new Set(
    subnetsOf(plan, vlan).flatMap(({ id }) => gatewaysOf(plan, id).map(({ interface: card }) => card)),
  );
  const leads = ({ address }: Talker) => address !== null && gateways.has(address.interface);
  const leading = talkers.filter(leads);
  return talkers.flatMap((talker): readonly Sight[] => {
    const isOther = ({ device }: Talker) => device !== talker.device;
    const led = leads(talker);
    const targets = led ? talkers.filter(isOther) : [leading.find(isOther) ?? talkers.find(isOther)];
    const sender = senderOf(talker);
    return gathered(
      targets.flatMap((other): Sight[] => {
        const way = other && segment.way(talker.place, other.place);
        if (!way) return [];
        const stops = stopped(way, sender);
        return [{ ...said(talker, vlan), says, way, stops, to: led ? [other.device] : [] }];
      }),
    );
  });
}

/** ARP and packets. */
const speakingFour = (segment: Segment, talkers: readonly Talker[]): Sight[] =>
  speaking(segment, talkers, {
    says: 'ARP',
    stopped: (way, sender) => [
      ...guardedBy(arpStops(segment.plan, way, sender), 'inspection'),
      ...guardedBy(packetStops(segment.plan, way, sender), 'sourceGuard'),
    ],
  });

/** What routers and servers say over IPv6. */
function speakingSix(segment: Segment, talkers: readonly Talker[]): Sight[] {
  const { plan, vlan } = segment;
  const six = subnetsOf(plan, vlan).filter(({ prefix }) => familyOf(prefix.address) === 6);
  const announcing = six
    .filter(({ advertised }) => advertised)
    .flatMap(({ id }) => gatewaysOf(plan, id).map(({ interface: card }) => card));
  const serving = six
    .flatMap(({ id }) => [...plan.pool.group(id).values()].flatMap(({ servedBy }) => servedBy))
    .filter((id) => segmentsOf(plan, plan.interface.get(id)!).includes(vlan));
  const by = (cards: readonly string[], saying: Saying) =>
    [...new Set(cards.map((card) => plan.interface.get(card)!.device))].flatMap((device) =>
      saidTo(segment, device, talkers, saying),
    );
  return [
    ...speaking(segment, talkersOverSix(plan, vlan, talkers), {
      says: 'IPv6',
      stopped: (way, sender) => guardedBy(packet6Stops(plan, way, sender), 'sourceGuard6'),
    }),
    ...by(announcing, {
      says: 'router advertisements',
      stopped: (way) => guardedBy(advertStops(plan, way), 'raGuard'),
    }),
    ...by(serving, {
      says: 'answers of DHCPv6',
      stopped: (way) => guardedBy(offer6Stops(plan, way), 'dhcp6Guard'),
    }),
  ];
}

interface Said {
  readonly sights: readonly Sight[];
  readonly vids: ReadonlySet<number>;
}
const saidIn = deriveBy(
  (plan, vlan: string): Said => {
    const segment = new Segment(plan, vlan);
    const talkers = talkersIn(plan, vlan);
    const clients = talkers.filter(({ leased }) => leased);
    const sights = [
      ...answering(segment, clients),
      ...asking(segment, clients),
      ...speakingFour(segment, talkers),
      ...speakingSix(segment, talkers),
    ];
    return { sights, vids: segment.vids };
  },
  equal,
  // Each flood is a part of its own; beside them only ports are asked whether its VLANs leave there.
  despite(fabric, ({ vids }: Said, was, is) => untouched(vids, was, is)),
);
/** Everything that is said in a segment which guards look at. */
export const sightsIn = (plan: Plan, vlan: string): readonly Sight[] => saidIn(plan, vlan).sights;

/** What guards stop in a segment. */
export const stoppedIn = deriveBy((plan, vlan: string): readonly Sight[] =>
  anyGuards(plan) ? sightsIn(plan, vlan).filter(({ stops }) => stops.length > 0) : [],
);

/** Why the address of somebody is kept from its gateway by guards, by the record of the address. */
export const cutOffIn = deriveBy((plan, vlan: string): ReadonlyMap<string, string> => {
  const cut = new Map<string, string>();
  for (const { says, record, to, stops } of stoppedIn(plan, vlan)) {
    if (says !== 'ARP' && says !== 'IPv6') continue;
    const family = says === 'ARP' ? 4 : 6;
    const stop = stops[0]!;
    if (record !== null && to.length === 0) cut.set(record, stop.why);
    for (const device of to)
      for (const item of interfacesOf(plan, device))
        for (const { id, subnet, address } of addressesOn(plan, item.id))
          if (plan.subnet.get(subnet)!.vlan === vlan && familyOf(address) === family) cut.set(id, stop.why);
  }
  return cut;
});

/** Does a box carry a segment at any of its ports? */
export const vlanIsAt = (plan: Plan, device: string, vlan: string): boolean =>
  [...plan.port.group(device).values()].some((port) => port.number > 0 && carries(port, vlan));
