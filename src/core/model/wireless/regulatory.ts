import type { Band, Width } from '../../plan';
import { memo } from '../../plan';
import table from './regulatory-table.json';
import { type Span, channelsOf, spanOf } from './channels';

/**
 * What is allowed on the air, by country: the public table of the Linux wireless developers, as Debian packages it
 * (scripts/regulatory.ts wrote it, its licence lies beside it).
 */

/** The day the table is of. */
export const TABLE_DATE = table.date;

interface Rule extends Span {
  readonly width: number;
  readonly power: number;
  readonly indoors: boolean;
  readonly radar: boolean;
  readonly silent: boolean;
  readonly joins: boolean;
}

function ruleOf(text: string): Rule {
  const [from, to, width, power, ...conditions] = text.split(' ');
  const has = (name: string) => conditions.includes(name);
  return {
    from: Number(from),
    to: Number(to),
    width: Number(width),
    power: Number(power),
    indoors: has('indoors'),
    radar: has('radar'),
    silent: has('silent'),
    joins: has('joins'),
  };
}

const rules = table.sets.map((set) => ({ region: set.region, rules: set.rules.map(ruleOf) }));
const countries: Readonly<Record<string, number>> = table.countries;

/** 00 is the table’s word for the world. */
export const countryCodes: readonly string[] = Object.keys(countries).filter((code) => code !== '00');

/** What holds for a channel somewhere. */
export interface Allowance {
  /** Highest EIRP in dBm. */
  readonly power: number;
  readonly indoors: boolean;
  /** It is listened for radar first: for so many seconds, and again after one was heard. 0 for no radar. */
  readonly wait: number;
  /** Only who heard somebody else there may speak; an access point needs an approval of its own. */
  readonly silent: boolean;
}

/** Weather radar: ten minutes instead of one (ETSI EN 301 893, table D.1). */
const WEATHER: Span = { from: 5600, to: 5650 };
const overlaps = (a: Span, b: Span): boolean => a.from < b.to && b.from < a.to;

/** The rules that a channel lies in, one after the other; null where some of it lies in none. */
function coveredBy(list: readonly Rule[], span: Span): readonly Rule[] | null {
  const inside = list.find(({ from, to }) => from <= span.from && to >= span.to);
  if (inside) return [inside];
  const parts = list.filter((rule) => overlaps(rule, span)).sort((a, b) => a.from - b.from);
  const whole =
    parts.length > 1 &&
    parts[0]!.from <= span.from &&
    parts.at(-1)!.to >= span.to &&
    parts.every((rule, i) => rule.joins && (i === 0 || parts[i - 1]!.to === rule.from));
  return whole ? parts : null;
}

function allowedIn(set: (typeof rules)[number], span: Span): Allowance | null {
  const parts = coveredBy(set.rules, span);
  if (!parts) return null;
  // Ranges that join together allow what they do together.
  const width = parts.length === 1 ? parts[0]!.width : parts.reduce((sum, rule) => sum + rule.width, 0);
  if (width < span.to - span.from) return null;
  const radar = parts.some((rule) => rule.radar);
  return {
    power: Math.min(...parts.map((rule) => rule.power)),
    indoors: parts.some((rule) => rule.indoors),
    wait: !radar ? 0 : set.region === 'etsi' && overlaps(span, WEATHER) ? 600 : 60,
    silent: parts.some((rule) => rule.silent),
  };
}
/** Allowed nearly everywhere: in so many of a hundred countries. */
const NEARLY = 95;

/** What nearly all countries allow: the lowest power, every condition that more than a few of them make. */
function nearlyEverywhere(span: Span): Allowance | null {
  const all = countryCodes.map((code) => allowedIn(rules[countries[code]!]!, span));
  const many = all.filter((one): one is Allowance => one !== null && !one.silent);
  if (many.length * 100 < all.length * NEARLY) return null;
  const few = (all.length * (100 - NEARLY)) / 100;
  const longest = many.map(({ wait }) => wait).sort((a, b) => b - a);
  const lowest = many.map(({ power }) => power).sort((a, b) => a - b);
  return {
    power: lowest[0]!,
    indoors: many.filter(({ indoors }) => indoors).length > few,
    wait: longest[Math.floor(few)]!,
    silent: false,
  };
}

const byCountry = memo((_table: typeof rules) => new Map<string, Allowance | null>());

/**
 * What a country allows on a channel; null where it is not allowed, or there is none. Without a country (an empty text, or one
 * that is not in the table) what is allowed nearly everywhere.
 */
export function allowedOn(country: string, band: Band, channel: number, width: Width): Allowance | null {
  const known = byCountry(rules);
  const key = `${country} ${band} ${channel} ${width}`;
  const found = known.get(key);
  if (found !== undefined) return found;
  const span = spanOf(band, channel, width);
  const set = countries[country];
  const made = !span
    ? null
    : set === undefined || country === '00'
      ? nearlyEverywhere(span)
      : allowedIn(rules[set]!, span);
  known.set(key, made);
  return made;
}

export const isKnownCountry = (country: string): boolean => country in countries && country !== '00';

/** The channels of a band that may be used at a width, as primary channels. */
export const usableChannels = (country: string, band: Band, width: Width): readonly number[] =>
  channelsOf[band].filter((channel) => {
    const allowed = allowedOn(country, band, channel, width);
    return allowed !== null && !allowed.silent;
  });
