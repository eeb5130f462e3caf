import { type Plan, type Radio, type Width, siteOf } from '../../plan';
import { countryOf, signalsOn, spotOf } from './air';
import { type Span, plannedOf, spanOf } from './channels';
import { allowedOn } from './regulatory';

/** The channels that are open to a radio. */

export interface Option {
  readonly channel: number;
  readonly span: Span;
}

/** What decides which channels are open. */
interface Circumstances {
  readonly country: string;
  readonly band: Radio['band'];
  readonly width: Width;
  readonly outdoors: boolean;
  /** Those who use it cannot wait for a channel that is listened to first. */
  readonly hurried: boolean;
}
/** The channels that are allowed, where a radio hangs and for those who use it. */
const openOn = ({ country, band, width, outdoors, hurried }: Circumstances): readonly Option[] =>
  plannedOf[band].flatMap((channel) => {
    const span = spanOf(band, channel, width);
    const allowed = span && allowedOn(country, band, channel, width);
    if (!span || !allowed || allowed.silent || (allowed.indoors && outdoors)) return [];
    return allowed.wait === 0 || !hurried ? [{ channel, span }] : [];
  });

/** The channels that radios may be put on at a width, each stretch of frequencies once: by the primary channel it has, if it can stay. */
export function optionsIn(plan: Plan): (radio: Radio, width: Width) => readonly Option[] {
  const country = countryOf(plan);
  const avoided = siteOf(plan).radarChannels === 'avoided';
  const known = new Map<string, readonly Option[]>();
  return (radio, width) => {
    const { band, device, channel } = radio;
    const outdoors = spotOf(plan, device)?.outdoors ?? false;
    const hurried = avoided || signalsOn(plan, radio).some(({ cannotWait }) => cannotWait);
    const key = `${band} ${width} ${outdoors} ${hurried}`;
    let open = known.get(key);
    if (!open) known.set(key, (open = openOn({ country, band, width, outdoors, hurried })));
    const found = new Map<number, Option>();
    for (const option of open)
      if (!found.has(option.span.from) || option.channel === channel) found.set(option.span.from, option);
    return [...found.values()];
  };
}
/** The same for one radio. */
export const optionsOf = (plan: Plan, radio: Radio, width: Width): readonly Option[] =>
  optionsIn(plan)(radio, width);

/** How many of a list of spans lie apart at most. */
export function apartIn(spans: readonly Span[]): number {
  let [count, end] = [0, -Infinity];
  for (const { from, to } of [...spans].sort((a, b) => a.to - b.to))
    if (from >= end) [count, end] = [count + 1, to];
  return count;
}
