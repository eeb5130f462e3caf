import { type Plan, type Radio, type Width, siteOf } from '../../plan';
import { countryOf, namesOn, spotOf } from './air';
import { type Span, plannedOf, spanOf } from './channels';
import { allowedOn } from './regulatory';

/** The channels that are open to a radio. */

/** May a radio be put on a channel? Allowed there, where it hangs, and for those who use it. */
function mayUse(plan: Plan, { band, device }: Radio, waits: boolean, channel: number, width: Width): boolean {
  const allowed = allowedOn(countryOf(plan), band, channel, width);
  if (!allowed || allowed.silent) return false;
  if (allowed.indoors && spotOf(plan, device)?.outdoors) return false;
  return allowed.wait === 0 || !waits;
}

export interface Option {
  readonly channel: number;
  readonly span: Span;
}

/** The channels a radio may be put on at a width, each stretch of frequencies once: by the primary channel it has, if it can stay. */
export function optionsOf(plan: Plan, radio: Radio, width: Width): Option[] {
  const found = new Map<number, Option>();
  const waits =
    siteOf(plan).radarChannels === 'avoided' || namesOn(plan, radio).some(({ cannotWait }) => cannotWait);
  for (const channel of plannedOf[radio.band]) {
    const span = spanOf(radio.band, channel, width);
    if (!span || !mayUse(plan, radio, waits, channel, width)) continue;
    if (!found.has(span.from) || channel === radio.channel) found.set(span.from, { channel, span });
  }
  return [...found.values()];
}

/** How many of a list of spans lie apart at most. */
export function apartIn(spans: readonly Span[]): number {
  let [count, end] = [0, -Infinity];
  for (const { from, to } of [...spans].sort((a, b) => a.to - b.to))
    if (from >= end) [count, end] = [count + 1, to];
  return count;
}
