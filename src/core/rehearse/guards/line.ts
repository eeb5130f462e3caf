import { type Plan, type Port, deriveBy, vlansOf } from '../../plan';
import { type PortGuards, portGuardsOf } from '../../model/guards';
import { expectedMacs } from './behind';
import { type Sight, sightsIn } from './sights';

/** A guard as the line of what it would stop: the ports of a box, what each is trusted with, who is seen there, and who is cut off. */

export interface Seen {
  readonly sight: Sight;
  /** Why it goes no further there; null where it passes. */
  readonly why: string | null;
}

export interface GuardedPort {
  readonly port: Port;
  readonly held: PortGuards;
  /** What comes in there, of the segments that the box guards. */
  readonly seen: readonly Seen[];
  readonly expected: number;
}

/** What comes in at the ports of a box, and what its guards make of it. */
export const guardLine = deriveBy((plan, device: string): readonly GuardedPort[] => {
  const guarded = new Set([...plan.vlanGuard.group(device).values()].map(({ vlan }) => vlan));
  const seen = new Map<string, Seen[]>();
  for (const { id } of vlansOf(plan)) {
    if (!guarded.has(id)) continue;
    for (const sight of sightsIn(plan, id))
      for (const { device: box, port } of sight.way) {
        if (box !== device || port === null) continue;
        const stop = sight.stops.find((one) => one.port === port);
        seen.set(port, [...(seen.get(port) ?? []), { sight, why: stop?.why ?? null }]);
      }
  }
  return [...plan.port.group(device).values()]
    .filter(({ number }) => number > 0)
    .sort((a, b) => a.number - b.number)
    .map((port) => ({
      port,
      held: portGuardsOf(plan, port.id),
      seen: seen.get(port.id) ?? [],
      expected: expectedMacs(plan, port),
    }));
});

/** The devices that guards of a box keep from the network: who speaks and is not heard, and who waits for what is dropped. */
export interface CutOff {
  readonly device: string;
  /** What of it, or of whom it waits for, is dropped. */
  readonly says: string;
  readonly why: string;
}
export function cutOffBy(plan: Plan, devices: readonly string[]): CutOff[] {
  const found = new Map<string, CutOff>();
  for (const { id } of vlansOf(plan))
    for (const { device, says, to, stops } of sightsIn(plan, id)) {
      const [stop] = stops.filter((one) => devices.includes(one.device));
      if (!stop) continue;
      // Who says it is named where only it goes without, else all who wait for it.
      const said = to.length > 0 ? `${says} of ${plan.device.get(device)!.name}` : says;
      for (const who of to.length > 0 ? to : [device])
        if (!found.has(`${who} ${said}`))
          found.set(`${who} ${said}`, { device: who, says: said, why: stop.why });
    }
  return [...found.values()];
}
