import { type IpAddress, familyOf, formatAddress, prefixFamily, usableRange } from '../address';
import type { Plan, Remedy, Uplink } from '../plan';
import { routersIn, uplinksOut } from '../model/routing';
import { letsForwardsIn, sharesOf, workingUplinks } from '../model/uplink';
import type { Packet, PacketStep, Wired } from './conversation';
import { type Course, type Setting, converse } from './converse';
import { type Host, farAddress } from './host';
import { letThrough } from './let-through';
import { type ProbeQuestion, type Receiver, nameOfReceiver } from './question';
import { addressesOfDevice, receiverAddress, senderHost } from './question-ends';
import { wayIn } from './way-in';

/** The course of a conversation through the plan, and what came of it. */

/** A query for a name (RFC 1035). */
const DNS = { protocol: 'udp', port: 53 } as const;

export interface Answer {
  /** Nothing that is recorded stops it, there or back. */
  readonly delivered: boolean;
  /** Does it work? Null where something decides that which nobody knows. */
  readonly works: boolean | null;
  readonly forth: readonly PacketStep[];
  /** The way of the answer; empty when the question did not arrive. */
  readonly back: readonly PacketStep[];
  readonly stop: Course['stop'];
  /** One sentence. */
  readonly summary: string;
  /** What would let it through; empty where that is no single change. */
  readonly remedies: readonly Remedy[];
  /** Something on the way is not recorded and was taken to be as it should. */
  readonly assumed: boolean;
  /** The uplink that this is true of, where traffic is shared and another one gives another answer. */
  readonly over: string | null;
  /** What to look at first where it fails all the same; null for nothing. */
  readonly caution: string | null;
  /** The wires it was to go over, forth and back. */
  readonly wires: readonly Wired[];
}

const failed = (what: string, why: string, remedies: readonly Remedy[] = []): Answer => ({
  delivered: false,
  works: false,
  forth: [{ what, came: '', left: '', decision: why, result: 'stops', on: null }],
  back: [],
  stop: { what, why, on: null, remedies, verdict: null, way: 'forth' },
  summary: `Stopped at ${what}: ${why}`,
  remedies,
  assumed: false,
  over: null,
  caution: null,
  wires: [],
});

/** Somebody outside comes by whatever lets them in. */
function fromOutside(
  plan: Plan,
  { to, wanted }: ProbeQuestion,
  address: IpAddress,
  today: string | null,
): Course | Answer {
  const entry = wayIn(plan, 'device' in to ? to.device : null, address, wanted);
  if ('why' in entry) return failed('the way in', entry.why, entry.remedies);
  const from = entry.forward?.sources[0]?.address ?? farAddress(plan, familyOf(entry.to));
  const packet: Packet = { from, to: entry.to, wanted: { ...wanted, port: entry.port }, reply: false };
  const nobody: Setting = { newcomers: [], over: new Map() };
  return converse(plan, today, nobody, packet, (walk) => walk.fromInternet(entry));
}

/** Somebody at the other end of a tunnel, where it comes up. */
function fromTunnel(
  plan: Plan,
  id: string,
  { wanted }: ProbeQuestion,
  to: IpAddress,
  newcomers: Setting['newcomers'],
  today: string | null,
): Course | Answer {
  const tunnel = plan.tunnel.get(id)!;
  const router = routersIn(plan).get(tunnel.device);
  const at = `the tunnel ${tunnel.name}`;
  if (!tunnel.enabled || !router)
    return failed(at, tunnel.enabled ? 'its device does not route' : 'it is switched off');
  const lines = router.uplinks.filter((uplink) => tunnel.uplink === null || tunnel.uplink === uplink.id);
  const [line] = lines;
  if (!line) return failed(at, 'the uplink it goes over does not work');
  const open = lines.find((uplink) => letsForwardsIn(uplink).works !== false);
  if (!tunnel.initiates && !open)
    return failed(
      at,
      `the other side opens it, and nothing gets in on ${line.name}: ${letsForwardsIn(line).why}`,
    );
  const net = tunnel.remote.find((prefix) => prefixFamily(prefix) === familyOf(to));
  if (!net) return failed(at, `nobody there has an IPv${familyOf(to)} address`);
  const packet: Packet = { from: usableRange(net).first, to, wanted, reply: false };
  return converse(plan, today, { newcomers, over: new Map() }, packet, (walk) => walk.fromTunnel(router, id));
}

/** The other uplinks that a conversation could have taken as well, each with the router that shares its traffic among them. */
function shared(plan: Plan, { forth, talk }: Course): { readonly router: string; readonly uplink: Uplink }[] {
  return [...talk.over].flatMap(([router, taken]) => {
    const all = uplinksOut(routersIn(plan).get(router)!, forth.packet.to);
    return all.some(({ id }) => id === taken)
      ? all.filter(({ id }) => id !== taken).map((uplink) => ({ router, uplink }))
      : [];
  });
}

interface Asked {
  readonly course: Course;
  /** Who asked; null for the Internet. */
  readonly host: Host | null;
  /** The uplink it is true of; null where every way out gives the same answer. */
  readonly only: Uplink | null;
}

/** The course of a question, and the uplink it is true of where another one gives another answer. */
function courseOf(plan: Plan, question: ProbeQuestion, today: string | null): Asked | Answer {
  const { from, to, wanted } = question;
  const receiver = receiverAddress(plan, question, today);
  if (typeof receiver === 'string') return failed('the receiver', receiver);
  const address = typeof receiver === 'object' ? receiver.address : receiver;
  if ('internet' in from) {
    if ('internet' in to)
      return failed('the Internet', 'both are in the Internet, which is not this site’s to answer');
    // Who is outside tries every address a name has, so one that answers is enough.
    const tries = 'device' in to ? addressesOfDevice(plan, from, to.device) : [address];
    const courses = tries.map((one) => fromOutside(plan, question, one, today));
    const course = courses.find((one) => !('summary' in one) && one.stop === null) ?? courses[0]!;
    return 'summary' in course ? course : { course, host: null, only: null };
  }
  const imagined = typeof receiver === 'object' ? [receiver] : [];
  if ('tunnel' in from) {
    const course = fromTunnel(plan, from.tunnel, question, address, imagined, today);
    return 'summary' in course ? course : { course, host: null, only: null };
  }
  const host = senderHost(plan, from, address, today);
  if (typeof host === 'string') return failed('the sender', host);
  const newcomers = host.device === null ? [host, ...imagined] : imagined;
  const router = host.device && routersIn(plan).get(host.device.id);
  const packet: Packet = { from: host.address, to: address, wanted, reply: false };
  const by = (over: Setting['over']) =>
    converse(plan, today, { newcomers, over }, packet, (walk) =>
      router ? walk.fromRouter(router) : walk.fromHost(host),
    );
  const course = by(new Map());
  for (const { router: id, uplink } of shared(plan, course)) {
    const other = by(new Map([[id, uplink.id]]));
    if ((other.stop === null) === (course.stop === null)) continue;
    const taken = plan.uplink.get(course.talk.over.get(id)!)!;
    return other.stop ? { course: other, host, only: uplink } : { course, host, only: taken };
  }
  return { course, host, only: null };
}

/** How much of what is new takes an uplink that shares with others, in words. */
function shareText(plan: Plan, { id, name, device, tier }: Uplink): string {
  const same = workingUplinks(plan).filter((other) => other.device === device && other.tier === tier);
  return `${sharesOf(same).get(id)!} % of new conversations take ${name}, and the others get through`;
}

function summaryOf(plan: Plan, to: Receiver, stop: Answer['stop'], assumed: boolean): string {
  if (stop === null)
    return `Delivered: ${nameOfReceiver(plan, to)} ${'internet' in to ? 'is reached' : 'answers'}${assumed ? ', as far as recorded' : ''}`;
  const where = `${stop.what}: ${stop.why}`;
  if (stop.way === 'forth') return `Stopped at ${where}`;
  return stop.way === 'back'
    ? `The question arrives, the answer does not: ${where}`
    : `The question arrives and is answered, and no more: ${where}`;
}

/**
 * Who reaches the Internet with DNS settings of its own that lead nowhere reaches it by address only, and takes that for no Internet.
 * Null where names are resolved, as far as is recorded.
 */
function noNames(plan: Plan, { to }: ProbeQuestion, host: Host | null, today: string | null): string | null {
  const item = host?.on?.table === 'interface' ? plan.interface.get(host.on.id) : undefined;
  if (!('internet' in to) || !item || item.ownDns === null) return null;
  const asks = (address: IpAddress) =>
    probe(plan, { from: { device: item.device }, to: { address }, wanted: DNS }, today).delivered;
  if (item.ownDns.some(asks)) return null;
  const servers = item.ownDns.map(formatAddress).join(', ');
  return item.ownDns.length === 0
    ? 'By address only: it is set to have no DNS server, so no name is resolved'
    : `By address only: its own DNS server ${servers} does not answer, so no name is resolved`;
}

/**
 * Sends the first packet of a conversation through the plan and its answer back, as real boxes with this plan would. Where traffic
 * is shared among uplinks, it passes only when it passes over each of them.
 */
export function probe(plan: Plan, question: ProbeQuestion, today: string | null = null): Answer {
  const found = courseOf(plan, question, today);
  if ('summary' in found) return found;
  const { host } = found;
  const { forth, back, stop, talk } = found.course;
  const steps = [...forth.steps, ...(back?.steps ?? [])];
  const assumed = steps.some(({ result }) => result === 'assumed');
  const doubts = stop === null ? [...talk.doubts] : [];
  const known = summaryOf(plan, question.to, stop, assumed);
  const summary = doubts.length > 0 ? `Not known: ${doubts.join('; ')}. All else lets it through` : known;
  return {
    delivered: stop === null,
    works: stop !== null ? false : doubts.length > 0 ? null : true,
    forth: forth.steps,
    back: back?.steps ?? [],
    stop,
    summary: found.only ? `${summary}; ${shareText(plan, found.only)}` : summary,
    remedies: stop ? letThrough(plan, question, stop, host) : [],
    assumed,
    over: found.only?.id ?? null,
    caution: stop === null ? ([...talk.cautions][0] ?? noNames(plan, question, host, today)) : null,
    wires: talk.wires,
  };
}
