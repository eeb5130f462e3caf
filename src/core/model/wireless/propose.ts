import { type Band, type Plan, type Radio, type Width, bands, groupBy, withRecord } from '../../plan';
import { countryOf } from './air';
import { type Span, megahertz, widthsOf } from './channels';
import {
  besideOf,
  costBetween,
  foreignAt,
  onChannels,
  overlapOf,
  radiosIn,
  spanOfForeign,
  spanOfRadio,
  weightOf,
} from './clashes';
import { type Edge, type Effort, type Problem, colour, costOf } from './colouring';
import { KEEPS_SILENT, powerOfRadio } from './levels';
import { nearTo } from './near';
import { type ChannelLoad, loadsOf } from './loads';
import { type Option, apartIn, optionsOf } from './options';
import { allowedOn } from './regulatory';

/** Channels for every radio: least disturbance first, then the fewest changes to what is set. */

export interface Wishes {
  /** Widths and powers too, or channels only. */
  readonly widths: boolean;
  readonly powers: boolean;
  /** Those of a band only; null for all. */
  readonly band: Band | null;
}

/** What a radio is to be set to. */
export interface Setting {
  readonly radio: string;
  readonly channel: number;
  readonly width: Width;
  readonly power: number | null;
}

/** A plan of channels for one band. */
export interface BandProposal {
  readonly band: Band;
  readonly settings: readonly Setting[];
  /** Disturbance by the measure of `clashes`: now and then, and what no plan of these widths stays below. */
  readonly before: number;
  readonly after: number;
  readonly bound: number;
  /** It is proved that nothing disturbs less. */
  readonly best: boolean;
  /** Radios for which nothing is allowed. */
  readonly without: readonly string[];
  /** What lies on each channel now and then. */
  readonly loads: { readonly before: readonly ChannelLoad[]; readonly after: readonly ChannelLoad[] };
}

/** Enough for a site of 200 access points in a second or two. */
const EFFORT: Effort = { steps: 20_000, rounds: 4_000 };

/** The widest channel of which there are enough for everybody who is heard: never over 80 MHz, and 20 at 2.4 GHz. */
function widthFor(plan: Plan, radio: Radio, radios: readonly Radio[]): Width {
  if (radio.band === '2.4') return '20';
  const on = new Set(radios.map(({ device }) => device));
  const heard = nearTo(plan, radio.device, radio.band).filter(
    ({ device, dbm }) => on.has(device) && dbm >= KEEPS_SILENT,
  ).length;
  const widest = [...widthsOf[radio.band]].reverse().filter((width) => megahertz(width) <= 80);
  return (
    widest.find((width) => apartIn(optionsOf(plan, radio, width).map(({ span }) => span)) > heard) ?? '20'
  );
}

/** How loud a radio should be at its nearest neighbour, and the least it should send. */
const AT_NEIGHBOUR = -65;
const LEAST_POWER = 11;

/** As loud as its nearest neighbour bears; as it was where nobody is near, or nobody knows how near. */
function powerFor(plan: Plan, radio: Radio, radios: readonly Radio[], most: number): number | null {
  const on = new Set(radios.map(({ device }) => device));
  const levels = nearTo(plan, radio.device, radio.band)
    .filter(({ device, known }) => on.has(device) && known !== 'assumed')
    .map(({ dbm }) => dbm);
  if (levels.length === 0) return radio.power;
  const power = powerOfRadio(plan, radio);
  const over = Math.max(...levels) - AT_NEIGHBOUR;
  if (over <= 0) return radio.power;
  return Math.min(most, Math.max(LEAST_POWER, power - over));
}

interface Placed {
  readonly radio: Radio;
  readonly width: Width;
  readonly options: readonly Option[];
}

/** Where in a list the radios of each device are. */
const placesOf = (list: readonly { readonly radio: Radio }[]): ReadonlyMap<string, readonly number[]> =>
  groupBy([...list.keys()], (i) => list[i]!.radio.device);

/** What the radios of a band choose among, and what they do to each other. */
function problemOf(plan: Plan, band: Band, placed: readonly Placed[]): Problem {
  const spans = new Map<string, number>();
  const table: Span[] = [];
  const numberOf = (span: Span): number => {
    const key = `${span.from} ${span.to}`;
    const known = spans.get(key);
    if (known !== undefined) return known;
    spans.set(key, table.push(span) - 1);
    return table.length - 1;
  };
  const vertices = placed.map(({ radio, width, options }) => {
    const others = foreignAt(plan, radio.device, band).flatMap((one) => {
      const span = spanOfForeign(one);
      return span ? [{ span, dbm: one.dbm }] : [];
    });
    return {
      own: options.map(({ span }) =>
        others.reduce((sum, one) => sum + costBetween(span, one.span, one.dbm), 0),
      ),
      options: options.map(({ span }) => numberOf(span)),
      now: radio.width === width ? options.findIndex(({ channel }) => channel === radio.channel) : -1,
    };
  });
  const edges: Edge[] = [];
  const places = placesOf(placed);
  placed.forEach(({ radio }, a) => {
    for (const { device, dbm } of nearTo(plan, radio.device, band))
      for (const b of places.get(device) ?? [])
        if (b > a) edges.push({ a, b, weight: weightOf(dbm), beside: besideOf(dbm) });
  });
  return {
    vertices,
    edges,
    overlap: table.map((a) => table.map((b) => overlapOf(a, b))),
    apart: apartIn(table),
  };
}

/** What the radios of a band do to each other on channels they have: those that choose for themselves do nothing. */
export function disturbance(plan: Plan, band: Band): number {
  const radios = onChannels(plan, band);
  let sum = 0;
  const places = placesOf(radios);
  radios.forEach(({ radio, span }, i) => {
    for (const one of foreignAt(plan, radio.device, band)) {
      const other = spanOfForeign(one);
      if (other) sum += costBetween(span, other, one.dbm);
    }
    for (const { device, dbm } of nearTo(plan, radio.device, band))
      for (const k of places.get(device) ?? []) if (k > i) sum += costBetween(span, radios[k]!.span, dbm);
  });
  return sum;
}

/** A plan with radios set as proposed. */
const withSettings = (plan: Plan, settings: readonly Setting[]): Plan =>
  settings.reduce((now, { radio: id, channel, width, power }) => {
    const radio = plan.radio.get(id)!;
    return withRecord(now, 'radio', id, { ...radio, channel, width, power });
  }, plan);

/** Channels for the radios of a band, and widths and powers where that is wished. */
function forBand(plan: Plan, band: Band, wishes: Wishes, effort: Effort): BandProposal {
  const radios = radiosIn(plan, band);
  const without: string[] = [];
  const placed = radios.flatMap((radio): Placed[] => {
    const span = spanOfRadio(radio);
    if (radio.kept && radio.channel !== null && span)
      return [{ radio, width: radio.width, options: [{ channel: radio.channel, span }] }];
    const width = wishes.widths && !radio.kept ? widthFor(plan, radio, radios) : radio.width;
    const options = radio.kept ? [] : optionsOf(plan, radio, width);
    if (options.length === 0) without.push(radio.id);
    return options.length === 0 ? [] : [{ radio, width, options }];
  });
  const problem = problemOf(plan, band, placed);
  const solution = colour(problem, effort);
  const settings = placed.map(({ radio, width, options }, i): Setting => {
    const { channel } = options[solution.chosen[i]!]!;
    const allowed = allowedOn(countryOf(plan), band, channel, width);
    const most = allowed?.power ?? 36;
    const wanted = wishes.powers && !radio.kept ? powerFor(plan, radio, radios, most) : radio.power;
    return {
      radio: radio.id,
      channel,
      width,
      power: wanted === null || radio.kept ? wanted : Math.min(wanted, most),
    };
  });
  return {
    band,
    settings,
    before: disturbance(plan, band),
    after: costOf(problem, solution.chosen),
    bound: solution.bound,
    best: solution.best,
    without,
    loads: { before: loadsOf(plan, band), after: loadsOf(withSettings(plan, settings), band) },
  };
}

/** Channels for all radios that are on, band by band: bands do not disturb each other. */
export const proposeChannels = (
  plan: Plan,
  wishes: Wishes,
  effort: Effort = EFFORT,
): readonly BandProposal[] =>
  bands
    .filter((band) => wishes.band === null || band === wishes.band)
    .map((band) => forBand(plan, band, wishes, effort))
    .filter(({ settings, without }) => settings.length + without.length > 0);
