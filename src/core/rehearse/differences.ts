import { type IpAddress, formatAddress, contains, formatPrefix, networkOf } from '../address';
import {
  type Remedy,
  boxOf,
  derive,
  groupBy,
  memo,
  type Plan,
  withRecord,
  type Vlan,
  type Zone,
  type RecordRef,
  gatewaysOf,
  subnetsOf,
  portTitle,
} from '../plan';
import { carryNeeded, joinSegment, subnetSettings } from './remedies';
import { adding, type Flood } from '../model/wiring';
import { filterOf, isOutside, passing, vlansIn, zoneOfVlan, zonesOf } from '../model/policy';
import { type Router, isSame, routersAt, wayTo } from '../model/routing';
import { missingPorts, bridgeAt, fabric } from '../model/switching';
import { type EndClass, classesOf, homeOf, isHome, isHomeAt } from './classes';
import { farAddress, newcomerAddress } from './host';

/** Where the rehearsed network does something else than the matrix says. */
export interface Difference {
  readonly from: Zone;
  readonly to: Zone;
  /** excess: it passes though it is not allowed. missing: it is allowed and does not pass. */
  readonly kind: 'excess' | 'missing';
  readonly why: string;
  readonly on: RecordRef;
  readonly also: readonly RecordRef[];
  readonly remedies: readonly Remedy[];
  /** The same cause in several pairs has the same key. */
  readonly cause: string;
}

type Cause = Omit<Difference, 'from' | 'to' | 'kind'>;

const vlanRef = ({ id }: Vlan): RecordRef => ({ table: 'vlan', id });

/** The port at which a frame of one VLAN becomes one of another on its way. */
function turn(plan: Plan, flood: Flood, vid: number): string {
  for (const [key, { from, link }] of flood.came) {
    if (key % 4096 !== vid || from === null || from.vid === vid || !link) continue;
    const [left, right] = [plan.port.get(link.from)!, plan.port.get(link.to)!];
    return `${portTitle(plan, left)} to ${portTitle(plan, right)} makes VLAN ${vid} of it`;
  }
  return 'a box without VLANs joins them';
}

/** Segments whose frames get onto the wire of another. */
const joined = derive((plan) => {
  const byVid = new Map([...plan.vlan.values()].map((vlan) => [vlan.vid, vlan]));
  const found: { readonly a: Vlan; readonly b: Vlan; readonly cause: Cause }[] = [];
  for (const a of plan.vlan.values()) {
    const { flood } = homeOf(plan, a.id);
    if (!flood) continue;
    const vids = new Set<number>();
    for (const key of flood.came.keys())
      if (fabric(plan).bridges[Math.floor(key / 4096)]!.box.vlanAware) vids.add(key % 4096);
    for (const vid of vids) {
      const b = byVid.get(vid);
      if (!b || b.id === a.id) continue;
      found.push({
        a,
        b,
        cause: {
          why: `${a.name} and ${b.name} share a wire: ${turn(plan, flood, vid)}.`,
          on: vlanRef(a),
          also: [vlanRef(b)],
          remedies: [],
          cause: `joined ${a.id} ${b.id}`,
        },
      });
    }
  }
  return found;
});

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
  return mended(tried) ? [carryNeeded(`Carry ${vlan.vid} ${vlan.code} where it is needed`, vlan)] : [];
}

/** Putting its port into its segment helps where that is carried to its box and nobody of another hangs on the port. */
function joining(plan: Plan, { port, vlan: id }: EndClass): Remedy[] {
  const vlan = plan.vlan.get(id)!;
  const shared = classesOf(plan).some((other) => other.port.id === port.id && other.vlan !== id);
  const there = { bridge: bridgeAt(plan, port.device), vid: vlan.vid };
  if (shared || !boxOf(plan, port.device)!.vlanAware || !isHomeAt(homeOf(plan, id), there)) return [];
  return [joinSegment(`Put ${portTitle(plan, port)} into ${vlan.name}`, port, vlan)];
}

const titled = (plan: Plan, { devices }: EndClass): string => {
  const name = plan.device.get(devices[0]!)!.name;
  return devices.length === 1 ? name : `${name} and ${devices.length - 1} more`;
};

/** Devices that stand on the wire of another segment than their own. */
const strays = derive((plan) => {
  const byVid = new Map([...plan.vlan.values()].map((vlan) => [vlan.vid, vlan]));
  return classesOf(plan).flatMap((item) => {
    const { landing, vlan } = item;
    if (!landing || !fabric(plan).bridges[landing.bridge]!.box.vlanAware) return [];
    const b = byVid.get(landing.vid);
    if (!b || b.id === vlan) return [];
    const a = plan.vlan.get(vlan)!;
    const undecided = item.port.role === 'undecided' ? ', which nobody decided' : '';
    const cause: Cause = {
      why: `${titled(plan, item)} of ${a.name} is plugged into ${portTitle(plan, item.port)}${undecided}: that is VLAN ${b.vid} ${b.name}.`,
      on: { table: 'port', id: item.port.id },
      also: [vlanRef(a), vlanRef(b)],
      remedies: joining(plan, item),
      cause: `stray ${item.port.id} ${vlan}`,
    };
    return [{ a, b, cause }];
  });
});

/** Segments that share a wire while one of them is in no zone, so that no pair of zones tells of it. */
export const looseWires = (plan: Plan): readonly (Cause & { readonly a: Vlan; readonly b: Vlan })[] =>
  zonesOf(plan).length === 0
    ? []
    : [...joined(plan), ...strays(plan)]
        .filter(({ a, b }) => !zoneOfVlan(plan, a.id) || !zoneOfVlan(plan, b.id))
        .map(({ a, b, cause }) => ({ ...cause, a, b }));

/** Why some devices of a segment have no part in what is allowed for it. */
function cutOff(plan: Plan, vlan: Vlan): Cause[] {
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
  return (classesByVlan(plan).get(vlan.id) ?? []).flatMap((item): Cause[] => {
    const base = { also: [vlanRef(vlan)], cause: `class ${item.example.id}` };
    if (!isHome(home, item)) {
      const carry = carried(plan, vlan, (tried) => isHome(homeOf(tried, vlan.id), item));
      const mend = carry.length > 0 ? carry : joining(plan, item);
      return [
        {
          ...base,
          why: `${titled(plan, item)} at ${portTitle(plan, item.port)} and the gateway of ${vlan.name} do not hear each other.`,
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
}

const classesByVlan = derive((plan) => {
  const found = new Map<string, EndClass[]>();
  for (const item of classesOf(plan)) found.set(item.vlan, [...(found.get(item.vlan) ?? []), item]);
  return found;
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
function routed(plan: Plan, start: Router, to: IpAddress, outside: boolean): string | null {
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
function apart(plan: Plan, a: Vlan, b: Vlan): string | null {
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
const unfiltered = (plan: Plan, a: Router | null, b: Router | null): Router | null =>
  a && isSame(a, b) && a.routes && filterOf(plan, a.device) === 'none' ? a : null;

/** Every difference between the matrix and what the rehearsed network does. Empty while there are no zones. */
export const differencesIn = derive((plan): readonly Difference[] => {
  const found: Difference[] = [];
  const zones = zonesOf(plan);
  if (zones.length === 0) return found;
  const allows = (from: Zone, to: Zone) => passing(plan, from, to).decision;
  const excess = (a: Vlan, b: Vlan, cause: Cause) => {
    const [from, to] = [zoneOfVlan(plan, a.id), zoneOfVlan(plan, b.id)];
    if (from && to && from !== to && allows(from, to) !== 'allow')
      found.push({ from, to, kind: 'excess', ...cause });
  };
  for (const { a, b, cause } of joined(plan)) excess(a, b, cause);
  for (const { a, b, cause } of strays(plan)) {
    excess(a, b, cause);
    excess(b, a, cause);
  }
  const members = new Map(zones.map((zone) => [zone.id, vlansIn(plan, zone)]));
  const home = new Map([...plan.vlan.values()].map(({ id }) => [id, homeOf(plan, id)]));
  // What keeps a segment from its gateway is looked for where something is allowed; most is not.
  const known = new Map<string, readonly Cause[]>();
  const cut = (vlan: Vlan): readonly Cause[] => {
    let causes = known.get(vlan.id);
    if (!causes) known.set(vlan.id, (causes = cutOff(plan, vlan)));
    return causes;
  };
  for (const from of zones)
    for (const to of zones) {
      if (from === to) continue;
      const decision = allows(from, to);
      const senders = members.get(from.id)!.filter(({ internet }) => decision !== 'wish' || internet);
      const receivers = members.get(to.id)!;
      if (decision !== 'allow')
        for (const a of senders)
          for (const b of receivers) {
            const router = unfiltered(plan, home.get(a.id)!.router, home.get(b.id)!.router);
            if (router)
              excess(a, b, {
                why: `${router.device.name} routes between ${a.name} and ${b.name} and has no filter.`,
                on: { table: 'device', id: router.device.id },
                also: [],
                remedies: [],
                cause: `filter ${router.device.id}`,
              });
          }
      if (decision === 'deny') continue;
      const missing = (causes: readonly Cause[]) =>
        causes.forEach((cause) => found.push({ from, to, kind: 'missing', ...cause }));
      for (const vlan of [...senders, ...receivers]) missing(cut(vlan));
      for (const a of senders) {
        const { why: shut, router } = home.get(a.id)!;
        if (shut !== null || !router) continue;
        if (isOutside(to)) {
          const why = routed(plan, router, farAddress(plan), true);
          if (why)
            missing([
              {
                why: `${why}, so ${a.name} has no Internet.`,
                on: vlanRef(a),
                also: [],
                remedies: [],
                cause: `out ${a.id}`,
              },
            ]);
        }
        for (const b of receivers) {
          if (home.get(b.id)!.why !== null) continue;
          const why = apart(plan, a, b);
          if (why)
            missing([
              {
                why: `${a.name} and ${b.name}: ${why}.`,
                on: vlanRef(a),
                also: [vlanRef(b)],
                remedies: [],
                cause: `apart ${a.id} ${b.id}`,
              },
            ]);
        }
      }
    }
  return found;
});

const byPair = memo((found: readonly Difference[]) =>
  groupBy(found, ({ from, to }) => `${from.id} ${to.id}`),
);
const NONE: readonly Difference[] = [];
/** The differences of pairs of zones, asked by the ids of both. */
export function differencesBy(plan: Plan): (from: string, to: string) => readonly Difference[] {
  const pairs = byPair(differencesIn(plan));
  return pairs.size === 0 ? () => NONE : (from, to) => pairs.get(`${from} ${to}`) ?? NONE;
}
/** The differences of one pair of zones. */
export const differencesOf = (plan: Plan, from: string, to: string): readonly Difference[] =>
  differencesBy(plan)(from, to);
