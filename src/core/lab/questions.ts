import { type IpAddress, contains, familyOf, formatAddress, widthOf } from '../address';
import { forwardsOf, kindOfAddress, targetOf } from '../model/uplink';
import { routersIn } from '../model/routing';
import { type Plan, type Question, addressesOn, interfacesOf } from '../plan';
import {
  type Host,
  type ProbeQuestion,
  askAll,
  askedBy,
  farAddress,
  outsideAddress,
  questionEnds,
  questionText,
} from '../rehearse';
import { layGuest } from './guests';
import { INTERNET, type Site } from './site';

/** The kept questions of a plan as calls that can be made in a laid network, with who has to be there for them. */

export interface LaidQuestion {
  readonly text: string;
  /** The host that calls. */
  readonly from: string;
  readonly to: string;
  readonly protocol: 'tcp' | 'udp' | 'icmp';
  readonly port: number;
  /** What the probe says, and what somebody wants. */
  readonly answers: boolean;
  readonly wanted: boolean;
}
export interface LeftQuestion {
  readonly text: string;
  readonly why: string;
}
export interface LaidQuestions {
  readonly asked: readonly LaidQuestion[];
  readonly left: readonly LeftQuestion[];
}

/** From outside a device answers where its forward is; without one, at its own address. */
function fromOutside(plan: Plan, { to, wanted }: ProbeQuestion, address: IpAddress) {
  const uplinks = [...routersIn(plan).values()].flatMap((router) => router.uplinks);
  for (const uplink of uplinks)
    for (const forward of forwardsOf(plan, uplink.id)) {
      const { protocol, inside, from, to: last } = forward;
      const { port } = wanted;
      const fits =
        (protocol === 'both' || protocol === wanted.protocol) &&
        inside <= port &&
        port <= inside + last - from;
      if ('device' in to && fits && targetOf(plan, forward).id === to.device)
        return { to: outsideAddress(plan, uplink), port: from + port - inside };
    }
  return { to: address, port: wanted.port };
}

/** The namespace of somebody: a device has its own, and whoever has no cable is put where they are. Null where they cannot be. */
function hostFor(site: Site, plan: Plan, host: Host, guests: Map<string, string>): string | null {
  const { device } = host;
  if (device && site.has(device.id)) {
    const joined = site.cables.some(({ from, to }) => from.host === device.id || to.host === device.id);
    if (joined || guests.has(device.id)) return device.id;
    guests.set(device.id, device.id);
    return layGuest(site, plan, device.id, host) ? device.id : null;
  }
  const key = `${host.vlan} ${host.address} ${JSON.stringify(host.place.kind)}`;
  const known = guests.get(key);
  if (known !== undefined) return known;
  const id = `guest${guests.size + 1}`;
  if (!layGuest(site, plan, id, host)) return null;
  guests.set(key, id);
  return id;
}

/** Whoever has an address and no cable joins where they are when they are asked. */
function joinReceiver(
  site: Site,
  plan: Plan,
  address: IpAddress,
  guests: Map<string, string>,
  today: string | null,
): void {
  for (const { id } of plan.device.values()) {
    const held = interfacesOf(plan, id).some((card) =>
      addressesOn(plan, card.id).some((one) => one.address === address),
    );
    if (!held || !site.has(id)) continue;
    const ends = questionEnds(
      plan,
      { from: { device: id }, to: { internet: true }, wanted: { protocol: 'tcp', port: 1 } },
      today,
    );
    if (typeof ends !== 'string' && ends.from?.address === address) hostFor(site, plan, ends.from, guests);
  }
}

export function layQuestions(site: Site, plan: Plan, today: string | null): LaidQuestions {
  const guests = new Map<string, string>();
  const asked: LaidQuestion[] = [];
  const left: LeftQuestion[] = [];
  for (const { question, answer } of askAll(plan, today)) {
    const text = questionText(plan, question);
    const call =
      answer.works === null || answer.over !== null
        ? 'what comes of it rests on something that is not recorded'
        : callOf(site, plan, question, today, guests);
    if (typeof call === 'string') left.push({ text, why: call });
    else asked.push({ text, ...call, answers: answer.delivered, wanted: question.expected === 'delivered' });
  }
  return { asked, left };
}

/** Is an address somewhere in the Internet or in the network outside an uplink, and not there yet? */
const isFar = (plan: Plan, address: IpAddress): boolean =>
  (kindOfAddress(address) === 'public' ||
    [...plan.uplink.values()].some(({ network }) => network !== null && contains(network, address))) &&
  address !== farAddress(plan, familyOf(address)) &&
  ![...plan.subnet.values()].some(({ prefix }) => contains(prefix, address)) &&
  ![...plan.tunnel.values()].some(({ remote }) => remote.some((prefix) => contains(prefix, address))) &&
  ![...routersIn(plan).values()].some(({ uplinks }) =>
    uplinks.some((uplink) => outsideAddress(plan, uplink) === address),
  );

/** A question as a call in the laid network; why it cannot be made there, as a text. */
function callOf(
  site: Site,
  plan: Plan,
  question: Question,
  today: string | null,
  guests: Map<string, string>,
): Pick<LaidQuestion, 'from' | 'to' | 'protocol' | 'port'> | string {
  const asking = askedBy(question);
  const { protocol, port } = asking.wanted;
  if ('tunnel' in asking.from) return 'it comes from another site, which is not laid';
  if ('internet' in asking.from && 'internet' in asking.to) return 'it does not come here';
  const ends = questionEnds(plan, asking, today);
  if (typeof ends === 'string') return ends;
  if (ends.imagined && hostFor(site, plan, ends.imagined, guests) === null)
    return 'nothing in the segment of who is asked takes a plug';
  const far = `far ${formatAddress(ends.to)}`;
  if (ends.from !== null && isFar(plan, ends.to) && !guests.has(far)) {
    guests.set(far, INTERNET);
    site.link(INTERNET, `addr add ${formatAddress(ends.to)}/${widthOf(familyOf(ends.to))} dev lo`);
  }
  joinReceiver(site, plan, ends.to, guests, today);
  const from = ends.from === null ? INTERNET : hostFor(site, plan, ends.from, guests);
  if (from === null) return 'nothing in the segment of who asks takes a plug';
  const call = ends.from === null ? fromOutside(plan, asking, ends.to) : { to: ends.to, port };
  return { from, to: formatAddress(call.to), protocol, port: call.port };
}
