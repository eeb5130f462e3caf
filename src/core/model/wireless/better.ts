import { type Band, type ForeignSsid, type Plan, type Radio, type Width, deriveBy } from '../../plan';
import { type Span, megahertz, shared, widthsOf } from './channels';
import {
  type Placed,
  besideOf,
  foreignAt,
  foreignIn,
  onChannels,
  overlapOf,
  placedIn,
  samePlace,
  spanOfForeign,
  weightOf,
} from './clashes';
import { type Rows, changesWith, differing, rowsIn } from './near';
import { type Option, optionsIn, optionsOf } from './options';

/** A better channel for one radio, with the others where they are. */

/** The channel on which a radio would be disturbed least, with the others where they are, and what that would be. */
export interface Better {
  readonly channel: number;
  readonly now: number;
  readonly then: number;
}

/** What others weigh on a stretch of a band, as one radio hears them. */
interface Stretch {
  readonly span: Span;
  readonly weight: number;
  readonly beside: number;
}
/** By where they begin and end. */
type Heard = ReadonlyMap<string, Stretch>;
/** With somebody more on a stretch, or fewer. */
function weigh(heard: Map<string, Stretch>, span: Span, dbm: number, times: 1 | -1): void {
  const key = `${span.from} ${span.to}`;
  const known = heard.get(key);
  const weight = (known?.weight ?? 0) + times * weightOf(dbm);
  const beside = (known?.beside ?? 0) + times * besideOf(dbm);
  if (weight === 0 && beside === 0) heard.delete(key);
  else heard.set(key, { span, weight, beside });
}
/** What standing there costs. */
function costOn(heard: Heard, on: Span): number {
  let sum = 0;
  for (const { span, weight, beside } of heard.values()) {
    const units = overlapOf(on, span);
    sum += units < 0 ? beside : units * weight;
  }
  return sum;
}

interface Hearing {
  readonly placed: ReadonlyMap<string, Placed>;
  readonly rows: Rows;
  readonly foreign: readonly ForeignSsid[];
  readonly by: ReadonlyMap<string, Heard>;
}
/** What each device hears in a band, stretch by stretch. */
const hearingIn = deriveBy((plan, band: Band, last: Hearing | undefined): Hearing => {
  const [placed, rows, foreign] = [placedIn(plan, band), rowsIn(plan, band), foreignIn(plan, band)];
  const kept = last?.foreign === foreign ? last : null;
  const moved = kept ? differing(kept.placed, placed, samePlace) : [];
  const whole = (device: string): Heard => {
    const heard = new Map<string, Stretch>();
    for (const { device: other, dbm } of rows.get(device)!) {
      const theirs = placed.get(other);
      if (theirs) weigh(heard, theirs.span, dbm, 1);
    }
    for (const one of foreignAt(plan, device, band)) {
      const theirs = spanOfForeign(one);
      if (theirs) weigh(heard, theirs, one.dbm, 1);
    }
    return heard;
  };
  const by = new Map<string, Heard>();
  for (const device of placed.keys()) {
    const known = kept?.by.get(device);
    if (!known) {
      by.set(device, whole(device));
      continue;
    }
    const changes = changesWith(kept!.rows.get(device)!, rows.get(device)!, moved);
    if (changes.length === 0) {
      by.set(device, known);
      continue;
    }
    const heard = new Map(known);
    for (const { device: other, was, is } of changes) {
      const [before, now] = [kept!.placed.get(other), placed.get(other)];
      if (was && before) weigh(heard, before.span, was.dbm, -1);
      if (is && now) weigh(heard, now.span, is.dbm, 1);
    }
    by.set(device, heard);
  }
  return { placed, rows, foreign, by };
}, Object.is);

const betterIn = deriveBy((plan, band: Band): ReadonlyMap<string, Better> => {
  const { placed, by } = hearingIn(plan, band);
  const optionsFor = optionsIn(plan);
  const found = new Map<string, Better>();
  for (const [device, own] of placed) {
    const radio = plan.radio.get(own.radio)!;
    if (radio.kept) continue;
    const heard = by.get(device)!;
    const now = costOn(heard, own.span);
    if (now === 0) continue;
    let best: Better = { channel: own.channel, now, then: now };
    for (const option of optionsFor(radio, radio.width)) {
      const then = costOn(heard, option.span);
      if (then < best.then) best = { channel: option.channel, now, then };
    }
    if (best.then < now) found.set(own.radio, best);
  }
  return found;
}, Object.is);
const betterBy = deriveBy((plan, id: string): Better | null => {
  const radio = plan.radio.get(id);
  return (radio && betterIn(plan, radio.band).get(id)) ?? null;
});

/** The better channel of a radio by itself; null where there is none. */
export const betterChannel = (plan: Plan, { id }: Radio): Better | null => betterBy(plan, id);

/** A channel that is allowed for a radio and disturbs it least, at its width or the widest below; undefined for none. */
export function allowedChannel(
  plan: Plan,
  radio: Radio,
): { readonly channel: number; readonly width: Width } | undefined {
  const widths = widthsOf[radio.band].filter((width) => megahertz(width) <= megahertz(radio.width)).reverse();
  for (const width of widths) {
    const options = optionsOf(plan, radio, width);
    const others = foreignAt(plan, radio.device, radio.band).flatMap((one) => spanOfForeign(one) ?? []);
    const near = onChannels(plan, radio.band)
      .filter((one) => one.radio.device !== radio.device)
      .map(({ span }) => span);
    const taken = [...others, ...near];
    const crowd = ({ span }: Option) => taken.filter((one) => shared(one, span) > 0).length;
    const [first] = [...options].sort((a, b) => crowd(a) - crowd(b) || a.channel - b.channel);
    if (first) return { channel: first.channel, width };
  }
  return undefined;
}
