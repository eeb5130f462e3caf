import type { IpAddress } from '../address';
import {
  type Address,
  type Plan,
  addressesOn,
  derive,
  deriveBy,
  despite,
  equal,
  gatewaysOf,
  interfacesOf,
  memo,
  subnetsOf,
} from '../plan';
import {
  type Flood,
  type State,
  enters,
  isMember,
  linksAt,
  stateKey,
  vidsById,
  type PortFacts,
  type WiredPort,
  wiredPorts,
} from '../model/wiring';
import {
  avoids,
  boxesInOrder,
  bridgeAt,
  changedBetween,
  isSymmetric,
  reverseFlood,
  fabric,
} from '../model/switching';
import { type Router, legUp, routersIn } from '../model/routing';
import { anyGuards } from '../model/guards';
import { joinersOf } from '../model/wireless';
import { cutOffIn } from './guards/sights';
import { spreadBy, insideState, placeOf } from './frames';

/**
 * End devices that are treated alike: of one segment, plugged into the same VLAN of the same box, with the same settings.
 * What holds for one of them holds for all, so that a site is rehearsed by classes and not by every pair of devices.
 */
export interface EndClass {
  readonly vlan: string;
  /** The port of a box that the first of them is plugged into; of those on its air the inner one. */
  readonly port: WiredPort;
  /** Where its frames land; null when the port does not let them in. */
  readonly landing: State | null;
  /** What is set on it against its subnet. */
  readonly own: { readonly length: number | null; readonly gateway: IpAddress | null };
  /** What a guard stops of them before it gets to their router; null for nothing. */
  readonly cut: string | null;
  readonly example: Omit<Address, 'note'>;
  readonly devices: readonly string[];
}

/** An address without what people wrote beside it. */
const bare = memo(({ note: _note, ...address }: Address): EndClass['example'] => address);

/** A box as frames find it, with its place among all. */
const bridgeIn = deriveBy((plan, device: string) => {
  const at = bridgeAt(plan, device);
  return { at, bridge: fabric(plan).bridges[at]! };
});

/** An end device at a port of a box. */
interface Plug {
  /** The place of the port in its box. */
  readonly index: number;
  readonly port: WiredPort;
  readonly device: string;
}
const plugsAt = deriveBy((plan, box: string): readonly Plug[] =>
  wiredPorts(plan, box).flatMap((port, index) =>
    linksAt(plan, port)
      .map(({ to }) => plan.port.get(to)!.device)
      .filter((device) => bridgeAt(plan, device) < 0)
      .map((device) => ({ index, port, device })),
  ),
);

/** Who is at a box over the air, with the inner port they come in by. */
const onAirAt = deriveBy(
  (plan, box: string): readonly { readonly device: string; readonly vid: number | null }[] => {
    const joiners = joinersOf(plan).get(box) ?? [];
    if (joiners.length === 0) return [];
    const { bridge } = bridgeIn(plan, box);
    const facts = bridge.facts[bridge.ports.findIndex(({ number }) => number === 0)];
    return joiners
      .filter(({ device }) => bridgeAt(plan, device) < 0 && placeOf(plan, device).kind === 'air')
      .map(({ device, ssid }) => {
        const { vlan } = plan.ssid.get(ssid)!;
        const vid = vlan === null ? undefined : vidsById(plan).get(vlan);
        if (!bridge.box.vlanAware) return { device, vid: facts ? 0 : null };
        return { device, vid: vid !== undefined && facts && isMember(facts, vid) ? vid : null };
      });
  },
);

/** A box as the devices plugged into it find it: what trees do between boxes is left out. */
const edgeOf = deriveBy((plan, box: string) => {
  const { at, bridge } = bridgeIn(plan, box);
  const facts: (PortFacts | null)[] = [];
  for (const { index } of plugsAt(plan, box)) facts[index] = bridge.facts[index]!;
  return { at, box: bridge.box, facts };
});

/** What is plugged into a box or on its air, by class. */
const classesAt = deriveBy((plan, box: string): readonly EndClass[] => {
  const edge = edgeOf(plan, box);
  const vids = vidsById(plan);
  const classes = new Map<string, EndClass & { readonly devices: string[] }>();
  const add = (device: string, port: WiredPort, landingOf: (vlan: string) => State | null) => {
    for (const item of interfacesOf(plan, device))
      for (const address of addressesOn(plan, item.id)) {
        const { vlan } = plan.subnet.get(address.subnet)!;
        const landing = landingOf(vlan);
        const where = landing ? stateKey(landing) : `port ${port.id}`;
        const cut = anyGuards(plan) ? (cutOffIn(plan, vlan).get(address.id) ?? null) : null;
        const key = [vlan, where, port.number === 0, item.ownLength, item.ownGateway, cut].join(' ');
        const known = classes.get(key);
        if (known) known.devices.push(device);
        else {
          const own = { length: item.ownLength, gateway: item.ownGateway };
          classes.set(key, { vlan, port, landing, own, cut, example: bare(address), devices: [device] });
        }
      }
  };
  for (const { index, port, device } of plugsAt(plan, box))
    add(device, port, (vlan) => {
      const phone = port.voice === vlan && plan.device.get(device)!.kind === 'phone';
      const entered = enters(edge, index, phone ? vids.get(vlan)! : 0);
      return entered && 'vid' in entered ? { bridge: edge.at, vid: entered.vid } : null;
    });
  const inner = wiredPorts(plan, box).find(({ number }) => number === 0);
  if (inner)
    for (const { device, vid } of onAirAt(plan, box))
      add(device, inner, () => (vid === null ? null : { bridge: edge.at, vid }));
  return [...classes.values()];
});

/** The classes of all devices whose cables are recorded. Telephones that tag count where their tag puts them. */
export const classesOf = derive((plan): readonly EndClass[] =>
  boxesInOrder(plan).flatMap(({ device }) => classesAt(plan, device)),
);

/** How a segment stands with its router. */
export interface Home {
  readonly router: Router | null;
  /** Why nothing gets out of the segment; null when it does. */
  readonly why: string | null;
  /** Who hears the router in this segment, and from where it is heard; null where its ports are not recorded. */
  readonly flood: Flood | null;
  readonly reachers: { readonly has: (state: number) => boolean } | null;
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

interface HeldHome {
  readonly flood: Flood;
  readonly reachers: ReadonlySet<number>;
}
/** How far the router of a segment is heard, and who gets to it. */
const heldHome = deriveBy(
  (plan, vlan: string): HeldHome | null => {
    const { router, why } = routerOf(plan, vlan);
    if (!router || why !== null) return null;
    const place = placeOf(plan, router.device.id);
    if (place.kind !== 'inside') return null;
    const flood = spreadBy(plan, place, vlan);
    if (!flood) return null;
    // Where every link treats both directions alike, who is heard hears.
    const made = fabric(plan);
    const reachers = isSymmetric(made)
      ? new Set(flood.came.keys())
      : reverseFlood(made, insideState(plan, place.bridge, vlan));
    return { flood, reachers };
  },
  equal,
  // Where nothing on the way changed, it is the same again.
  despite(fabric, (home: HeldHome | null, was, is) => {
    const dirty = home && changedBetween(was, is);
    return !!dirty && avoids(home.flood.came, dirty.leaving) && avoids(home.reachers, dirty.entering);
  }),
);

/** How a segment stands with its router. */
export const homeOf = deriveBy((plan, vlan: string): Home => {
  const { router, why } = routerOf(plan, vlan);
  const heard = heldHome(plan, vlan);
  return { router, why, flood: heard?.flood ?? null, reachers: heard?.reachers ?? null };
});

/** Do the devices of a class and the router of their segment hear each other? */
export const isHome = (home: Home, { landing, cut }: EndClass): boolean =>
  cut === null && isHomeAt(home, landing);

/** Would somebody whose frames land there and the router hear each other? Where nothing is recorded, taken to be so. */
export function isHomeAt({ flood, reachers }: Home, landing: State | null): boolean {
  if (flood === null || reachers === null) return true;
  return landing !== null && flood.came.has(stateKey(landing)) && reachers.has(stateKey(landing));
}
