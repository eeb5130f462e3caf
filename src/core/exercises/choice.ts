import { addOffset } from '../address';
import {
  derive,
  groupBy,
  type Plan,
  type Party,
  type Zone,
  addressesOn,
  interfacesOf,
  routersOf,
  vlansOf,
} from '../plan';
import { sentBy, ssidsOf } from '../model/wireless';
import { rulesOf, type Wanted, serviceOf, passing, zonesOf } from '../model/policy';
import { askedBy, questionsOf, classesOf, type ProbeQuestion } from '../rehearse';
import { endDevices, pluggedIn } from './places';
import { type Trial, trialKey } from './trials';

/** Which trials are made on a plan to see what a fault does to it. */

const PING: Wanted = { protocol: 'icmp', port: 8 };
const HTTPS: Wanted = { protocol: 'tcp', port: 443 };

/** With at most this many end devices each of them is tried; in a larger site some, and those near the fault. */
const ALL = 200;
/** The most that is tried of a sort in a larger site. */
const SOME = 60;
/** The most pairs of segments that are tried. */
const PAIRS = 400;

/** At most so many of a list, evenly spread over it. */
const spread = <T>(items: readonly T[], most: number): T[] => {
  const step = Math.ceil(items.length / most);
  return items.filter((_, i) => i % step === 0);
};

/** What is tried on a plan to see what a fault does to it, those named first. */
export function trialsFor(plan: Plan, near: readonly string[]): readonly Trial[] {
  const everywhere = commonTrials(plan);
  const known = new Set(everywhere.map(trialKey));
  return [...everywhere, ...trialsNear(plan, near).filter((trial) => !known.has(trialKey(trial)))];
}

/** What is tried of some devices themselves, and at the ports they are plugged into. */
export function trialsNear(plan: Plan, near: readonly string[]): readonly Trial[] {
  const nearest = endDevices(plan)
    .filter(({ device }) => near.includes(device.id))
    .flatMap(({ device }) => deviceTrials(plan, device.id));
  const ports = pluggedIn(plan)
    .filter(({ device }) => near.includes(device.id))
    .map(({ port }): Trial => ({ kind: 'lease', port: port.id }));
  return [...nearest, ...ports];
}

function deviceTrials(plan: Plan, device: string): Trial[] {
  const own = endDevices(plan).find((item) => item.device.id === device)!;
  const peer = endDevices(plan).find((item) => item.subnet === own.subnet && item.device.id !== device);
  const talk = (to: ProbeQuestion['to'], wanted: Wanted): Trial => ({
    kind: 'talk',
    question: { from: { device }, to, wanted },
  });
  return [
    talk({ gateway: true }, PING),
    talk({ internet: true }, HTTPS),
    ...(peer ? [talk({ device: peer.device.id }, PING)] : []),
    { kind: 'names', device },
  ];
}

const commonTrials = derive((plan): readonly Trial[] => {
  const talk = (question: ProbeQuestion): Trial => ({ kind: 'talk', question });
  const ends = endDevices(plan);
  const large = ends.length > ALL;
  const some = <T>(items: readonly T[]): readonly T[] => (large ? spread(items, SOME) : items);
  const examples = new Set(classesOf(plan).map(({ devices }) => devices[0]));
  const chosen = large ? some(ends.filter(({ device }) => examples.has(device.id))) : ends;
  const addressed = new Set([...plan.subnet.values()].map(({ vlan }) => vlan));
  const segments = vlansOf(plan).filter(({ id }) => addressed.has(id));
  const pairs = segments.flatMap((from) =>
    segments
      .filter((to) => to !== from)
      .map((to) => talk({ from: { vlan: from.id }, to: { vlan: to.id }, wanted: HTTPS })),
  );
  const sockets = groupBy(
    [...plan.port.values()].filter(({ role, enabled, number }) => role === 'access' && enabled && number > 0),
    ({ untagged }) => untagged,
  );
  const all: Trial[] = [
    { kind: 'storm' },
    ...[...plan.subnet.values()].map(({ id }): Trial => ({ kind: 'clash', subnet: id })),
    ...questionsOf(plan).map((question) => talk(askedBy(question))),
    ...chosen.flatMap(({ device }) => deviceTrials(plan, device.id)),
    ...some(segments.flatMap(({ id }) => (sockets.get(id) ?? []).slice(0, 2))).map(({ id }): Trial => ({
      kind: 'lease',
      port: id,
    })),
    ...some(joins(plan)),
    ...some(spread(pairs, PAIRS)),
    ...some(allowedTalks(plan)).map(talk),
    ...some(boxTalks(plan)).map(talk),
    ...[...plan.forward.values()].flatMap(({ target, inside, protocol, enabled }) => {
      const { device } = plan.interface.get(target)!;
      const wanted = { protocol: protocol === 'udp' ? ('udp' as const) : ('tcp' as const), port: inside };
      return enabled ? [talk({ from: { internet: true }, to: { device }, wanted })] : [];
    }),
  ];
  return [...new Map(all.map((trial) => [trialKey(trial), trial])).values()];
});

/** Every network at every access point that sends it. */
const joins = (plan: Plan): Trial[] =>
  ssidsOf(plan).flatMap((ssid) =>
    sentBy(plan, ssid).map(({ id }): Trial => ({ kind: 'join', at: { ssid: ssid.id, at: id } })),
  );

/** Somebody at the gateway who wants to configure a box. */
function boxTalks(plan: Plan): ProbeQuestion[] {
  const [router] = routersOf(plan);
  if (!router) return [];
  return [...plan.box.values()]
    .filter(
      ({ device }) =>
        device !== router.id && interfacesOf(plan, device).some(({ id }) => addressesOn(plan, id).length > 0),
    )
    .map(({ device }) => ({ from: { device: router.id }, to: { device }, wanted: PING }));
}

/** A talk for each service that a pair of zones or a rule speaks of. */
function allowedTalks(plan: Plan): ProbeQuestion[] {
  const found: ProbeQuestion[] = [];
  const services = (ids: readonly string[]): Wanted[] =>
    ids.slice(0, 3).flatMap((id) => {
      const match = serviceOf(plan, id)?.matches.find(({ protocol }) => protocol !== 'ip');
      return match && match.protocol !== 'ip' ? [{ protocol: match.protocol, port: match.from }] : [];
    });
  for (const from of zonesOf(plan))
    for (const to of zonesOf(plan)) {
      const [vlan] = from.vlans;
      if (from === to || vlan === undefined) continue;
      const { decision, services: ids } = passing(plan, from, to);
      if (decision === 'deny') continue;
      for (const end of endsOf(plan, to))
        for (const wanted of decision === 'services' ? services(ids) : [HTTPS])
          found.push({ from: { vlan }, to: end, wanted });
    }
  for (const { from: senders, to: receivers, services: ids, enabled } of rulesOf(plan)) {
    const [from, to] = [senders[0], receivers[0]].map((party) => party && endOf(plan, party));
    if (!enabled || !from || !to || 'address' in from) continue;
    for (const wanted of ids.length > 0 ? services(ids) : [HTTPS]) found.push({ from, to, wanted });
  }
  return found;
}

/** One of those a rule speaks of: of a zone whoever is in its first segment, of a network its first host. */
function endOf(plan: Plan, party: Party) {
  if ('prefix' in party) return { address: addOffset(party.prefix.address, 1) };
  if (!('zone' in party)) return party;
  const vlan = plan.zone.get(party.zone)?.vlans[0];
  return vlan === undefined ? null : { vlan };
}

/** Somebody in a zone: in its first segment, and at the other end of each tunnel. */
const endsOf = (plan: Plan, zone: Zone): ProbeQuestion['to'][] => [
  ...zone.vlans.slice(0, 1).map((vlan) => ({ vlan })),
  ...zone.tunnels.flatMap((id) =>
    (plan.tunnel.get(id)?.remote ?? []).map((prefix) => ({ address: addOffset(prefix.address, 1) })),
  ),
];
