import type { Entry, Order } from './entry';
import { orderOf } from './order';
import { reachedFrom } from './reach';
import { socketsOf } from './sockets';
import { standingAfter } from './standing';
import type { SiteState } from './state';
import { type Step, after, comesEarlier, wantsSaving } from './steps';

/** An order that somebody made themselves, or changed. */

/** A place in an order where somebody is cut off, or undoes what they did. */
export interface CutOff {
  /** Of the entry, from 0. */
  readonly at: number;
  /** Its own box is out of reach when its turn comes. */
  readonly own: boolean;
  /** The boxes with steps left that no socket reaches afterwards. */
  readonly devices: readonly string[];
  /** A later step sets the same port as it has to be before this one. */
  readonly late: boolean;
  /** A parachute that nothing closes afterwards. */
  readonly open: boolean;
  /** Nothing saves it afterwards. */
  readonly unsaved: boolean;
}

/** What somebody did to an order: some entries put elsewhere, or the rest worked out anew after the first so many. */
export type OrderEdit =
  | { readonly kind: 'move'; readonly at: number; readonly count: number; readonly to: number }
  | { readonly kind: 'mend'; readonly keep: number };

/** The boxes that somebody reaches from any socket. */
function reachedFromAnywhere(state: SiteState, wanted: ReadonlySet<string>): ReadonlySet<string> {
  const found = new Set<string>();
  for (const socket of socketsOf(state)) {
    for (const id of reachedFrom(state, socket).keys()) if (wanted.has(id)) found.add(id);
    if (found.size === wanted.size) break;
  }
  return found;
}

function staysOpen({ setting }: Step, rest: readonly Step[], next: readonly Entry[]): boolean {
  if (setting.kind !== 'parachute') return false;
  const { port } = setting;
  return (
    !rest.some((other) => other.setting.kind === 'port' && other.setting.port === port) &&
    !next.some((entry) => entry.kind === 'recorded' && entry.port === port)
  );
}

/** Follows an order step by step: what is reached after each, and where it cuts off. */
export function followed(
  now: SiteState,
  entries: readonly Entry[],
): { readonly entries: readonly Entry[]; readonly cuts: readonly CutOff[] } {
  const cuts: CutOff[] = [];
  /** What is still to come, by box. */
  const left = new Map<string, Step[]>();
  for (const entry of entries)
    if (entry.kind === 'step')
      left.set(entry.step.device, [...(left.get(entry.step.device) ?? []), entry.step]);
  let state = now;
  let seat: string | null = null;
  // What nobody reaches from the beginning, like a box that is begun at its console, is not lost by a step.
  const atFirst = reachedFromAnywhere(now, new Set(left.keys()));
  let missing: ReadonlySet<string> = new Set([...left.keys()].filter((id) => !atFirst.has(id)));
  const seen = entries.map((entry, at): Entry => {
    if (entry.kind === 'sit') seat = entry.socket;
    if (entry.kind === 'console') for (const step of entry.steps) state = after(state, step);
    if (entry.kind !== 'step') return entry;
    const { step } = entry;
    const { device } = step;
    const own = step.setting.kind !== 'plug' && (seat === null || !reachedFrom(state, seat).has(device));
    state = after(state, step);
    const rest = left.get(device)!.slice(1);
    if (rest.length > 0) left.set(device, rest);
    else left.delete(device);
    const here = new Set(
      [...(seat === null ? [] : reachedFrom(state, seat).keys())].filter((id) => left.has(id)),
    );
    const away = new Set([...left.keys()].filter((id) => !here.has(id)));
    const found = away.size === 0 ? away : reachedFromAnywhere(state, away);
    const lost = new Set([...away].filter((id) => !found.has(id)));
    const devices = [...lost].filter((id) => !missing.has(id));
    missing = lost;
    const late = rest.some((other) => comesEarlier(other.setting, step.setting));
    const open = staysOpen(step, rest, entries.slice(at + 1));
    const unsaved = wantsSaving(step) && !rest.some((other) => other.setting.kind === 'save');
    if (own || late || open || unsaved || devices.length > 0)
      cuts.push({ at, own, devices, late, open, unsaved });
    return { ...entry, socket: seat ?? entry.socket, reached: here.size, of: left.size };
  });
  return { entries: seen, cuts };
}

/** Where an order cuts somebody off from what; empty for one that does not. */
export const cutOffsIn = (now: SiteState, entries: readonly Entry[]): readonly CutOff[] =>
  followed(now, entries).cuts;

/** The first entries of an order as they are, and the rest worked out anew. */
function mended(now: SiteState, then: SiteState, first: readonly Entry[]): Order {
  const { state, standing } = standingAfter(now, first);
  const { entries, end } = orderOf(state, then, standing);
  return { entries: [...first, ...entries], end };
}

/** An order after what somebody did to it. Entries that are no longer there are left alone. */
export function edited(
  now: SiteState,
  then: SiteState,
  entries: readonly Entry[],
  edits: readonly OrderEdit[],
): readonly Entry[] {
  let made = entries;
  for (const edit of edits)
    made =
      edit.kind === 'mend'
        ? mended(now, then, made.slice(0, edit.keep)).entries
        : made
            .toSpliced(edit.at, edit.count)
            .toSpliced(edit.to, 0, ...made.slice(edit.at, edit.at + edit.count));
  return made;
}
