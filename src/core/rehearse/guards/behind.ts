import { type Plan, type Port, boxOf, deriveBy } from '../../plan';
import { fabric, seatsIn } from '../../model/switching';
import { rootsOf, settingsOf, stpPortOf, treesOf } from '../../model/tree';
import { type WiredPort, carries, linksAt, portsOf } from '../../model/wiring';
import { joinersOf } from '../../model/wireless';

/** What is plugged in behind a port, as far as cables tell: how many MAC addresses show there, and whether a tree leads on. */

/** The devices at the other ends of what is plugged into a device. */
const nextTo = deriveBy((plan, device: string): readonly string[] => [
  ...new Set(
    portsOf(plan, device).flatMap((port) => linksAt(plan, port).map(({ to }) => plan.port.get(to)!.device)),
  ),
]);

const boxesNextTo = deriveBy((plan, device: string): readonly string[] =>
  nextTo(plan, device).filter((id) => boxOf(plan, id)),
);

/** The devices that are reached by a port without passing its own box. */
export function behind(plan: Plan, port: Pick<Port, 'id' | 'device'> | WiredPort): readonly string[] {
  return reached(plan, port, nextTo);
}

/** The same of boxes alone, of which there are few. */
const boxesBehind = (plan: Plan, port: WiredPort): readonly string[] =>
  reached(plan, port, boxesNextTo).filter((id) => boxOf(plan, id));

function reached(
  plan: Plan,
  port: Pick<Port, 'id' | 'device'> | WiredPort,
  next: (plan: Plan, device: string) => readonly string[],
): readonly string[] {
  const found = new Set<string>();
  const pending = linksAt(plan, port).map(({ to }) => plan.port.get(to)!.device);
  for (const device of pending) {
    if (device === port.device || found.has(device)) continue;
    found.add(device);
    for (const { device: joined } of joinersOf(plan).get(device) ?? []) found.add(joined);
    // Only what passes frames on leads further.
    if (boxOf(plan, device)) pending.push(...next(plan, device));
  }
  return [...found];
}

/**
 * The MAC addresses that are to be expected at a port: one for each device behind it. Where a telephone is announced its
 * segment there is a computer to come as well.
 */
export function expectedMacs(plan: Plan, port: Port): number {
  const devices = behind(plan, port);
  const phone = devices.some((id) => plan.device.get(id)!.kind === 'phone');
  return Math.max(devices.length, port.voice !== null && phone ? 2 : 0);
}

/** Does a port lead only to devices that pass nothing on? Not where nothing is plugged in. */
export function isEdge(plan: Plan, port: Port): boolean {
  const links = linksAt(plan, port);
  return links.length > 0 && links.every(({ to }) => !seatsIn(plan).has(to));
}

/** Is a segment brought to a box: by a cable to another box, or since the box itself is in it? */
export const bringsVlan = (plan: Plan, device: string, vlan: string): boolean =>
  [...plan.port.group(device).values()].some(
    (port) =>
      carries(port, vlan) && (port.number === 0 || (linksAt(plan, port).length > 0 && !isEdge(plan, port))),
  );

export interface TreeGuard {
  readonly port: string;
  readonly edge: boolean;
  readonly guard: 'bpdu' | 'root';
  readonly why: string;
}

/** The devices of the roots there are now. */
const rootDevices = (plan: Plan): ReadonlySet<string> =>
  new Set(
    treesOf(plan)
      .grown.filter(({ kind }) => kind === 'common')
      .flatMap(({ tree, topology, places }) =>
        rootsOf(tree, topology).map((bridge) => fabric(plan).bridges[places[bridge]!]!.device),
      ),
  );

/**
 * Guards of the tree that the cabling asks for and that are not set: a BPDU guard where only devices are plugged in, a root guard where what
 * lies behind has no other way to the root, so that no way in reserve is shut.
 */
export function treeGuardsFor(plan: Plan, device: string): TreeGuard[] {
  const box = boxOf(plan, device);
  if (!box || settingsOf(plan, box).mode === 'none') return [];
  const roots = rootDevices(plan);
  const wanted = portsOf(plan, device).flatMap((port): TreeGuard[] => {
    if (port.number === 0 || port.role === 'parked' || port.role === 'uplink') return [];
    if (isEdge(plan, port))
      return [{ port: port.id, edge: true, guard: 'bpdu', why: 'only a device is plugged in' }];
    const boxes = boxesBehind(plan, port);
    if (boxes.length === 0 || roots.size === 0 || boxes.some((id) => roots.has(id))) return [];
    return isOnlyWay(plan, port, boxes)
      ? [{ port: port.id, edge: false, guard: 'root', why: 'the root is never behind it' }]
      : [];
  });
  return wanted.filter(({ port, edge, guard }) => {
    const set = stpPortOf(plan, port, 0);
    return set.edge !== edge || set.guard !== guard;
  });
}

/** Is a port the only one of its box by which those behind it are reached? */
function isOnlyWay(plan: Plan, port: WiredPort, boxes: readonly string[]): boolean {
  return portsOf(plan, port.device).every(
    (other) =>
      other.id === port.id ||
      other.number === 0 ||
      (port.lag !== null && other.lag === port.lag) ||
      linksAt(plan, other).every(({ to }) => !boxes.includes(plan.port.get(to)!.device)),
  );
}
