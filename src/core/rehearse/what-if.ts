import { byName, derive, type Plan, type Device, type Question } from '../plan';
import { type Flood, type State, stateKey } from '../model/wiring';
import { classesOf, homeOf } from './classes';
import { type AirLost, airLost } from './air-lost';
import { type Fault, withFaults } from './faults';
import type { Answer } from './probe';
import { type IntruderReach, intruderReach } from './intruder';
import { type NetworkSnapshot, snapshotAfter, snapshotOf, touchOf } from './network-snapshot';

/** What becomes of a network with faults: for whom what changes. */

export interface ChangedAnswer {
  readonly question: Question;
  readonly before: Answer;
  readonly after: Answer;
}

export interface Impact {
  /** In touch before and not with the faults, and the other way round. */
  readonly cutOff: readonly Device[];
  readonly joined: readonly Device[];
  /** Still in touch, by other boxes than before. */
  readonly rerouted: readonly Device[];
  readonly answers: readonly ChangedAnswer[];
  readonly lost: readonly string[];
  /** Networks that are of no use any more at some access points. */
  readonly air: readonly AirLost[];
  /** What whoever has taken over a box or device reaches in the network as it is then. */
  readonly intruders: readonly { readonly device: Device; readonly reach: IntruderReach }[];
  readonly roots: readonly { readonly tree: string; readonly before: string; readonly after: string }[];
  /** How much there was to lose: devices in touch, questions kept, services that work. */
  readonly watched: { readonly devices: number; readonly questions: number; readonly services: number };
}

const devicesWhere = (plan: Plan, ids: Iterable<string>): Device[] =>
  [...ids].map((id) => plan.device.get(id)!).sort((a, b) => byName(a.name, b.name));

/** What changes between two standings, without the ways, which are dearer to compare. */
export function compareStandings(
  plan: Plan,
  before: NetworkSnapshot,
  after: NetworkSnapshot,
): Omit<Impact, 'rerouted' | 'intruders' | 'watched' | 'air'> {
  const cutOff: string[] = [];
  const joined: string[] = [];
  for (const [device, touch] of before.inTouch) {
    const now = after.inTouch.get(device) ?? false;
    if (touch && !now) cutOff.push(device);
    if (!touch && now) joined.push(device);
  }
  for (const [device, now] of after.inTouch) if (now && !before.inTouch.has(device)) joined.push(device);
  const answers = before.asked.flatMap(({ question, answer }): ChangedAnswer[] => {
    const now = after.asked.find((other) => other.question.id === question.id)?.answer;
    return now && now.delivered !== answer.delivered ? [{ question, before: answer, after: now }] : [];
  });
  const lost = [...before.services].flatMap(([what, works]) =>
    works && after.services.get(what) !== true ? [what] : [],
  );
  const roots = [...before.roots].flatMap(([tree, name]) => {
    const now = after.roots.get(tree) ?? '';
    return now === name ? [] : [{ tree, before: name, after: now }];
  });
  return { cutOff: devicesWhere(plan, cutOff), joined: devicesWhere(plan, joined), answers, lost, roots };
}

/** The boxes on the way of a flood to a state. */
function wayOf({ came }: Flood, end: State): string {
  const way: number[] = [];
  for (let at: State | null = end; at; at = came.get(stateKey(at))?.from ?? null) way.push(at.bridge);
  return way.join(' ');
}

/** By end device: the boxes between the router of its segment and its plug. */
const waysOf = derive((plan): Map<string, string> => {
  const ways = new Map<string, string>();
  for (const group of classesOf(plan)) {
    const { flood } = homeOf(plan, group.vlan);
    if (!flood || !group.landing || !flood.came.has(stateKey(group.landing))) continue;
    const way = wayOf(flood, group.landing);
    for (const device of group.devices) ways.set(device, way);
  }
  return ways;
});

/** The same network with faults, compared with the plan as it is. */
export function whatIf(plan: Plan, faults: readonly Fault[], today: string | null): Impact {
  const before = snapshotOf(plan, today);
  const ways = waysOf(plan);
  const broken = withFaults(plan, faults);
  const compared = compareStandings(plan, before, snapshotAfter(plan, before, broken, today));
  const rerouted = [...waysOf(broken)].flatMap(([device, way]) => {
    const old = ways.get(device);
    return old !== undefined && old !== way ? [device] : [];
  });
  const joined = new Set(compared.joined.map(({ id }) => id));
  const intruders = faults.flatMap((fault) => {
    const device = fault.kind === 'taken' && broken.device.get(fault.device);
    return device ? [{ device, reach: intruderReach(broken, device.id) }] : [];
  });
  const count = (flags: Iterable<boolean>) => [...flags].filter(Boolean).length;
  return {
    ...compared,
    air: airLost(plan, broken),
    watched: {
      devices: count(before.inTouch.values()),
      questions: before.asked.length,
      services: count(before.services.values()),
    },
    intruders,
    rerouted: devicesWhere(
      plan,
      rerouted.filter((id) => !joined.has(id)),
    ),
  };
}

/** The devices that are in touch with nobody they need, as it stands or while something has failed, by id; what is not there cannot fail. */
export function outOfTouch(plan: Plan, fault: Fault | null = null): readonly string[] {
  const isThere =
    fault !== null &&
    (fault.kind !== 'cable' || plan.cable.get(fault.cable)) &&
    (fault.kind !== 'uplink' || plan.uplink.get(fault.uplink));
  const broken = isThere ? withFaults(plan, [fault]) : plan;
  return [...touchOf(broken)].flatMap(([device, touch]) => (touch ? [] : [device])).sort();
}
