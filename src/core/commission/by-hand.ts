import { type Entry, type Order, type Standing, orderOf, socketsOf } from './order';
import { reachedFrom } from './reach';
import type { SiteState } from './state';
import { after } from './steps';

/** An order that somebody made themselves, or changed. */

/** A place in an order where somebody is cut off. */
export interface CutOff {
  /** Of the entry, from 0. */
  readonly at: number;
  /** Its own box is out of reach when its turn comes. */
  readonly own: boolean;
  /** The boxes with steps left that no socket reaches afterwards. */
  readonly devices: readonly string[];
}

/** The state after the first entries of an order, and where one sits then. */
function stateAfter(now: SiteState, entries: readonly Entry[]): { state: SiteState } & Standing {
  let state = now;
  let seat: string | null = null;
  const parachutes = new Set<string>();
  for (const entry of entries) {
    if (entry.kind === 'sit') seat = entry.socket;
    if (entry.kind === 'console') for (const step of entry.steps) state = after(state, step);
    if (entry.kind !== 'step') continue;
    state = after(state, entry.step);
    const { setting } = entry.step;
    if (setting.kind === 'parachute') parachutes.add(setting.port);
    if (setting.kind === 'port') parachutes.delete(setting.port);
  }
  return { state, seat, parachutes };
}

/** Where an order cuts somebody off from what; empty for one that does not. */
export function cutOffsIn(now: SiteState, entries: readonly Entry[]): readonly CutOff[] {
  const found: CutOff[] = [];
  const left = new Map<string, number>();
  const count = (device: string, by: number) => left.set(device, (left.get(device) ?? 0) + by);
  for (const entry of entries) if (entry.kind === 'step') count(entry.step.device, 1);
  let state = now;
  let seat: string | null = null;
  let missing = new Set<string>();
  entries.forEach((entry, at) => {
    if (entry.kind === 'sit') seat = entry.socket;
    if (entry.kind === 'console') for (const step of entry.steps) state = after(state, step);
    if (entry.kind !== 'step') return;
    const { device } = entry.step;
    const own =
      entry.step.setting.kind !== 'plug' && (seat === null || !reachedFrom(state, seat).has(device));
    state = after(state, entry.step);
    count(device, -1);
    const open = [...left].flatMap(([id, steps]) => (steps > 0 ? [id] : []));
    const reached = new Set(seat === null ? [] : reachedFrom(state, seat).keys());
    if (open.some((id) => !reached.has(id)))
      for (const socket of socketsOf(state))
        for (const id of reachedFrom(state, socket).keys()) reached.add(id);
    const lost = new Set(open.filter((id) => !reached.has(id)));
    const devices = [...lost].filter((id) => !missing.has(id));
    missing = lost;
    if (own || devices.length > 0) found.push({ at, own, devices });
  });
  return found;
}

/** The first entries of an order as they are, and the rest worked out anew. */
export function mended(now: SiteState, then: SiteState, first: readonly Entry[]): Order {
  const { state, ...standing } = stateAfter(now, first);
  const { entries, end } = orderOf(state, then, standing);
  return { entries: [...first, ...entries], end };
}
