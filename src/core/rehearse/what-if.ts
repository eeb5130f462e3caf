import { memo } from '../plan/memo';
import type { Plan } from '../plan/plan';
import type { Device, Question } from '../plan/records';
import type { Answer } from './probe';
import { type Asking, askAll } from '../questions/ask';
import { type Flood, type State, stateKey } from '../switching/fabric';
import { fabric, islandsOf } from '../switching/users';
import { rootsOf } from '../tree/compute';
import { treesOf } from '../tree/forwarding';
import { survivals } from '../uplink/failover';
import { type EndClass, classesOf, homeOf, isHome } from './classes';
import { type Fault, withFaults } from './faults';

/** What becomes of a network with faults: for whom what changes. */

/** How a network stands: taken once of the plan as it is, and of each plan with faults. */
export interface Standing {
  /** By end device: does it get to the router of its segment, or where there is none to the larger part of it? */
  readonly inTouch: ReadonlyMap<string, boolean>;
  readonly asked: readonly Asking[];
  /** What forwards, tunnels and telephones there are, and whether each works over an uplink that is on. */
  readonly services: ReadonlyMap<string, boolean>;
  /** By tree: the names of its roots. */
  readonly roots: ReadonlyMap<string, string>;
}

/** Which end devices are in touch. */
function touchOf(plan: Plan): Map<string, boolean> {
  const found = new Map<string, boolean>();
  const add = (group: EndClass, touch: boolean) => {
    // Who has several addresses is in touch by any of them.
    for (const device of group.devices) found.set(device, touch || (found.get(device) ?? false));
  };
  const lone = new Map<string, EndClass[]>();
  for (const group of classesOf(plan)) {
    const home = homeOf(plan, group.vlan);
    if (home.router) add(group, home.why === null && isHome(home, group));
    else lone.set(group.vlan, [...(lone.get(group.vlan) ?? []), group]);
  }
  for (const [vlan, groups] of lone) {
    const parts = islandsOf(plan, vlan).map(({ flood }) => {
      const inside = groups.filter(({ landing }) => landing && flood.came.has(stateKey(landing)));
      return { inside, size: inside.reduce((sum, { devices }) => sum + devices.length, 0) };
    });
    const largest = parts.reduce((a, b) => (b.size > a.size ? b : a), { inside: [] as EndClass[], size: 0 });
    for (const group of groups) add(group, largest.inside.includes(group));
  }
  return found;
}

const standings = memo((_plan: Plan) => new Map<string | null, Standing>());
export function standingOf(plan: Plan, today: string | null): Standing {
  const known = standings(plan).get(today);
  if (known) return known;
  const made = makeStanding(plan, today);
  standings(plan).set(today, made);
  return made;
}

function makeStanding(plan: Plan, today: string | null): Standing {
  const on = new Set([...plan.uplink.values()].filter(({ enabled }) => enabled).map(({ id }) => id));
  const services = new Map(
    survivals(plan).map(({ what, over }) => [
      what,
      over.some(({ uplink, works }) => works !== false && on.has(uplink)),
    ]),
  );
  const roots = new Map<string, string>();
  for (const { kind, number, tree, topology, places } of treesOf(plan).grown) {
    const names = rootsOf(tree, topology).map(
      (bridge) => plan.device.get(fabric(plan).bridges[places[bridge]!]!.device)!.name,
    );
    roots.set(
      kind === 'common' ? 'the common tree' : `${kind === 'vlan' ? 'VLAN' : 'instance'} ${number}`,
      names.join(', '),
    );
  }
  return { inTouch: touchOf(plan), asked: askAll(plan, today), services, roots };
}

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
  readonly roots: readonly { readonly tree: string; readonly before: string; readonly after: string }[];
}

const { compare: byName } = new Intl.Collator('en', { numeric: true });
const devicesWhere = (plan: Plan, ids: Iterable<string>): Device[] =>
  [...ids].map((id) => plan.device.get(id)!).sort((a, b) => byName(a.name, b.name));

/** What changes between two standings, without the ways, which are dearer to compare. */
export function compareStandings(plan: Plan, before: Standing, after: Standing): Omit<Impact, 'rerouted'> {
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
const waysOf = memo((plan: Plan): Map<string, string> => {
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
  const before = standingOf(plan, today);
  const ways = waysOf(plan);
  const broken = withFaults(plan, faults);
  const compared = compareStandings(plan, before, standingOf(broken, today));
  const rerouted = [...waysOf(broken)].flatMap(([device, way]) => {
    const old = ways.get(device);
    return old !== undefined && old !== way ? [device] : [];
  });
  const joined = new Set(compared.joined.map(({ id }) => id));
  return {
    ...compared,
    rerouted: devicesWhere(
      plan,
      rerouted.filter((id) => !joined.has(id)),
    ),
  };
}
