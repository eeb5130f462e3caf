import { isPassive, linksOf, portsOf } from '../wiring';
import { uplinksOf } from '../uplink';
import { type Device, type Plan, type Port, boxOf, byName } from '../../plan';

/** The Internet on the map: no record, so an id that no record has. */
export const INTERNET = 'internet';

/** The end outside of the way that leaves by a port; of an uplink without one, by its id. */
export const outsidePort = (port: string): string => `${INTERNET} ${port}`;

/** Where one cable ends: a port, with the number as printed. Two cables in one port, a mistake, are drawn beside each other. */
export interface MapSocket {
  readonly id: string;
  readonly port: string;
  readonly number: number | null;
}
/** End devices on ports of one box, in one segment; null where none is set. */
export interface MapEnds {
  readonly segment: string | null;
  readonly devices: readonly { readonly id: string; readonly name: string; readonly at: number }[];
}
export interface MapBox {
  readonly id: string;
  readonly name: string;
  readonly kind: Device['kind'] | typeof INTERNET;
  /** Where it stands; empty when nobody wrote it down. */
  readonly place: string;
  readonly sockets: readonly MapSocket[];
  readonly ends: readonly MapEnds[];
}
export interface MapEnd {
  readonly box: string;
  readonly port: string;
  readonly socket: string;
}
/** A way between two boxes over one or more cables; from the outside inwards. */
export interface MapCable {
  readonly id: string;
  readonly from: MapEnd;
  readonly to: MapEnd;
}
/** What the map shows of a plan, before anything has a place. */
export interface MapModel {
  readonly boxes: readonly MapBox[];
  readonly cables: readonly MapCable[];
}

/** A telephone is in the voice segment of its port, anything else in the untagged one. */
const segmentAt = (port: Port, { kind }: Device): string | null =>
  kind === 'phone' && port.voice !== null ? port.voice : port.untagged;

function endsOf(plan: Plan, device: string): MapEnds[] {
  const links = linksOf(plan);
  const found = new Map<string | null, MapEnds['devices'][number][]>();
  for (const port of portsOf(plan, device))
    for (const { to } of links.get(port.id) ?? []) {
      const other = plan.device.get(plan.port.get(to)!.device)!;
      if (boxOf(plan, other.id)) continue;
      const segment = segmentAt(port, other);
      const list = found.get(segment) ?? [];
      list.push({ id: other.id, name: other.name, at: port.number });
      found.set(segment, list);
    }
  const vid = (id: string | null) => (id === null ? 0 : plan.vlan.get(id)!.vid);
  return [...found]
    .map(([segment, devices]) => ({ segment, devices: devices.sort((a, b) => byName(a.name, b.name)) }))
    .sort((a, b) => vid(a.segment) - vid(b.segment));
}

/** Where each uplink that faces a provider leaves the site: at the provider's box where one is recorded, else at the gateway. */
function waysOut(plan: Plan): Omit<MapEnd, 'socket'>[] {
  const links = linksOf(plan);
  return uplinksOf(plan).flatMap(({ id, device, port, segment }) => {
    if (segment !== null) return [];
    const beyond = (port === null ? [] : (links.get(port) ?? [])).map(({ to }) =>
      plan.device.get(plan.port.get(to)!.device)!,
    );
    const provider = beyond.find(({ kind }) => kind === 'provider-box');
    return [{ box: provider?.id ?? device, port: provider ? id : (port ?? id) }];
  });
}

const cableOf = (id: string, from: Omit<MapEnd, 'socket'>, to: Omit<MapEnd, 'socket'>): MapCable => ({
  id,
  from: { ...from, socket: `${id} from` },
  to: { ...to, socket: `${id} to` },
});

/** How many boxes lie between a box and the outside; the way lines are drawn. */
function depths(boxes: readonly Device[], neighbours: (id: string) => Iterable<string>): Map<string, number> {
  const depth = new Map<string, number>();
  for (const { id } of boxes) {
    if (depth.has(id)) continue;
    depth.set(id, 0);
    for (const at of depth.keys())
      for (const next of neighbours(at)) if (!depth.has(next)) depth.set(next, depth.get(at)! + 1);
  }
  return depth;
}

const outermost = (kind: Device['kind']) => (kind === 'provider-box' ? 0 : kind === 'gateway' ? 1 : 2);

export function mapOf(plan: Plan): MapModel {
  const devices = [...plan.box.values()]
    .map((box) => plan.device.get(box.device)!)
    .filter(({ kind }) => !isPassive(kind))
    .sort((a, b) => outermost(a.kind) - outermost(b.kind) || byName(a.name, b.name));
  const shown = new Set(devices.map(({ id }) => id));
  const links = linksOf(plan);
  const beyond = (id: string) =>
    portsOf(plan, id).flatMap((port) =>
      (links.get(port.id) ?? []).filter(({ to }) => shown.has(plan.port.get(to)!.device)),
    );
  const depth = depths(devices, (id) => beyond(id).map(({ to }) => plan.port.get(to)!.device));
  const out = waysOut(plan).filter(({ box }) => shown.has(box));
  const cables = out.map((to) =>
    cableOf(outsidePort(to.port), { box: INTERNET, port: outsidePort(to.port) }, to),
  );
  for (const { id } of devices)
    for (const link of beyond(id)) {
      if (link.from >= link.to) continue;
      const [a, b] = [link.from, link.to].map((port) => ({ box: plan.port.get(port)!.device, port }));
      const inwards = depth.get(a!.box)! <= depth.get(b!.box)!;
      cables.push(cableOf([link.from, ...link.cables].join(' '), inwards ? a! : b!, inwards ? b! : a!));
    }
  const sockets = new Map<string, MapSocket[]>();
  for (const { box, port, socket } of cables.flatMap(({ from, to }) => [from, to])) {
    const list = sockets.get(box) ?? [];
    list.push({ id: socket, port, number: plan.port.get(port)?.number ?? null });
    sockets.set(box, list);
  }
  const socketsOf = (box: string): readonly MapSocket[] =>
    (sockets.get(box) ?? []).sort((a, b) => (a.number ?? -1) - (b.number ?? -1));
  const boxes = devices.map(({ id, name, kind }): MapBox => ({
    id,
    name,
    kind,
    place: boxOf(plan, id)!.location,
    sockets: socketsOf(id),
    ends: endsOf(plan, id),
  }));
  if (out.length === 0) return { boxes, cables };
  const internet: MapBox = {
    id: INTERNET,
    name: 'Internet',
    kind: INTERNET,
    place: '',
    sockets: socketsOf(INTERNET),
    ends: [],
  };
  return { boxes: [internet, ...boxes], cables };
}

/** A box as a reader hears it: what it is, where its cables go, and how many end devices are on it by segment. */
export function boxSentence(plan: Plan, { boxes, cables }: MapModel, box: MapBox): string {
  const name = (id: string) => boxes.find((other) => other.id === id)!.name;
  const at = ({ box: of, port }: MapEnd) => {
    const number = plan.port.get(port)?.number;
    return number === undefined ? name(of) : `${name(of)} ${number}`;
  };
  const numberOf = ({ port }: MapEnd) => plan.port.get(port)?.number ?? 0;
  const leads = cables
    .flatMap(({ from, to }) =>
      from.box === box.id ? [[from, to] as const] : to.box === box.id ? [[to, from] as const] : [],
    )
    .sort(([a], [b]) => numberOf(a) - numberOf(b))
    .map(([here, there]) => `${plan.port.get(here.port) ? `port ${numberOf(here)} ` : ''}to ${at(there)}`);
  const ends = box.ends.map(
    ({ segment, devices }) =>
      `${devices.length} in ${segment === null ? 'no segment' : plan.vlan.get(segment)!.name}`,
  );
  const what = box.kind === INTERNET ? '' : box.kind.replaceAll('-', ' ');
  return [box.name, what, box.place, ...leads, ...ends].filter((part) => part !== '').join(', ');
}
