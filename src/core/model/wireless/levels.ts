import { type Band, type Plan, type Radio, type Spot, type Wall, deriveBy, groupBy, memo } from '../../plan';
import { countryOf, spotOf } from './air';
import { allowedOn } from './regulatory';

/** How loud access points are at one another: as measured, else estimated from where they hang, else assumed. */

export interface HeardLevel {
  readonly dbm: number;
  readonly known: 'measured' | 'estimated' | 'assumed';
}

/** What is taken of two of whom nothing is known: that they hear each other, and not loudly. */
const ASSUMED_LEVEL = -80;
/** From here on a preamble keeps others silent (IEEE 802.11-2020 clause 17.3.10.6, channel of 20 MHz). */
export const KEEPS_SILENT = -82;
/** What a radio is taken to send that was told nothing and stands on no channel. */
const USUAL_POWER = 20;
const STOREY = 300;

/**
 * Distance loss and floor loss of an office, by band (ITU-R P.1238-7, tables 2 and 3, the rows nearest in frequency; each
 * further floor 4 dB, as in the row of 1.8 to 2 GHz).
 */
const LOSSES: Readonly<
  Record<Band, { readonly megahertz: number; readonly distance: number; readonly floor: number }>
> = {
  '2.4': { megahertz: 2440, distance: 30, floor: 14 },
  '5': { megahertz: 5500, distance: 31, floor: 16 },
  '6': { megahertz: 6200, distance: 31, floor: 16 },
};

/** Loss over a distance in metres and so many floors, without walls: 20 log f + N log d + Lf(n) − 28 dB (ITU-R P.1238). */
export function pathLoss(band: Band, metres: number, floors = 0): number {
  const { megahertz, distance, floor } = LOSSES[band];
  const through = floors === 0 ? 0 : floor + 4 * (floors - 1);
  return 20 * Math.log10(megahertz) + distance * Math.log10(Math.max(1, metres)) + through - 28;
}

/** The distance in metres at which a radio is heard at a level, with no wall between. */
export const reachOf = (band: Band, power: number, dbm: number): number =>
  10 ** ((power - dbm - pathLoss(band, 1)) / LOSSES[band].distance);

interface Point {
  readonly x: number;
  readonly y: number;
}
/** On which side of a line a point lies. */
const side = (a: Point, b: Point, p: Point): number =>
  Math.sign((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x));

/** Does a wall stand between two points? One that only touches the line counts. */
function crosses({ fromX, fromY, toX, toY }: Wall, a: Point, b: Point): boolean {
  const [from, to] = [
    { x: fromX, y: fromY },
    { x: toX, y: toY },
  ];
  return side(from, to, a) !== side(from, to, b) && side(a, b, from) !== side(a, b, to);
}

/** The walls of each floor. */
export const wallsByFloor = memo((walls: Plan['wall']) =>
  groupBy([...walls.values()], ({ floor }) => String(floor)),
);
/** What the walls of a floor take from a signal between two points, in dB. */
const wallLoss = (plan: Plan, floor: number, a: Point, b: Point): number =>
  (wallsByFloor(plan.wall).get(String(floor)) ?? [])
    .filter((wall) => crosses(wall, a, b))
    .reduce((sum, { loss }) => sum + loss, 0);

type Hung = Pick<Spot, 'floor' | 'x' | 'y'>;
/** The loss between two places in a band, in dB. Walls count on one floor; between floors the floor stands for them. */
export function lossBetween(plan: Plan, band: Band, a: Hung, b: Hung): number {
  const floors = Math.abs(a.floor - b.floor);
  const metres = Math.hypot(a.x - b.x, a.y - b.y, floors * STOREY) / 100;
  return pathLoss(band, metres, floors) + (floors === 0 ? wallLoss(plan, a.floor, a, b) : 0);
}

/** What a radio sends, EIRP in dBm: what it was told, else the most that is allowed on its channel. */
export function powerOfRadio(plan: Plan, { power, channel, band, width }: Radio): number {
  if (power !== null) return power;
  const allowed = channel === null ? null : allowedOn(countryOf(plan), band, channel, width);
  return allowed?.power ?? USUAL_POWER;
}

const levelKey = (at: string, of: string, band: Band): string => `${at} ${of} ${band}`;
type Measured = ReadonlyMap<string, number>;
/** The measured levels by whom they were heard at, from whom and in which band; the loudest where one was measured twice. */
export const measured = memo((levels: Plan['level']): Measured => {
  const found = new Map<string, number>();
  for (const { at, of, band, dbm } of levels.values()) {
    const key = levelKey(at, of, band);
    found.set(key, Math.max(dbm, found.get(key) ?? -Infinity));
  }
  return found;
});

/** What is sent in a band, by device: of those that have a radio there. A new channel seldom changes it. */
export const powersIn = deriveBy(
  (plan, band: Band): ReadonlyMap<string, number> =>
    new Map(
      [...plan.radio.values()]
        .filter((radio) => radio.band === band)
        .map((radio) => [radio.device, powerOfRadio(plan, radio)]),
    ),
);

/** A measured level; what goes one way goes the other, but for the power of the two. */
const measuredAt = (levels: Measured, at: string, of: string, band: Band): number | undefined =>
  levels.size === 0 ? undefined : (levels.get(levelKey(at, of, band)) ?? levels.get(levelKey(of, at, band)));

const ASSUMED: HeardLevel = { dbm: ASSUMED_LEVEL, known: 'assumed' };

/** How loud what is sent at a power in one place is in another; assumed where one of them is not known. */
function levelAt(plan: Plan, band: Band, at: string, of: string, power: number | undefined): HeardLevel {
  const dbm = measuredAt(measured(plan.level), at, of, band);
  if (dbm !== undefined) return { dbm, known: 'measured' };
  const [here, there] = [spotOf(plan, at), spotOf(plan, of)];
  if (!here || !there || power === undefined) return ASSUMED;
  const loud = power - lossBetween(plan, band, here, there);
  return { dbm: Math.round(Math.max(-120, loud)), known: 'estimated' };
}

/** How loud one device is at another in a band. */
export const heardAt = (plan: Plan, at: string, of: string, band: Band): HeardLevel =>
  levelAt(plan, band, at, of, powersIn(plan, band).get(of));

/** Below this nobody is disturbed: 10 dB under what a preamble is heard at. */
export const TOO_QUIET = KEEPS_SILENT - 10;

/** The level by the louder of both ways; null where it is too quiet to matter. */
export function mattersAt(
  plan: Plan,
  band: Band,
  at: string,
  of: string,
  powers: ReadonlyMap<string, number>,
): HeardLevel | null {
  const [own, theirs] = [powers.get(at), powers.get(of)];
  const power = theirs === undefined ? own : Math.max(theirs, own ?? theirs);
  const level = levelAt(plan, band, at, of, power);
  return level.dbm > TOO_QUIET ? level : null;
}
