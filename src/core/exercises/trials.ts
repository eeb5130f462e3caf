import { addOffset, formatAddress } from '../address/ip';
import { hasLoop } from '../findings/checks/gear/ways';
import { groupBy, memo } from '../plan/memo';
import type { Plan } from '../plan/plan';
import type { Zone } from '../plan/records';
import { addressesOf, addressesOn, interfacesOf, routersOf, vlansOf } from '../plan/view';
import { portTitle } from '../plan/words';
import { wantedText, type Wanted } from '../policy/decide';
import { serviceOf } from '../policy/services';
import { rulesOf } from '../policy/analyse';
import { passing, zonesOf } from '../policy/zones';
import { askedBy, questionsOf, senderTitle } from '../questions/ask';
import { classesOf } from '../rehearse/classes';
import { discover } from '../rehearse/dhcp';
import { nameOfReceiver, probe, type Question } from '../rehearse/probe';
import { fabric } from '../switching/users';
import { endDevices, pluggedIn } from './places';

/** What somebody can try on a network, and what it says: the instruments of whoever looks for a fault. */

export type Trial =
  /** The probe. */
  | { readonly kind: 'talk'; readonly question: Question }
  /** A laptop plugged into a port asks for an address. */
  | { readonly kind: 'lease'; readonly port: string }
  /** A device asks for a name. */
  | { readonly kind: 'names'; readonly device: string }
  /** Who has the addresses of a subnet. */
  | { readonly kind: 'clash'; readonly subnet: string }
  /** Does anything go round? */
  | { readonly kind: 'storm' };

export interface Reading {
  /** Two readings with the same verdict mean the same to whoever uses the network. */
  readonly verdict: string;
  readonly text: string;
}

export const trialKey = (trial: Trial): string =>
  JSON.stringify(trial, (_, value: unknown) => (typeof value === 'bigint' ? `${value}` : value));

const PING: Wanted = { protocol: 'icmp', port: 8 };
const HTTPS: Wanted = { protocol: 'tcp', port: 443 };
const DNS: Wanted = { protocol: 'udp', port: 53 };

const GONE: Reading = { verdict: 'gone', text: 'it is no longer in the plan' };

function isThere(plan: Plan, { from, to }: Question): boolean {
  if ('port' in from && !plan.port.get(from.port)) return false;
  if ('device' in from && !plan.device.get(from.device)) return false;
  if ('vlan' in from && !plan.vlan.get(from.vlan)) return false;
  if ('device' in to && !plan.device.get(to.device)) return false;
  return !('vlan' in to) || plan.vlan.get(to.vlan) !== undefined;
}

/** The first server a device asks for names; null where it has none. */
function nameServer(plan: Plan, device: string) {
  const [address] = interfacesOf(plan, device).flatMap(({ id }) => addressesOn(plan, id));
  if (!address) return null;
  const own = plan.interface.get(address.interface)!.ownDns;
  if (own) return own[0] ?? null;
  const [first] = plan.subnet.get(address.subnet)!.dns;
  if (!first) return null;
  return 'literal' in first ? first.literal : (addressesOn(plan, first.interface)[0]?.address ?? null);
}

/** Makes a trial on a plan. `today` as a day, for rules that end. */
export function readTrial(plan: Plan, trial: Trial, today: string | null): Reading {
  switch (trial.kind) {
    case 'talk': {
      if (!isThere(plan, trial.question)) return GONE;
      const { delivered, assumed, summary } = probe(plan, trial.question, today);
      // Whoever pulls a plug out of the plan has not made anything work.
      return { verdict: delivered ? (assumed ? 'assumed' : 'passes') : 'stops', text: summary };
    }
    case 'lease': {
      if (!plan.port.get(trial.port) || !fabric(plan).seats.has(trial.port)) return GONE;
      const found = discover(plan, { port: trial.port, mac: null, rogueAt: null }, today);
      const where = found.vlan ? `${found.vlan.name}: ` : '';
      return {
        verdict: `${found.vlan?.id ?? 'nowhere'} ${found.taken ? 'leased' : 'none'}`,
        text: `${where}${found.summary}`,
      };
    }
    case 'names': {
      const device = plan.device.get(trial.device);
      if (!device) return GONE;
      const server = nameServer(plan, trial.device);
      if (server === null) return { verdict: 'none', text: `${device.name} asks nobody for names` };
      const question = { from: { device: device.id }, to: { address: server }, wanted: DNS };
      const { delivered, summary } = probe(plan, question, today);
      return {
        verdict: delivered ? 'answered' : 'silent',
        text: `${device.name} asks ${formatAddress(server)}: ${summary}`,
      };
    }
    case 'clash': {
      if (!plan.subnet.get(trial.subnet)) return GONE;
      const shared = sharedIn(plan, trial.subnet);
      return {
        verdict: shared.map(({ devices }) => devices.join(' ')).join(', '),
        text:
          shared.length === 0
            ? 'no address is given twice'
            : shared
                .map(({ address, names }) => `${formatAddress(address)} is at ${names.join(' and ')}`)
                .join('; '),
      };
    }
    case 'storm': {
      const loop = hasLoop(plan);
      return {
        verdict: loop ? 'storm' : 'still',
        text: loop ? 'the boxes are joined in a ring that nothing opens' : 'nothing goes round',
      };
    }
  }
}

/** The addresses of a subnet that several devices have, with who they are. */
export function sharedIn(plan: Plan, subnet: string) {
  const all = addressesOf(plan, subnet).filter(({ assignment }) => assignment !== 'virtual');
  const at = new Map<string, typeof all>();
  for (const item of all) {
    const text = String(item.address);
    at.set(text, [...(at.get(text) ?? []), item]);
  }
  return [...at.values()]
    .filter((items) => items.length > 1)
    .map((items) => {
      const devices = items.map(({ interface: id }) => plan.interface.get(id)!.device);
      return { address: items[0]!.address, devices, names: devices.map((id) => plan.device.get(id)!.name) };
    });
}

export function trialTitle(plan: Plan, trial: Trial): string {
  switch (trial.kind) {
    case 'talk': {
      const { from, to, wanted } = trial.question;
      return `Probe, ${senderTitle(plan, from)} to ${nameOfReceiver(plan, to)}, ${wantedText(wanted)}`;
    }
    case 'lease':
      return `DHCP, a laptop in ${portTitle(plan, plan.port.get(trial.port)!)}`;
    case 'names':
      return `Probe, ${plan.device.get(trial.device)!.name} to its server of names`;
    case 'clash':
      return 'Addresses';
    case 'storm':
      return 'Spanning trees';
  }
}

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
  const nearest = endDevices(plan)
    .filter(({ device }) => near.includes(device.id))
    .flatMap(({ device }) => deviceTrials(plan, device.id));
  const ports = pluggedIn(plan)
    .filter(({ device }) => near.includes(device.id))
    .map(({ port }): Trial => ({ kind: 'lease', port: port.id }));
  return [...everywhere, ...[...nearest, ...ports].filter((trial) => !known.has(trialKey(trial)))];
}

function deviceTrials(plan: Plan, device: string): Trial[] {
  const own = endDevices(plan).find((item) => item.device.id === device)!;
  const peer = endDevices(plan).find((item) => item.subnet === own.subnet && item.device.id !== device);
  const talk = (to: Question['to'], wanted: Wanted): Trial => ({
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

const commonTrials = memo((plan: Plan): readonly Trial[] => {
  const talk = (question: Question): Trial => ({ kind: 'talk', question });
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

/** Somebody at the gateway who wants to configure a box. */
function boxTalks(plan: Plan): Question[] {
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
function allowedTalks(plan: Plan): Question[] {
  const found: Question[] = [];
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
  for (const rule of rulesOf(plan)) {
    const [a, b] = [rule.from[0], rule.to[0]];
    if (!rule.enabled || !a || !b) continue;
    const vlanIn = (zone: string) => plan.zone.get(zone)?.vlans[0];
    const from =
      'device' in a
        ? { device: a.device }
        : 'vlan' in a
          ? { vlan: a.vlan }
          : 'zone' in a
            ? inVlan(vlanIn(a.zone))
            : null;
    const to =
      'device' in b
        ? { device: b.device }
        : 'vlan' in b
          ? { vlan: b.vlan }
          : 'prefix' in b
            ? { address: addOffset(b.prefix.address, 1) }
            : inVlan(vlanIn(b.zone));
    if (!from || !to) continue;
    for (const wanted of rule.services.length > 0 ? services(rule.services) : [HTTPS])
      found.push({ from, to, wanted });
  }
  return found;
}
/** Somebody in a zone: in its first segment, and at the other end of each tunnel. */
const endsOf = (plan: Plan, zone: Zone): Question['to'][] => [
  ...zone.vlans.slice(0, 1).map((vlan) => ({ vlan })),
  ...zone.tunnels.flatMap((id) =>
    (plan.tunnel.get(id)?.remote ?? []).map((prefix) => ({ address: addOffset(prefix.address, 1) })),
  ),
];
const inVlan = (vlan: string | undefined) => (vlan === undefined ? null : { vlan });

/** The readings of one plan, each made once. */
export class Readings {
  private readonly known = new Map<string, Reading>();

  constructor(
    readonly plan: Plan,
    private readonly today: string | null,
  ) {}

  of(trial: Trial): Reading {
    const key = trialKey(trial);
    let reading = this.known.get(key);
    if (!reading) this.known.set(key, (reading = readTrial(this.plan, trial, this.today)));
    return reading;
  }
}

export interface Turned {
  readonly trial: Trial;
  readonly before: Reading;
  readonly after: Reading;
}

/** The trials that say something else on the second plan. */
export const turned = (before: Readings, after: Readings, trials: readonly Trial[]): Turned[] =>
  trials.flatMap((trial) => {
    const [was, is] = [before.of(trial), after.of(trial)];
    const same = was.verdict === is.verdict || (was.verdict === 'assumed' && is.verdict === 'passes');
    return same ? [] : [{ trial, before: was, after: is }];
  });
