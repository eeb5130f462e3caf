import type { Plan } from '../plan';
import { flood, stateKey } from '../model/wiring';
import { bridgeAt, fabric } from '../model/switching';

/** The boxes a frame of a VLAN passes from the inside of one box to another, by name; null when it does not get there. */
export function probeFrames(plan: Plan, from: string, vid: number, to: string): string[] | null {
  const { bridges } = fabric(plan);
  const { came } = flood(fabric(plan), { state: { bridge: bridgeAt(plan, from), vid } });
  const names: string[] = [];
  let at = came.get(stateKey({ bridge: bridgeAt(plan, to), vid }));
  if (!at) return null;
  names.unshift(to);
  while (at?.from) {
    names.unshift(plan.device.get(bridges[at.from.bridge]!.device)!.name);
    at = came.get(stateKey(at.from));
  }
  return names;
}
