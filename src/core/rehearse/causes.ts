import { type IpAddress, contains, formatAddress, formatPrefix, networkOf } from '../address';
import {
  type PlainVlan,
  type Plan,
  type RecordRef,
  type Remedy,
  type Vlan,
  boxOf,
  derive,
  deriveBy,
  gatewaysOf,
  groupBy,
  plainVlansOf,
  portTitle,
  subnetsOf,
  withRecord,
} from '../plan';
import { filterOf } from '../model/policy';
import { type Router, isSame, routersAt, wayTo } from '../model/routing';
import { boxesInOrder, bridgeAt, missingPorts } from '../model/switching';
import { type Flood, adding } from '../model/wiring';
import { type EndClass, classesOf, homeOf, isHome, isHomeAt } from './classes';
import { newcomerAddress } from './host';
import { carryRemedy, joinRemedy, subnetSettings } from './remedies';

/** Why a network does something else than was decided for it. */

export interface Cause {
  readonly why: string;
  readonly on: RecordRef;
  readonly also: readonly RecordRef[];
  readonly remedies: readonly Remedy[];
  /** The same cause in several pairs has the same key. */
  readonly cause: string;
}

export const vlanRef = ({ id }: Pick<Vlan, 'id'>): RecordRef => ({ table: 'vlan', id });

/** The port at which a frame of one VLAN becomes one of another on its way. */
function turn(plan: Plan, flood: Flood, vid: number): string {
  for (const [key, { from, link }] of flood.came) {
    if (key % 4096 !== vid || from === null || from.vid === vid || !link) continue;
    const [left, right] = [plan.port.get(link.from)!, plan.port.get(link.to)!];
    return `${portTitle(plan, left)} to ${portTitle(plan, right)} makes VLAN ${vid} of it`;
  }
  return 'a box without VLANs joins them';
}

/** The ids of VLANs by number; of several the last. */
const idsByVid = derive(
  (plan): ReadonlyMap<number, string> => new Map(plainVlansOf(plan).map(({ id, vid }) => [vid, id])),
);

/** The other segments onto whose wire the frames of one get. */
const joinedTo = deriveBy((plan, vlan: string): readonly string[] => {
  const { flood } = homeOf(plan, vlan);
  if (!flood) return [];
  const boxes = boxesInOrder(plan);
  const vids = new Set<number>();
  for (const key of flood.came.keys()) if (boxes[Math.floor(key / 4096)]!.vlanAware) vids.add(key % 4096);
  return [...vids].flatMap((vid) => {
    const other = idsByVid(plan).get(vid);
    return other === undefined || other === vlan ? [] : [other];
  });
});

/** Two segments, by id, that frames get between past every router. */
export interface SharedWire {
  readonly a: string;
  readonly b: string;
  readonly cause: Cause;
}

/** Segments whose frames get onto the wire of another. */
export const joined = derive((plan): readonly SharedWire[] =>
  plainVlansOf(plan).flatMap(({ id }) =>
    joinedTo(plan, id).map((other) => {
      const [a, b] = [plan.vlan.get(id)!, plan.vlan.get(other)!];
      return {
        a: id,
        b: other,
        cause: {
          why: `${a.name} and ${b.name} share a wire: ${turn(plan, homeOf(plan, id).flood!, b.vid)}.`,
          on: vlanRef(a),
          also: [vlanRef(b)],
          remedies: [],
          cause: `joined ${a.id} ${b.id}`,
        },
      };
    }),
  ),
);

/** Carrying a segment where it is needed, should that mend what `mended` asks of the plan with it. */
function carried(plan: Plan, vlan: Vlan, mended: (plan: Plan) => boolean): Remedy[] {
  const ports = missingPorts(plan, vlan.id);
  if (ports.length === 0) return [];
  const tried = ports.reduce(
    (now, port) =>
      withRecord(now, 'port', port.id, {
        ...now.port.get(port.id)!,
        ...adding(port, vlan.id),
        profile: null,
      }),
    plan,
  );
  return mended(tried) ? [carryRemedy(`Carry ${vlan.vid} ${vlan.code} where it is needed`, vlan)] : [];
}

/** Putting its port into its segment helps where that is carried to its box and nobody of another hangs on the port. */
function joining(plan: Plan, { port, vlan: id }: EndClass): Remedy[] {
  const vlan = plan.vlan.get(id)!;
  const shared = classesOf(plan).some((other) => other.port.id === port.id && other.vlan !== id);
  const there = { bridge: bridgeAt(plan, port.device), vid: vlan.vid };
  // Who is on the air joins another network, or the network another segment: that is for the user to say.
  if (port.number === 0) return [];
  if (shared || !boxOf(plan, port.device)!.vlanAware || !isHomeAt(homeOf(plan, id), there)) return [];
  return [joinRemedy(`Put ${portTitle(plan, port)} into ${vlan.name}`, port, vlan)];
}

const titled = (plan: Plan, { devices }: EndClass): string => {
  const name = plan.device.get(devices[0]!)!.name;
  return devices.length === 1 ? name : `${name} and ${devices.length - 1} more`;
};

/** Devices that stand on the wire of another segment than their own. */
export const strays = derive((plan): readonly SharedWire[] => {
  const ids = idsByVid(plan);
  return classesOf(plan).flatMap((item) => {
    const { landing, vlan } = item;
    if (!landing || !boxesInOrder(plan)[landing.bridge]!.vlanAware) return [];
    const other = ids.get(landing.vid);
    if (other === undefined || other === vlan) return [];
    const [a, b] = [plan.vlan.get(vlan)!, plan.vlan.get(other)!];
    const undecided = item.port.role === 'undecided' ? ', which nobody decided' : '';
    const where =
      item.port.number === 0
        ? `on the air of ${plan.device.get(item.port.device)!.name}`
        : `plugged into ${portTitle(plan, item.port)}${undecided}`;
    const cause: Cause = {
      why: `${titled(plan, item)} of ${a.name} is ${where}: that is VLAN ${b.vid} ${b.name}.`,
      on: { table: 'port', id: item.port.id },
      also: [vlanRef(a), vlanRef(b)],
      remedies: joining(plan, item),
      cause: `stray ${item.port.id} ${vlan}`,
    };
    return [{ a: vlan, b: other, cause }];
  });
});

const classesByVlan = derive((plan): ReadonlyMap<string, readonly EndClass[]> =>
  groupBy(classesOf(plan), ({ vlan }) => vlan),
);
const NO_CLASSES: readonly EndClass[] = [];
const classesIn = deriveBy((plan, vlan: string) => classesByVlan(plan).get(vlan) ?? NO_CLASSES);

/** Why some devices of a segment have no part in what is allowed for it. */
export const cutOff = deriveBy((plan, id: string): readonly Cause[] => {
  const vlan = plan.vlan.get(id)!;
  // A segment without addresses goes nowhere, and is meant to.
  if (subnetsOf(plan, vlan.id).length === 0) return [];
  const home = homeOf(plan, vlan.id);
  if (home.why !== null) {
    return [
      {
        why: `${home.why}.`,
        on: vlanRef(vlan),
        also: [],
        remedies: carried(plan, vlan, (tried) => homeOf(tried, vlan.id).why === null),
        cause: `home ${vlan.id}`,
      },
    ];
  }
  return classesIn(plan, vlan.id).flatMap((item): Cause[] => {
    const base = { also: [vlanRef(vlan)], cause: `class ${item.example.id}` };
    if (!isHome(home, item)) {
      const carry = carried(plan, vlan, (tried) => isHome(homeOf(tried, vlan.id), item));
      const mend = carry.length > 0 ? carry : joining(plan, item);
      return [
        {
          ...base,
          why:
            item.cut === null
              ? `${titled(plan, item)} at ${portTitle(plan, item.port)} and the gateway of ${vlan.name} do not hear each other.`
              : `${titled(plan, item)}: ${item.cut}.`,
          on: { table: 'port', id: item.port.id },
          remedies: mend,
        },
      ];
    }
    const wrong = wrongSettings(plan, item);
    return wrong === null
      ? []
      : [
          {
            ...base,
            why: `${titled(plan, item)}: ${wrong}.`,
            on: { table: 'interface', id: item.example.interface },
            remedies: [subnetSettings(item.example.interface)],
          },
        ];
  });
});

/** What is set on a device that keeps it from its gateway, or from who is outside its network. */
function wrongSettings(plan: Plan, { example, own }: EndClass): string | null {
  const subnet = plan.subnet.get(example.subnet)!;
  const network = networkOf(example.address, own.length ?? subnet.prefix.length);
  const gateways = gatewaysOf(plan, subnet.id).map(({ address }) => address);
  const gateway: IpAddress | undefined = own.gateway ?? gateways[0];
  if (own.gateway === 0 || own.gateway === 0n) return 'no gateway is set on it';
  if (gateway === undefined) return null;
  if (!contains(network, gateway))
    return `its gateway ${formatAddress(gateway)} is not in the network ${formatPrefix(network)} it believes to be in`;
  if (!gateways.includes(gateway)) return `its gateway ${formatAddress(gateway)} is not the segment’s`;
  return null;
}

/** Follows static routes from a router to an address: null when it gets there, else why not. */
export function routed(plan: Plan, start: Router, to: IpAddress, outside: boolean): string | null {
  let router = start;
  for (let hops = 0; hops < 16; hops++) {
    if (!router.routes) return `${router.device.name} does not route`;
    const way = wayTo(plan, router, to);
    if (!way) return `${router.device.name} knows no way to ${outside ? 'the Internet' : formatAddress(to)}`;
    if (way.by === 'leg' || way.by === 'tunnel') return null;
    if (way.by === 'uplink') {
      if (outside) return null;
      if (way.uplink.segment === null) return `${router.device.name} has no route to ${formatAddress(to)}`;
      const outer = homeOf(plan, way.uplink.segment).router;
      if (!outer) return `${router.device.name} stands behind nobody`;
      router = outer;
      continue;
    }
    const next = routersAt(plan, way.route.via).find((other) => !isSame(other, router));
    if (!next || !way.leg) return `${router.device.name}: no router has ${formatAddress(way.route.via)}`;
    router = next;
  }
  return `${start.device.name}: the routes go in circles`;
}

const addressIn = (plan: Plan, vlan: string): IpAddress | null => {
  const subnet = subnetsOf(plan, vlan)[0];
  return subnet ? newcomerAddress(plan, subnet) : null;
};

/** Why two segments have no way to each other; null when they do. */
export function apart(plan: Plan, a: PlainVlan, b: PlainVlan): string | null {
  const [from, to] = [homeOf(plan, a.id).router, homeOf(plan, b.id).router];
  if (!from || !to || isSame(from, to)) return null;
  const [there, here] = [addressIn(plan, b.id), addressIn(plan, a.id)];
  if (there === null || here === null) return null;
  const back = routed(plan, to, here, false);
  // Behind a second translation the answer goes to the outer address, which the other router knows.
  const translated = from.uplinks.some(({ segment }) => segment !== null);
  return routed(plan, from, there, false) ?? (translated ? null : back);
}

/** The router that routes two segments without a filter, so that everything passes; null where there is none. */
export const unfiltered = (plan: Plan, a: Router | null, b: Router | null): Router | null =>
  a && isSame(a, b) && a.routes && filterOf(plan, a.device) === 'none' ? a : null;
