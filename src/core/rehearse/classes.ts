import type { IpAddress } from '../address/ip';
import { memoOn } from '../plan/memo';
import type { Plan } from '../plan/plan';
import type { Address, Port } from '../plan/records';
import { gatewaysOf, subnetsOf } from '../plan/view';
import { type Fabric, type Flood, type State, enters, inwardPorts, stateKey } from '../switching/fabric';
import { avoids, changedBetween, sameFacts } from '../switching/reach';
import { isSymmetric, reachersOf } from '../switching/reachers';
import { fabric } from '../switching/users';
import { type Router, legUp, routersIn } from '../routing/router';
import { spreadBy, insideState, placeOf } from './frames';

/**
 * End devices that are treated alike: of one segment, plugged into the same VLAN of the same box, with the same settings.
 * What holds for one of them holds for all, so that a site is rehearsed by classes and not by every pair of devices.
 */
export interface EndClass {
  readonly vlan: string;
  /** The port of a box that the first of them is plugged into. */
  readonly port: Port;
  /** Where its frames land; null when the port does not let them in. */
  readonly landing: State | null;
  /** What is set on it against its subnet. */
  readonly own: { readonly length: number | null; readonly gateway: IpAddress | null };
  readonly example: Address;
  readonly devices: readonly string[];
}

/** What classes are read off, besides the ports themselves. */
const PLUGGED = ['cable', 'box', 'address', 'interface', 'device', 'vlan', 'subnet'] as const;

interface Found {
  readonly plan: Plan;
  readonly fabric: Fabric;
  readonly classes: readonly EndClass[];
}
let lastFound: Found | null = null;

/** Do all ports that lead to end devices do as they did? */
function sameEnds(before: Fabric, after: Fabric): boolean {
  if (before.bridges.length !== after.bridges.length) return false;
  return after.bridges.every((bridge, at) => {
    const old = before.bridges[at]!;
    if (bridge === old) return true;
    const inward = new Set(inwardPorts(after)[at]);
    return (
      bridge.ports.length === old.ports.length &&
      bridge.ports.every(
        (port, i) => inward.has(i) || (port === old.ports[i] && sameFacts(bridge.facts[i]!, old.facts[i]!)),
      )
    );
  });
}

/** The classes of all devices whose cables are recorded. Telephones that tag count where their tag puts them. */
export const classesOf: (plan: Plan) => readonly EndClass[] = memoOn(
  [...PLUGGED, 'port', 'bridge', 'instance', 'treePort'],
  (plan: Plan) => {
    const still =
      lastFound !== null &&
      PLUGGED.every((table) => plan[table] === lastFound!.plan[table]) &&
      sameEnds(lastFound.fabric, fabric(plan));
    const classes = still ? lastFound!.classes : find(plan);
    lastFound = { plan, fabric: fabric(plan), classes };
    return classes;
  },
);

function find(plan: Plan): EndClass[] {
  const { bridges, links, seats } = fabric(plan);
  const byDevice = new Map<string, Address[]>();
  for (const address of plan.address.values()) {
    const { device } = plan.interface.get(address.interface)!;
    const known = byDevice.get(device);
    if (known) known.push(address);
    else byDevice.set(device, [address]);
  }
  const classes = new Map<string, EndClass & { readonly devices: string[] }>();
  bridges.forEach((bridge, at) => {
    bridge.ports.forEach((port, i) => {
      for (const link of links.get(port.id) ?? []) {
        if (seats.has(link.to)) continue;
        const { device } = plan.port.get(link.to)!;
        for (const address of byDevice.get(device) ?? []) {
          const { vlan } = plan.subnet.get(address.subnet)!;
          const item = plan.interface.get(address.interface)!;
          const phone = plan.device.get(device)!.kind === 'phone' && port.voice === vlan;
          const tag = phone ? plan.vlan.get(vlan)!.vid : 0;
          const entered = enters(bridge, i, tag);
          const landing = entered && 'vid' in entered ? { bridge: at, vid: entered.vid } : null;
          const key = [
            vlan,
            landing ? stateKey(landing) : `port ${port.id}`,
            item.ownLength,
            item.ownGateway,
          ].join(' ');
          const known = classes.get(key);
          if (known) known.devices.push(device);
          else {
            const own = { length: item.ownLength, gateway: item.ownGateway };
            classes.set(key, { vlan, port, landing, own, example: address, devices: [device] });
          }
        }
      }
    });
  });
  return [...classes.values()];
}

/** How a segment stands with its router. */
export interface Home {
  readonly router: Router | null;
  /** Why nothing gets out of the segment; null when it does. */
  readonly why: string | null;
  /** Who hears the router in this segment, and from where it is heard; null where its ports are not recorded. */
  readonly flood: Flood | null;
  readonly reachers: { readonly has: (state: number) => boolean } | null;
}

/** What the wiring and the routing of a site are read off: an edit of the policy leaves them as they are. */
export const WIRING = [
  'cable',
  'port',
  'box',
  'bridge',
  'instance',
  'treePort',
  'device',
  'interface',
  'address',
  'vlan',
  'subnet',
  'uplink',
  'route',
  'tunnel',
  'translation',
] as const;

/** What is not about ports: where that changes, homes are found anew. */
const ROUTED = WIRING.filter((table) => !['port', 'bridge', 'instance', 'treePort'].includes(table));

interface Homes {
  readonly plan: Plan;
  readonly fabric: Fabric;
  readonly known: Map<string, Home>;
}
let latest: Homes | null = null;

/** The homes of the last plan that are the same: nothing but ports changed, and none that their floods pass. */
function stillHome(before: Homes, plan: Plan): Map<string, Home> {
  const kept = new Map<string, Home>();
  if (ROUTED.some((table) => plan[table] !== before.plan[table])) return kept;
  const dirty = changedBetween(before.fabric, fabric(plan));
  if (!dirty || !isSymmetric(before.fabric) || !isSymmetric(fabric(plan))) return kept;
  for (const [vlan, home] of before.known)
    if (home.flood && home.why === null && !dirty.has(plan.vlan.get(vlan)!.vid) && avoids(home.flood, dirty))
      kept.set(vlan, home);
  return kept;
}

const homes = memoOn(WIRING, (plan: Plan) => {
  const known = latest ? stillHome(latest, plan) : new Map<string, Home>();
  latest = { plan, fabric: fabric(plan), known };
  return known;
});

export function homeOf(plan: Plan, vlan: string): Home {
  let home = homes(plan).get(vlan);
  if (!home) homes(plan).set(vlan, (home = makeHome(plan, vlan)));
  return home;
}

/** The router of a segment, and why nothing gets out by it; null when it could. */
export function routerOf(plan: Plan, vlan: string): Pick<Home, 'router' | 'why'> {
  const { name, vid } = plan.vlan.get(vlan)!;
  const none = (why: string, router: Router | null = null) => ({ router, why });
  const gateway = subnetsOf(plan, vlan).flatMap((subnet) => gatewaysOf(plan, subnet.id))[0];
  if (!gateway) return none(`${name} has no gateway`);
  const { device } = plan.interface.get(gateway.interface)!;
  const router = routersIn(plan).get(device);
  const title = plan.device.get(device)!.name;
  if (!router?.routes)
    return none(`${title} has the gateway’s address of ${name} and does not route`, router);
  if (!legUp(plan, router, vlan)) return none(`${title} has no port in VLAN ${vid}`, router);
  return { router, why: null };
}

function makeHome(plan: Plan, vlan: string): Home {
  const { router, why } = routerOf(plan, vlan);
  if (!router || why !== null) return { router, why, flood: null, reachers: null };
  const place = placeOf(plan, router.device.id);
  const made = spreadBy(plan, place, vlan);
  if (place.kind !== 'inside' || !made) return { router, why: null, flood: null, reachers: null };
  return {
    router,
    why: null,
    flood: made,
    // Where every link treats both directions alike, who is heard hears.
    reachers: isSymmetric(fabric(plan))
      ? made.came
      : reachersOf(fabric(plan), insideState(plan, place.bridge, vlan)),
  };
}

/** Do the devices of a class and the router of their segment hear each other? */
export const isHome = (home: Home, { landing }: EndClass): boolean => isHomeAt(home, landing);

/** Would somebody whose frames land there and the router hear each other? Where nothing is recorded, taken to be so. */
export function isHomeAt({ flood, reachers }: Home, landing: State | null): boolean {
  if (flood === null || reachers === null) return true;
  return landing !== null && flood.came.has(stateKey(landing)) && reachers.has(stateKey(landing));
}
