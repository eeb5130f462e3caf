import type { PortFacts } from '../model/wiring';
import { type SiteState, isVacant } from './state';

/** A socket somebody may sit down at: nothing is plugged in, and untagged frames go somewhere. */
export interface Socket {
  readonly port: string;
  readonly bridge: number;
  readonly vid: number;
}

/** Do untagged frames go anywhere at a port on the case? */
export const takesUntagged = (
  { number }: { readonly number: number },
  facts: PortFacts | null | undefined,
): boolean => number > 0 && !!facts && facts.accepts !== 'tagged' && facts.pvid !== null;

/** May somebody sit down at a port? */
export function isSocket(state: SiteState, port: string): boolean {
  const at = state.seats.get(port)!;
  const { ports, facts } = state.boxes[at.bridge]!.bridge;
  return takesUntagged(ports[at.port]!, facts[at.port]) && isVacant(state, port);
}

const sockets = new WeakMap<SiteState, readonly Socket[]>();
/** The sockets to sit at: one for each box and VLAN, those of some devices first. */
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
      const key = `${own!.pvid} ${own!.untagged}`;
      if (seen.has(key) || !isVacant(state, port.id)) return;
      seen.add(key);
      found.push({ port: port.id, bridge: at, vid: own!.pvid! });
    });
  });
  return found;
}

/** One socket for each box and VLAN where somebody may sit. */
export const socketsOf = (state: SiteState): string[] => socketsIn(state, []).map(({ port }) => port);
