import { type Band, type Plan, type Radio, type Width, deriveBy } from '../../plan';
import { type Span, megahertz, shared, widthsOf } from './channels';
import { besideOf, foreignAt, onChannels, overlapOf, placedIn, spanOfForeign, weightOf } from './clashes';
import { nearTo } from './levels';
import { type Option, optionsOf } from './options';

/** A better channel for one radio, with the others where they are. */

/** The channel on which a radio would be disturbed least, with the others where they are, and what that would be. */
export interface Better {
  readonly channel: number;
  readonly now: number;
  readonly then: number;
}

/** What the others of a band weigh on each stretch of it, as one radio hears them. */
class Heard {
  private readonly by = new Map<string, { readonly span: Span; weight: number; beside: number }>();

  add(span: Span, dbm: number): void {
    const key = `${span.from} ${span.to}`;
    const known = this.by.get(key);
    if (known) {
      known.weight += weightOf(dbm);
      known.beside += besideOf(dbm);
    } else this.by.set(key, { span, weight: weightOf(dbm), beside: besideOf(dbm) });
  }
  /** What standing there costs. */
  cost(on: Span): number {
    let sum = 0;
    for (const { span, weight, beside } of this.by.values()) {
      const units = overlapOf(on, span);
      sum += units < 0 ? beside : units * weight;
    }
    return sum;
  }
}

const betterIn = deriveBy((plan, band: Band): ReadonlyMap<string, Better> => {
  const placed = placedIn(plan, band);
  const found = new Map<string, Better>();
  for (const [device, own] of placed) {
    const radio = plan.radio.get(own.radio)!;
    if (radio.kept) continue;
    const heard = new Heard();
    for (const { device: other, dbm } of nearTo(plan, device, band)) {
      const theirs = placed.get(other);
      if (theirs) heard.add(theirs.span, dbm);
    }
    for (const one of foreignAt(plan, device, band)) {
      const theirs = spanOfForeign(one);
      if (theirs) heard.add(theirs, one.dbm);
    }
    const now = heard.cost(own.span);
    if (now === 0) continue;
    let best: Better = { channel: own.channel, now, then: now };
    for (const option of optionsOf(plan, radio, radio.width)) {
      const then = heard.cost(option.span);
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
