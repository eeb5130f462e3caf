import { type Band, type ForeignSsid, type Plan, type Radio, deriveBy } from '../../plan';
import { accessPoints, radiosOf } from './air';
import { type Span, shared, spanOf, touch } from './channels';
import { type HeardLevel, KEEPS_SILENT, TOO_QUIET } from './levels';
import { type Near, type Rows, changesWith, differing, patched, rowsIn } from './near';

/** Who takes airtime from whom. */

/** How much of a channel leaks into the one beside it (IEEE 802.11-2020 clause 17.3.9.3: the mask 20 MHz off, 28 dB down). */
const LEAKS = 28;

/** What sharing 5 MHz with somebody heard at a level costs: a unit for each dB above what is too quiet. */
export const weightOf = (dbm: number): number => Math.max(0, Math.round(dbm) - TOO_QUIET);
/** What standing side by side costs, as 20 MHz of what leaks over. */
export const besideOf = (dbm: number): number => 4 * weightOf(dbm - LEAKS);

/** Overlap in units of 5 MHz; −1 for side by side. */
export const overlapOf = (a: Span, b: Span): number => (touch(a, b) ? -1 : Math.ceil(shared(a, b) / 5));

export const costBetween = (a: Span, b: Span, dbm: number): number => {
  const units = overlapOf(a, b);
  return units < 0 ? besideOf(dbm) : units * weightOf(dbm);
};

export const spanOfRadio = ({ band, channel, width }: Radio): Span | null =>
  channel === null ? null : spanOf(band, channel, width);
export const spanOfForeign = ({ band, channel, width }: ForeignSsid): Span | null =>
  spanOf(band, channel, width);

/** The radios that are on, of a band, in the order of their access points. */
export const radiosIn = deriveBy((plan, band: Band): readonly Radio[] =>
  accessPoints(plan).flatMap(({ id }) =>
    radiosOf(plan, id).filter((radio) => radio.enabled && radio.band === band),
  ),
);

/** Those of them that have a channel, with what it takes. */
export const onChannels = (
  plan: Plan,
  band: Band,
): readonly { readonly radio: Radio; readonly span: Span }[] =>
  radiosIn(plan, band).flatMap((radio) => {
    const span = spanOfRadio(radio);
    return span ? [{ radio, span }] : [];
  });

/** A radio as others find it: where it stands on the air. */
export interface Placed {
  readonly radio: string;
  readonly channel: number;
  readonly span: Span;
}
export const samePlace = (a: Placed, b: Placed): boolean =>
  a.radio === b.radio && a.channel === b.channel && a.span.from === b.span.from && a.span.to === b.span.to;
/** The radios of a band that are on and have a channel, by device: the first where there are two by mistake. */
export const placedIn = deriveBy((plan, band: Band): ReadonlyMap<string, Placed> => {
  const found = new Map<string, Placed>();
  for (const { radio, span } of onChannels(plan, band))
    if (!found.has(radio.device)) found.set(radio.device, { radio: radio.id, channel: radio.channel!, span });
  return found;
});

/** The networks of others in a band. */
export const foreignIn = deriveBy((plan, band: Band): readonly ForeignSsid[] =>
  [...plan.foreignSsid.values()].filter((one) => one.band === band),
);
/** Those that a device hears. */
export const foreignAt = (plan: Plan, device: string, band: Band): readonly ForeignSsid[] =>
  foreignIn(plan, band).filter(({ at }) => at === null || at === device);

/** Somebody with whom a radio shares frequencies, both hearing each other. */
export interface Clash {
  readonly device: string;
  readonly radio: string;
  readonly channel: number;
  readonly level: HeardLevel;
  /** In MHz. */
  readonly shared: number;
}

interface Clashes {
  readonly placed: ReadonlyMap<string, Placed>;
  readonly rows: Rows;
  /** By device, the loudest first. */
  readonly lists: ReadonlyMap<string, readonly Clash[]>;
}
const isLouder = (a: Clash, b: Clash): boolean =>
  a.level.dbm > b.level.dbm || (a.level.dbm === b.level.dbm && a.radio < b.radio);

function clashOf(own: Placed, theirs: Placed | undefined, { device, dbm, known }: Near): Clash | null {
  const common = theirs && dbm >= KEEPS_SILENT ? shared(own.span, theirs.span) : 0;
  if (!theirs || common === 0) return null;
  return { device, radio: theirs.radio, channel: theirs.channel, level: { dbm, known }, shared: common };
}

const clashesIn = deriveBy((plan, band: Band, before: Clashes | undefined): Clashes => {
  const [placed, rows] = [placedIn(plan, band), rowsIn(plan, band)];
  const moved = before ? differing(before.placed, placed, samePlace) : [];
  const lists = new Map<string, readonly Clash[]>();
  for (const [device, own] of placed) {
    const near = rows.get(device)!;
    const known = moved.includes(device) ? undefined : before?.lists.get(device);
    lists.set(
      device,
      known
        ? changesWith(before!.rows.get(device)!, near, moved).reduce((list, { device: other, is }) => {
            const clash = is && clashOf(own, placed.get(other), is);
            return patched(list, other, clash, isLouder);
          }, known)
        : near
            .flatMap((one) => clashOf(own, placed.get(one.device), one) ?? [])
            .sort((a, b) => (isLouder(a, b) ? -1 : 1)),
    );
  }
  return { placed, rows, lists };
}, Object.is);
const NOBODY: readonly Clash[] = [];
const clashesBy = deriveBy((plan, id: string): readonly Clash[] => {
  const radio = plan.radio.get(id);
  if (!radio) return NOBODY;
  const { placed, lists } = clashesIn(plan, radio.band);
  return (placed.get(radio.device)?.radio === id && lists.get(radio.device)) || NOBODY;
});
/** With whom a radio shares the air: on the same or overlapping channels and heard, the loudest first. */
export const clashesOf = (plan: Plan, { id }: Radio): readonly Clash[] => clashesBy(plan, id);
