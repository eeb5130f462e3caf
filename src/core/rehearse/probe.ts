import { type IpAddress, familyOf, formatAddress } from '../address';
import {
  type Remedy,
  type Plan,
  type Forward,
  type Uplink,
  type Zone,
  portTitle,
  addressesOn,
  interfacesOf,
  subnetsOf,
} from '../plan';
import { type Wanted, filterOf, wantedText } from '../model/policy';
import { holdersOf, routersIn } from '../model/routing';
import { plugIn } from '../model/switching';
import { protocolsMeet, forwardsOf, uplinksOf, letsForwardsIn } from '../model/uplink';
import { type Host, farAddress, hostAt, newcomer, outsideAddress } from './host';
import type { Arrival, Conversation, Packet, PacketStep, Stop, Trip, Wired } from './conversation';
import { PacketWalk, forwardFor } from './packet-walk';

/** One question: may this one reach that one by a service, and does the answer come back? */
export type Sender =
  | { readonly port: string }
  | { readonly device: string }
  | { readonly vlan: string }
  | { readonly internet: true };
export type Receiver =
  | { readonly device: string }
  | { readonly address: IpAddress }
  | { readonly vlan: string }
  | { readonly internet: true }
  | { readonly gateway: true };
export interface ProbeQuestion {
  readonly from: Sender;
  readonly to: Receiver;
  readonly wanted: Wanted;
}

export interface Answer {
  readonly delivered: boolean;
  readonly forth: readonly PacketStep[];
  /** The way of the answer; empty when the question did not arrive. */
  readonly back: readonly PacketStep[];
  /** `on`: question and answer arrive, and what would follow does not. */
  readonly stop: (Stop & { readonly way: 'forth' | 'back' | 'on' }) | null;
  /** One sentence. */
  readonly summary: string;
  /** What would let it through; empty where that is no single change. */
  readonly remedies: readonly Remedy[];
  /** Something on the way is not recorded and was taken to be as it should. */
  readonly assumed: boolean;
  /** The wires it was to go over, forth and back. */
  readonly wires: readonly Wired[];
}

const failed = (what: string, why: string, remedies: readonly Remedy[] = []): Answer => ({
  delivered: false,
  forth: [{ what, came: '', left: '', decision: why, result: 'stops', on: null }],
  back: [],
  stop: { what, why, on: null, remedies, verdict: null, way: 'forth' },
  summary: `Stopped at ${what}: ${why}`,
  remedies,
  assumed: false,
  wires: [],
});

/** Who sends, or why there is nobody to send. */
function senderHost(plan: Plan, from: Sender, to: IpAddress | null): Host | string {
  if ('internet' in from) return 'the Internet is no host';
  if ('port' in from) {
    const port = plan.port.get(from.port)!;
    const plugged = plugIn(plan, port);
    const title = `a laptop in ${portTitle(plan, port)}`;
    if (!plugged.vlan || !plugged.addressed) return plugged.sentence;
    const family = to === null ? undefined : familyOf(to);
    const host = newcomer(plan, plugged.vlan.id, { kind: 'plug', port }, title, family, to);
    return host ?? 'no address is left in the segment it lands in';
  }
  if ('vlan' in from) {
    const { name } = plan.vlan.get(from.vlan)!;
    const host = newcomer(
      plan,
      from.vlan,
      { kind: 'assumed', device: null },
      `a laptop in ${name}`,
      to === null ? undefined : familyOf(to),
      to,
    );
    return host ?? `${name} has no addresses`;
  }
  const addresses = interfacesOf(plan, from.device).flatMap((item) => addressesOn(plan, item.id));
  const { name } = plan.device.get(from.device)!;
  const fitting = addresses.filter(({ address }) => to === null || familyOf(address) === familyOf(to));
  // A box with several addresses sends from the one that is in the network of the receiver, if there is one.
  const near = fitting.find(({ subnet }) => {
    const held = to === null ? [] : holdersOf(plan, to);
    return held.some((other) => other.subnet === subnet);
  });
  const chosen = near ?? fitting[0];
  return chosen ? hostAt(plan, chosen) : `${name} has no address`;
}

/** In a segment somebody who is there already is the best witness; where nobody is, a device as it would be leased. */
function inSegment(plan: Plan, vlan: string): IpAddress | Host | string {
  const { name } = plan.vlan.get(vlan)!;
  for (const subnet of subnetsOf(plan, vlan)) {
    const known = [...plan.address.group(subnet.id).values()].find(({ gateway }) => !gateway);
    if (known) return known.address;
  }
  return (
    newcomer(plan, vlan, { kind: 'assumed', device: null }, `a device in ${name}`) ??
    `${name} has no addresses`
  );
}

/** The address asked for, or who is imagined there, or why there is nobody. The gateway answers for nobody but itself. */
function receiverAddress(plan: Plan, from: Sender, to: Receiver): IpAddress | Host | string {
  if ('address' in to) return to.address;
  if ('internet' in to) return farAddress(plan);
  if ('gateway' in to) {
    if ('internet' in from) {
      const uplink = uplinksOf(plan).find(({ enabled }) => enabled);
      return uplink ? outsideAddress(plan, uplink) : 'no uplink is on';
    }
    const host = senderHost(plan, from, null);
    return typeof host === 'string' ? host : (host.gateway ?? `${host.title} has no gateway`);
  }
  if ('vlan' in to) return inSegment(plan, to.vlan);
  const addresses = interfacesOf(plan, to.device).flatMap((item) => addressesOn(plan, item.id));
  const { name } = plan.device.get(to.device)!;
  return addresses[0]?.address ?? `${name} has no address`;
}

/** The forward by which the Internet gets to a device for a service, or why it does not. */
function forwardTo(
  plan: Plan,
  device: string | null,
  to: IpAddress,
  wanted: Wanted,
):
  | { readonly uplink: Uplink; readonly forward: Forward | null; readonly port: number }
  | { readonly why: string; readonly remedies: readonly Remedy[] } {
  const uplinks = uplinksOf(plan).filter(({ enabled }) => enabled);
  const outside = uplinks.find((uplink) => outsideAddress(plan, uplink) === to);
  if (outside) {
    return { uplink: outside, forward: forwardFor(plan, outside, wanted), port: wanted.port };
  }
  let closed: string | null = null;
  for (const uplink of uplinks)
    for (const forward of forwardsOf(plan, uplink.id)) {
      const last = forward.inside + forward.to - forward.from;
      const fits = wanted.protocol !== 'icmp' && protocolsMeet(forward.protocol, wanted.protocol);
      if (!forward.enabled || !fits || wanted.port < forward.inside || wanted.port > last) continue;
      const target = plan.interface.get(forward.target)!.device;
      if (
        device === null
          ? !addressesOn(plan, forward.target).some(({ address }) => address === to)
          : target !== device
      )
        continue;
      const letting = letsForwardsIn(uplink);
      if (letting.works !== false)
        return { uplink, forward, port: forward.from + (wanted.port - forward.inside) };
      closed = `${uplink.name}: ${letting.why}`;
    }
  if (closed !== null) return { why: closed, remedies: [] };
  const open = uplinks.find((uplink) => letsForwardsIn(uplink).works !== false);
  const card =
    device === null
      ? undefined
      : interfacesOf(plan, device).find((item) => addressesOn(plan, item.id).length > 0);
  const name = device === null ? formatAddress(to) : plan.device.get(device)!.name;
  return {
    why: `no forward leads to ${name} for ${wantedText(wanted)}`,
    remedies:
      open && card && wanted.protocol !== 'icmp'
        ? [
            {
              label: `Forward a port of ${open.name} to ${name}`,
              operation: 'addForward',
              input: { uplink: open.id, target: card.id, inside: wanted.port, protocol: wanted.protocol },
            },
          ]
        : [],
  };
}

/** The trip of the answer, from where the question arrived. */
function answerTrip(plan: Plan, today: string | null, forth: Trip, talk: Conversation): Trip {
  const { arrival, packet } = forth;
  const reply: Packet = { ...packet, from: packet.to, to: packet.from, reply: true };
  const traveller = new PacketWalk(plan, today, reply, talk);
  const at = arrival as Arrival;
  switch (at.at) {
    case 'host':
      return traveller.fromHost(at.host);
    case 'router':
      return traveller.fromRouter(at.router);
    case 'internet':
      return traveller.fromUplink(at.router, at.uplink, null);
    case 'tunnel':
      return traveller.fromTunnel(at.router, at.tunnel);
  }
}

/**
 * A connection of TCP stands after three segments (RFC 9293, 3.5). The third goes the way of the first: a box that keeps track
 * saw the first there, and where the second took another way it takes the third for nothing that belongs to a connection.
 */
function thirdSegment(plan: Plan, { seen, answered }: Conversation): Stop | null {
  for (const id of seen) {
    const device = plan.device.get(id);
    if (!device || answered.has(id) || filterOf(plan, device) !== 'stateful') continue;
    const why =
      'the answer went back another way, so it never saw one and drops what follows; let both ways pass it, or neither';
    return { what: device.name, why, on: { table: 'device', id }, remedies: [], verdict: null };
  }
  return null;
}

/** A device or a segment, as a rule names them. */
type Named = { readonly device: string } | { readonly vlan: string };

/** Who asked, as a rule names them: a device or a segment. A laptop in a port is not told from others of its segment. */
const askedBy = (from: Sender): Named | null =>
  'device' in from ? { device: from.device } : 'vlan' in from ? { vlan: from.vlan } : null;

/** Who is asked, as a rule names them; a router itself is opened to no whole segment. */
function askedOf(plan: Plan, from: Sender, to: Receiver): Named | null {
  if ('vlan' in to) return { vlan: to.vlan };
  if (!('device' in to)) return null;
  return 'vlan' in from && routersIn(plan).has(to.device) ? null : { device: to.device };
}

/** Is a segment all that is in a zone? Then what is opened for the zone is opened for nobody else. */
const isAllOf = ({ vlans, uplinks, tunnels, gateway }: Zone, vlan: string): boolean =>
  vlans.length === 1 && vlans[0] === vlan && uplinks.length + tunnels.length === 0 && !gateway;

/** What would let a refused packet through, and nothing but what was asked. */
function letThrough(plan: Plan, question: ProbeQuestion, stop: Stop, host: Host | null): Remedy[] {
  const { verdict } = stop;
  if (!verdict) return [...stop.remedies];
  const { from, to, wanted } = question;
  const [asking, asked] = [askedBy(from), askedOf(plan, from, to)];
  // Nobody is let in from the Internet by a click.
  if (!asking || !asked || !host) return [];
  const name = 'vlan' in asking ? plan.vlan.get(asking.vlan)!.name : host.title;
  const remedies: Remedy[] = [
    {
      label: `Allow just this: ${wantedText(wanted)} from ${name} to ${nameOfReceiver(plan, to)}`,
      operation: 'letThrough',
      input: {
        from: [asking],
        to: [asked],
        match: { protocol: wanted.protocol, from: wanted.port, to: wanted.port },
      },
    },
  ];
  const { zones } = verdict;
  const whole =
    zones &&
    'vlan' in asking &&
    'vlan' in asked &&
    isAllOf(zones.from, asking.vlan) &&
    isAllOf(zones.to, asked.vlan);
  if (whole && verdict.on?.table !== 'rule')
    remedies.push({
      label: `Allow ${wantedText(wanted)} in the matrix, from ${zones.from.name} to ${zones.to.name}`,
      operation: 'letZoneThrough',
      input: {
        from: zones.from.id,
        to: zones.to.id,
        match: { protocol: wanted.protocol, from: wanted.port, to: wanted.port },
      },
    });
  return remedies;
}

export function nameOfReceiver(plan: Plan, to: Receiver): string {
  if ('internet' in to) return 'the Internet';
  if ('gateway' in to) return 'the gateway';
  if ('address' in to) return formatAddress(to.address);
  return 'vlan' in to ? plan.vlan.get(to.vlan)!.name : plan.device.get(to.device)!.name;
}

/** Sends the first packet of a conversation through the plan and its answer back, as real boxes with this plan would. */
export function probe(plan: Plan, question: ProbeQuestion, today: string | null = null): Answer {
  const { from, to, wanted } = question;
  const receiver = receiverAddress(plan, from, to);
  if (typeof receiver === 'string') return failed('the receiver', receiver);
  const imagined = typeof receiver === 'object' ? [receiver] : [];
  const address = typeof receiver === 'object' ? receiver.address : receiver;
  const conversation = (newcomers: readonly Host[]): Conversation => ({
    seen: new Set(),
    answered: new Set(),
    changed: [],
    wires: [],
    newcomers,
  });
  let talk = conversation(imagined);
  let forth: Trip;
  let host: Host | null = null;
  if ('internet' in from) {
    if ('internet' in to)
      return failed('the Internet', 'both are in the Internet, which is not this site’s to answer');
    const entry = forwardTo(plan, 'device' in to ? to.device : null, address, wanted);
    if ('why' in entry) return failed('the way in', entry.why, entry.remedies);
    const router = routersIn(plan).get(entry.uplink.device);
    if (!router) return failed(entry.uplink.name, 'the device of this uplink does not route');
    const sources = entry.forward?.sources ?? [];
    const packet: Packet = {
      from: sources[0]?.address ?? farAddress(plan),
      to: outsideAddress(plan, entry.uplink),
      wanted: { ...wanted, port: entry.port },
      reply: false,
    };
    forth = new PacketWalk(plan, today, packet, talk).fromUplink(router, entry.uplink, entry.forward);
  } else {
    const sender = senderHost(plan, from, address);
    if (typeof sender === 'string') return failed('the sender', sender);
    host = sender;
    if (sender.device === null) talk = conversation([sender, ...imagined]);
    const router = host.device && routersIn(plan).get(host.device.id);
    const packet: Packet = { from: host.address, to: address, wanted, reply: false };
    const traveller = new PacketWalk(plan, today, packet, talk);
    forth = router ? traveller.fromRouter(router) : traveller.fromHost(host);
  }
  const back = forth.stop ? null : answerTrip(plan, today, forth, talk);
  const third = back && !back.stop && wanted.protocol === 'tcp' ? thirdSegment(plan, talk) : null;
  const stop = forth.stop
    ? { ...forth.stop, way: 'forth' as const }
    : back?.stop
      ? { ...back.stop, way: 'back' as const }
      : third && { ...third, way: 'on' as const };
  const steps = [...forth.steps, ...(back?.steps ?? [])];
  const assumed = steps.some(({ result }) => result === 'assumed');
  const name = nameOfReceiver(plan, to);
  return {
    delivered: stop === null,
    forth: forth.steps,
    back: back?.steps ?? [],
    stop,
    summary:
      stop === null
        ? `Delivered: ${name} ${'internet' in to ? 'is reached' : 'answers'}${assumed ? ', as far as recorded' : ''}`
        : stop.way === 'forth'
          ? `Stopped at ${stop.what}: ${stop.why}`
          : stop.way === 'back'
            ? `The question arrives, the answer does not: ${stop.what}: ${stop.why}`
            : `The question arrives and is answered, and no more: ${stop.what}: ${stop.why}`,
    remedies: stop ? letThrough(plan, question, stop, host) : [],
    assumed,
    wires: talk.wires,
  };
}
