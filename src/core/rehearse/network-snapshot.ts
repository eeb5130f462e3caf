import { deriveBy, type Plan, tableNames } from '../plan';
import { isAnsweredAlike } from './questions/alike';
import { type Asking, askAll, askOne } from './questions/ask';
import { stateKey } from '../model/wiring';
import { joinedIn, fabric, islandsOf } from '../model/switching';
import { rootsOf, lostPorts, treesOf } from '../model/tree';
import { survivals, workingUplinks } from '../model/uplink';
import { type EndClass, classesOf, homeOf, isHome, routerOf } from './classes';
import { insideState, placeOf } from './frames';

/** How a network stands: taken once of the plan as it is, and of each plan with faults. */
export interface NetworkSnapshot {
  /** By end device: does it get to the router of its segment, or where there is none to the larger part of it? */
  readonly inTouch: ReadonlyMap<string, boolean>;
  readonly asked: readonly Asking[];
  /** What forwards, tunnels and telephones there are, and whether each works over an uplink that is on. */
  readonly services: ReadonlyMap<string, boolean>;
  /** By tree: the names of its roots. */
  readonly roots: ReadonlyMap<string, string>;
}

/** Who of a segment hears its router, and is heard; null where it has none. */
function touching(plan: Plan, vlan: string): ((group: EndClass) => boolean) | null {
  const joined = joinedIn(plan);
  if (joined) {
    const { router, why } = routerOf(plan, vlan);
    if (!router) return null;
    if (why !== null) return () => false;
    const place = placeOf(plan, router.device.id);
    if (place.kind !== 'inside') return () => true;
    const state = insideState(plan, place.bridge, vlan);
    return ({ landing }) => landing !== null && joined.together(state, landing);
  }
  const home = homeOf(plan, vlan);
  return home.router ? (group) => home.why === null && isHome(home, group) : null;
}

/** Which end devices are in touch. */
export function touchOf(plan: Plan): Map<string, boolean> {
  const found = new Map<string, boolean>();
  const add = (group: EndClass, touch: boolean) => {
    // Who has several addresses is in touch by any of them.
    for (const device of group.devices) found.set(device, touch || (found.get(device) ?? false));
  };
  const lone = new Map<string, EndClass[]>();
  const known = new Map<string, ReturnType<typeof touching>>();
  for (const group of classesOf(plan)) {
    let touches = known.get(group.vlan);
    if (touches === undefined) known.set(group.vlan, (touches = touching(plan, group.vlan)));
    if (touches) add(group, touches(group));
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

const standingOn = deriveBy(
  (plan, today: string) => makeStanding(plan, askAll(plan, today || null)),
  Object.is,
);
export const snapshotOf = (plan: Plan, today: string | null): NetworkSnapshot =>
  standingOn(plan, today ?? '');

const unlikePorts = tableNames.filter((table) => table !== 'port');

/** How a plan stands that is made of another: where only ports went off, what cannot have changed is not asked again. */
export function snapshotAfter(
  plan: Plan,
  before: NetworkSnapshot,
  broken: Plan,
  today: string | null,
): NetworkSnapshot {
  const onlyPorts = unlikePorts.every((table) => plan[table] === broken[table]);
  // With an uplink gone nobody knows which way a question takes out.
  const uplinks = workingUplinks(plan).length === workingUplinks(broken).length;
  const lost = onlyPorts && uplinks ? lostPorts(plan, broken) : null;
  if (!lost) return snapshotOf(broken, today);
  const asked = before.asked.map((asking) =>
    isAnsweredAlike(plan, asking, broken, lost) ? asking : askOne(broken, asking.question, today),
  );
  return makeStanding(broken, asked);
}

function makeStanding(plan: Plan, asked: readonly Asking[]): NetworkSnapshot {
  const on = new Set(workingUplinks(plan).map(({ id }) => id));
  const services = new Map(
    survivals(plan).map(({ what, over }) => [
      what,
      over.some(({ uplink, works }) => works !== false && on.has(uplink)),
    ]),
  );
  if (plan.uplink.size > 0) services.set('the Internet', on.size > 0);
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
  return { inTouch: touchOf(plan), asked, services, roots };
}
