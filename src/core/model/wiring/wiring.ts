import {
  type Group,
  derive,
  deriveBy,
  groupBy,
  memo,
  type Plan,
  type Cable,
  type Device,
  type Port,
  pick,
} from '../../plan';

/** Kinds that only join cables: a frame passes from the front to the rear of the same number. */
export const isPassive = (kind: Device['kind']): boolean => kind === 'patch-panel' || kind === 'outlet';

export type Side = Cable['fromSide'];
export interface CableEnd {
  readonly port: string;
  readonly side: Side;
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

/** What of a cable says where frames go: not its label, nor how long it is. */
const laid = derive((plan) =>
  [...plan.cable.values()].map(({ id, from, fromSide, to, toSide }) => ({ id, from, fromSide, to, toSide })),
);

/**
 * Where each cabled port leads, through panels and outlets. A port with two cables (a mistake) leads to both.
 */
export const linksOf = derive((plan): ReadonlyMap<string, readonly Link[]> => {
  const passive = passivePorts(plan);
  const ends = groupBy(
    laid(plan).flatMap((cable) => [
      { key: `${cable.from} ${cable.fromSide}`, cable: cable.id, port: cable.to, side: cable.toSide },
      { key: `${cable.to} ${cable.toSide}`, cable: cable.id, port: cable.from, side: cable.fromSide },
    ]),
    ({ key }) => key,
  );
  const links = new Map<string, readonly Link[]>();
  const linksFrom = (start: string): Link[] => {
    const found: Link[] = [];
    const follow = (end: CableEnd, used: readonly string[], through: readonly string[]) => {
      for (const { cable, port, side } of ends.get(`${end.port} ${end.side}`) ?? []) {
        if (used.includes(cable)) continue;
        const way = [...used, cable];
        if (passive.has(port))
          follow({ port, side: side === 'front' ? 'rear' : 'front' }, way, [...through, port]);
        else found.push({ from: start, to: port, cables: way, through });
      }
    };
    follow({ port: start, side: 'front' }, [], []);
    return found;
  };
  for (const cable of laid(plan))
    for (const start of [cable.from, cable.to])
      if (!links.has(start) && !passive.has(start)) links.set(start, linksFrom(start));
  return links;
});

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
  'aggregate',
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
export const wiredPorts = deriveBy((plan, device: string): readonly WiredPort[] =>
  portsOf(plan, device).map(wired),
);

/** The port behind which a box itself lives: its management, routing and DHCP. Panels and end devices have none. */
export const innerPort = (plan: Plan, device: string): Port | undefined =>
  portsOf(plan, device).find((port) => port.number === 0);
