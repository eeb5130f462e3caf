import {
  type Group,
  derive,
  deriveBy,
  equal,
  memo,
  type Plan,
  type Cable,
  type Device,
  type Port,
  pick,
} from '../../plan';

/** Kinds that only join cables: a frame passes from the front to the rear of the same number. */
export const isPassive = (kind: Device['kind']): boolean => kind === 'patch-panel' || kind === 'outlet';

export type CableSide = Cable['fromSide'];
export interface CableEnd {
  readonly port: string;
  readonly side: CableSide;
}

/** A way a frame can go between two ports of boxes or end devices, over one or more cables and panels. */
export interface Link {
  readonly from: string;
  readonly to: string;
  readonly cables: readonly string[];
  /** The panel and outlet ports passed, in order. */
  readonly through: readonly string[];
}

/** The cables that end at a port on one side; more than one is a mistake that can be recorded. */
export const cablesAt = (plan: Plan, { port, side }: CableEnd): readonly Cable[] =>
  plan.cable.by('end', `${port} ${side}`);

const passiveIn = memo((group: Group<Device>) => [...group.values()].filter(({ kind }) => isPassive(kind)));
/** The ports of panels and outlets. */
const passivePorts = derive((plan): ReadonlySet<string> => {
  const found = new Set<string>();
  for (const group of plan.device.allGroups())
    for (const { id } of passiveIn(group)) for (const port of plan.port.group(id).keys()) found.add(port);
  return found;
});

/** What is plugged in somewhere, and where it ends. */
interface Plugged extends CableEnd {
  readonly cable: string;
}
/** By port, for each side. Where several cables are in one socket (a mistake), they come by id. */
type Sockets = Readonly<Record<CableSide, Map<string, readonly Plugged[]>>>;

interface Wiring {
  readonly cables: readonly Cable[];
  readonly passive: ReadonlySet<string>;
  readonly sockets: Sockets;
  readonly links: ReadonlyMap<string, readonly Link[]>;
}

const NOTHING: readonly Plugged[] = [];
const NO_PANELS: readonly string[] = [];

const byCable = (a: Plugged, b: Plugged): number => (a.cable < b.cable ? -1 : 1);

function plug(sockets: Sockets, port: string, side: CableSide, plugged: Plugged): void {
  const known = sockets[side].get(port);
  const list = known ? [...known, plugged].sort(byCable) : [plugged];
  sockets[side].set(port, list);
}
function lay(sockets: Sockets, { id, from, fromSide, to, toSide }: Cable): void {
  plug(sockets, from, fromSide, { cable: id, port: to, side: toSide });
  plug(sockets, to, toSide, { cable: id, port: from, side: fromSide });
}
function unplug(sockets: Sockets, port: string, side: CableSide, cable: string): void {
  const left = (sockets[side].get(port) ?? NOTHING).filter((plugged) => plugged.cable !== cable);
  if (left.length > 0) sockets[side].set(port, left);
  else sockets[side].delete(port);
}

/** All cables at once: a socket that thousands share by mistake is put in order once. */
function socketsOf(cables: readonly Cable[]): Sockets {
  const sockets = { front: new Map<string, Plugged[]>(), rear: new Map<string, Plugged[]>() };
  const add = (side: CableSide, port: string, plugged: Plugged) => {
    const known = sockets[side].get(port);
    if (known) known.push(plugged);
    else sockets[side].set(port, [plugged]);
  };
  for (const { id, from, fromSide, to, toSide } of cables) {
    add(fromSide, from, { cable: id, port: to, side: toSide });
    add(toSide, to, { cable: id, port: from, side: fromSide });
  }
  for (const side of [sockets.front, sockets.rear])
    for (const list of side.values()) if (list.length > 1) list.sort(byCable);
  return sockets;
}

/** Where a port leads over all ways of cables. */
function linksFrom(sockets: Sockets, passive: ReadonlySet<string>, start: string): readonly Link[] {
  const first = sockets.front.get(start);
  if (!first) return [];
  const [only, second] = first;
  if (only && !second && !passive.has(only.port))
    return [{ from: start, to: only.port, cables: [only.cable], through: NO_PANELS }];
  const found: Link[] = [];
  const follow = (all: readonly Plugged[], used: readonly string[], through: readonly string[]) => {
    for (const { cable, port, side } of all) {
      if (used.includes(cable)) continue;
      const way = [...used, cable];
      const beyond = side === 'front' ? sockets.rear : sockets.front;
      if (passive.has(port)) follow(beyond.get(port) ?? NOTHING, way, [...through, port]);
      else found.push({ from: start, to: port, cables: way, through });
    }
  };
  follow(first, [], NO_PANELS);
  return found;
}

const sameLay = (a: Cable, b: Cable): boolean =>
  a.from === b.from && a.fromSide === b.fromSide && a.to === b.to && a.toSide === b.toSide;

/** The cables that came, and those that went; one that lies elsewhere did both. Not those with another label or length. */
function relaid(before: readonly Cable[], now: readonly Cable[]) {
  const old = new Set(before);
  const came = new Map(now.filter((cable) => !old.delete(cable)).map((cable) => [cable.id, cable]));
  const went = [...old].filter((cable) => {
    const other = came.get(cable.id);
    if (!other || !sameLay(cable, other)) return true;
    came.delete(cable.id);
    return false;
  });
  return { came: [...came.values()], went };
}

/** Adds the ports from which one gets to a socket through panels. */
function addBehind({ sockets, passive }: Pick<Wiring, 'sockets' | 'passive'>, ports: Set<string>): void {
  for (const port of ports)
    if (passive.has(port))
      for (const side of [sockets.front, sockets.rear])
        for (const plugged of side.get(port) ?? NOTHING) ports.add(plugged.port);
}

/** The links of all cabled ports; `leads` says those of one. */
function linked(
  { cables, passive }: Pick<Wiring, 'cables' | 'passive'>,
  leads: (start: string) => readonly Link[],
): Wiring['links'] {
  const links = new Map<string, readonly Link[]>();
  const add = (start: string) => {
    if (!passive.has(start) && !links.has(start)) links.set(start, leads(start));
  };
  for (const { from, to } of cables) {
    add(from);
    add(to);
  }
  return links;
}

function wire(cables: readonly Cable[], passive: ReadonlySet<string>): Wiring {
  const sockets = socketsOf(cables);
  return {
    cables,
    passive,
    sockets,
    links: linked({ cables, passive }, (start) => linksFrom(sockets, passive, start)),
  };
}

/** The wiring after cables came, went or were moved. Where none near a port did, it leads where it did. */
function rewire(before: Wiring, cables: readonly Cable[]): Wiring {
  const { passive } = before;
  const { came, went } = relaid(before.cables, cables);
  if (came.length === 0 && went.length === 0) return { ...before, cables };
  const sockets: Sockets = { front: new Map(before.sockets.front), rear: new Map(before.sockets.rear) };
  for (const { id, from, fromSide, to, toSide } of went) {
    unplug(sockets, from, fromSide, id);
    unplug(sockets, to, toSide, id);
  }
  for (const cable of came) lay(sockets, cable);
  const around = new Set([...came, ...went].flatMap(({ from, to }) => [from, to]));
  addBehind(before, around);
  addBehind({ sockets, passive }, around);
  const links = linked(
    { cables, passive },
    (start) => (!around.has(start) && before.links.get(start)) || linksFrom(sockets, passive, start),
  );
  return { cables, passive, sockets, links };
}

const wiringOf = derive((plan, before: Wiring | undefined): Wiring => {
  const cables = [...plan.cable.values()];
  const passive = passivePorts(plan);
  return before?.passive === passive ? rewire(before, cables) : wire(cables, passive);
}, Object.is);

/**
 * Where each cabled port leads, through panels and outlets. A port with two cables (a mistake) leads to both.
 */
export const linksOf = derive(
  (plan): ReadonlyMap<string, readonly Link[]> => wiringOf(plan).links,
  Object.is,
);

const sortedPorts = memo((group: ReadonlyMap<string, Port>) =>
  [...group.values()].sort((a, b) => a.number - b.number || (a.id < b.id ? -1 : 1)),
);
/** The ports of a device by number; the inner port, number 0, first. */
export const portsOf = (plan: Plan, device: string): readonly Port[] => sortedPorts(plan.port.group(device));

const OF_PORT = [
  'id',
  'device',
  'number',
  'speed',
  'defective',
  'enabled',
  'lag',
  'role',
  'pvid',
  'untagged',
  'taggedMode',
  'tagged',
  'voice',
  'accepts',
  'ingressFilter',
] as const satisfies readonly (keyof Port)[];
/** What of a port says what frames do at it: neither what people call it nor where on the face it is. */
export type WiredPort = Pick<Port, (typeof OF_PORT)[number]>;
const wired = memo((port: Port): WiredPort => pick(port, OF_PORT));
/** The ports of a device by number, as far as frames go; an edit of anything else about them leaves this as it is. */
export const wiredPorts = deriveBy(
  (plan, device: string, before: readonly WiredPort[] | undefined): readonly WiredPort[] =>
    portsOf(plan, device).map((port, i) => {
      const made = wired(port);
      const known = before?.[i];
      return known && equal(known, made) ? known : made;
    }),
);

/** One port, as far as frames go. */
export const wiredPort = deriveBy((plan, id: string): WiredPort => wired(plan.port.get(id)!));

const NO_LINKS: readonly Link[] = [];
const linksByDevice = deriveBy((plan, device: string): ReadonlyMap<string, readonly Link[]> => {
  const links = linksOf(plan);
  return new Map(
    [...plan.port.group(device).keys()].flatMap((id) => {
      const own = links.get(id);
      return own ? [[id, own] as const] : [];
    }),
  );
});
/** Where one port leads; cables elsewhere leave it as it is. */
export const linksAt = (plan: Plan, { id, device }: Pick<Port, 'id' | 'device'>): readonly Link[] =>
  linksByDevice(plan, device).get(id) ?? NO_LINKS;

/** The port behind which a box itself lives: its management, routing and DHCP. Panels and end devices have none. */
export const innerPort = (plan: Plan, device: string): Port | undefined =>
  portsOf(plan, device).find((port) => port.number === 0);
