import type { PortFacts } from '../model/wiring';
import { isOnAir } from './air-seats';
import { type SiteState, isVacant, maySit } from './state';

/** How one gets on: at a free socket, at one that a device lends, over a wireless network. */
export type Seating = 'free' | 'lent' | 'air';

/** A place somebody may sit down at, where untagged frames go somewhere. */
export interface Socket {
  readonly port: string;
  readonly bridge: number;
  readonly vid: number;
  readonly seating: Seating;
}

/** Do untagged frames go anywhere at a port on the case, or over a wireless network? */
export const takesUntagged = (
  { number }: { readonly number: number },
  facts: PortFacts | null | undefined,
): boolean => number !== 0 && !!facts && facts.accepts !== 'tagged' && facts.pvid !== null;

/** May somebody sit down at a port? */
export function isSocket(state: SiteState, port: string): boolean {
  const at = state.seats.get(port)!;
  const { ports, facts } = state.boxes[at.bridge]!.bridge;
  return takesUntagged(ports[at.port]!, facts[at.port]) && maySit(state, port);
}

const sockets = new WeakMap<SiteState, readonly Socket[]>();
/** Where to sit: one place for each box, VLAN and way to get on; those of some devices first. */
export function socketsIn(state: SiteState, first: readonly string[]): readonly Socket[] {
  let all = sockets.get(state);
  if (!all) sockets.set(state, (all = allSockets(state)));
  if (first.length === 0) return all;
  const own = new Set(first);
  const isFirst = ({ bridge }: Socket) => own.has(state.boxes[bridge]!.bridge.device);
  return [...all.filter(isFirst), ...all.filter((socket) => !isFirst(socket))];
}

function allSockets(state: SiteState): readonly Socket[] {
  const found: Socket[] = [];
  state.boxes.forEach(({ bridge: { box, ports, facts } }, at) => {
    if (!box.vlanAware) return;
    const seen = new Set<string>();
    ports.forEach((port, i) => {
      const own = facts[i];
      if (!takesUntagged(port, own)) return;
      if (!maySit(state, port.id)) return;
      const seating = isOnAir(port) ? 'air' : isVacant(state, port.id) ? 'free' : 'lent';
      const key = `${own!.pvid} ${own!.untagged} ${seating}`;
      if (seen.has(key)) return;
      seen.add(key);
      found.push({ port: port.id, bridge: at, vid: own!.pvid!, seating });
    });
  });
  return found;
}

/** One place for each box, VLAN and way to get on where somebody may sit. */
export const socketsOf = (state: SiteState): string[] => socketsIn(state, []).map(({ port }) => port);
