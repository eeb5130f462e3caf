import type { Plan } from '../../plan';
import type { Fabric } from '../wiring';
import { settingsOf } from './settings';

/** Rings that a manager opens (IEC 62439): not spanning trees, but they too decide which port passes nothing. */

export interface Ring {
  /** The box that opens it, by place in the fabric. */
  readonly manager: number;
  readonly boxes: readonly number[];
  readonly ports: readonly string[];
  /** The manager's port that passes nothing while the ring is whole; null while it is not. */
  readonly blocked: string | null;
  /** Where the manager's test frames end, going out by its first port; null when they come back. */
  readonly broken: { readonly bridge: number; readonly why: string } | null;
  /** Other managers met on the way: each opens the ring, so it falls in two. */
  readonly others: readonly number[];
  /** Milliseconds; the slowest box counts. Null where nobody knows. */
  readonly recovery: number | null;
}

/** The ring of each manager, followed from its first ring port from box to box. */
export function ringsIn(plan: Plan, fabric: Fabric): Ring[] {
  const { bridges, seats, links } = fabric;
  const settings = bridges.map(({ box }) => settingsOf(plan, box));
  const isOpen = (id: string): boolean => {
    const seat = seats.get(id);
    return seat !== undefined && bridges[seat.bridge]!.facts[seat.port] !== null;
  };
  return settings.flatMap(({ mode, ringManager, ringPorts }, manager): Ring[] => {
    if (mode !== 'ring' || !ringManager || ringPorts.length < 2) return [];
    const boxes = [manager];
    const ports: string[] = [ringPorts[0]!];
    let broken: Ring['broken'] = null;
    let at = manager;
    let out = ringPorts[0]!;
    for (;;) {
      if (!isOpen(out)) {
        broken = { bridge: at, why: 'its ring port is off' };
        break;
      }
      const link = (links.get(out) ?? []).find(({ to }) => seats.has(to));
      if (!link) {
        broken = { bridge: at, why: 'its ring port leads to no box' };
        break;
      }
      const next = seats.get(link.to)!.bridge;
      const far = settings[next]!;
      if (far.mode !== 'ring' || !far.ringPorts.includes(link.to)) {
        broken = { bridge: next, why: 'the ring comes in by a port that is no ring port' };
        break;
      }
      if (!isOpen(link.to)) {
        broken = { bridge: next, why: 'its ring port is off' };
        break;
      }
      ports.push(link.to);
      if (next === manager) break;
      if (boxes.includes(next)) {
        broken = { bridge: next, why: 'the ring closes without its manager' };
        break;
      }
      boxes.push(next);
      const onward = far.ringPorts.find((id) => id !== link.to);
      if (onward === undefined) {
        broken = { bridge: next, why: 'it has one ring port only' };
        break;
      }
      ports.push(onward);
      at = next;
      out = onward;
    }
    const recoveries = boxes.map((box) => settings[box]!.recovery);
    return [
      {
        manager,
        boxes,
        ports,
        blocked: broken ? null : ringPorts[1]!,
        broken,
        others: boxes.filter((box) => box !== manager && settings[box]!.ringManager),
        recovery: recoveries.some((value) => value === null) ? null : Math.max(...(recoveries as number[])),
      },
    ];
  });
}
