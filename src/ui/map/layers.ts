import { fabric } from '@/core/model/switching';
import { type Grown, Reasons, forwards, treesOf } from '@/core/model/tree';
import type { Plan } from '@/core/plan';
import { type Answer, type Fault, type Impact, endsOfCable } from '@/core/rehearse';
import type { MapLook } from './look';
import { outsidePort } from '@/core/model/map';

/** A tree among those of a plan, as it stands in a choice. */
export const treeKey = ({ kind, number, places }: Grown): string => `${kind} ${number} ${places[0]}`;

/** The tree that is chosen among those of a plan, the first until one is; with the reasons of its roles. */
export function treeChosen(plan: Plan, grown: readonly Grown[], key: string) {
  const tree = grown.find((item) => treeKey(item) === key) ?? grown[0];
  return { tree, reasons: tree ? new Reasons(plan, fabric(plan), tree) : null };
}

/** Where a tree and every ring block, and who is root. */
export function treeLook(
  plan: Plan,
  tree: Grown | undefined,
  reasons: Reasons | null,
): Pick<MapLook, 'blocked' | 'words'> {
  const { rings, shut } = treesOf(plan);
  const words = new Map<string, string>();
  const blocked = new Set<string>(shut);
  for (const ring of rings) if (ring.blocked !== null) blocked.add(ring.blocked);
  if (tree && reasons) {
    for (const bridge of reasons.roots())
      words.set(fabric(plan).bridges[tree.places[bridge]!]!.device, 'ROOT');
    tree.ports.forEach(({ ports }, end) => {
      if (!forwards(tree.tree.roles[end]!)) for (const id of ports) blocked.add(id);
    });
  }
  return { blocked, words };
}

/** The way of an answer, there and back, and where it was stopped. */
export function answerLook({ forth, back, stop }: Answer): Pick<MapLook, 'along' | 'words'> {
  const along = [...forth, ...back].flatMap(({ on }) => (on?.table === 'port' ? [on.id] : []));
  const at = stop?.on?.table === 'device' ? stop.on.id : null;
  return { along: new Set(along), words: new Map(at === null ? [] : [[at, 'stopped here']]) };
}

/** What is out of order, and who is cut off by it once that is worked out. */
export function faultLook(
  plan: Plan,
  faults: readonly Fault[],
  impact: Impact | null,
): Pick<MapLook, 'pulled' | 'struck' | 'words'> {
  const pulled = new Set<string>();
  const words = new Map<string, string>();
  for (const fault of faults) {
    if (fault.kind === 'cable' || fault.kind === 'plug')
      for (const port of endsOfCable(plan, fault.cable)) pulled.add(port);
    if (fault.kind === 'box') words.set(fault.device, 'off');
    if (fault.kind === 'taken') words.set(fault.device, 'taken over');
    if (fault.kind === 'uplink') {
      const { id, port } = plan.uplink.get(fault.uplink)!;
      for (const way of [id, port]) if (way !== null) pulled.add(outsidePort(way));
    }
  }
  const struck = new Set((impact?.cutOff ?? []).map(({ id }) => id));
  for (const id of struck) if (!words.has(id)) words.set(id, 'cut off');
  return { pulled, struck, words };
}
