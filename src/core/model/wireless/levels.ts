import {
  type Band,
  type Plan,
  type Radio,
  type Spot,
  type Wall,
  deriveBy,
  equal,
  groupBy,
  memo,
} from '../../plan';
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

const wallsByFloor = memo((walls: Plan['wall']) =>
  groupBy([...walls.values()], ({ floor }) => String(floor)),
);
/** What the walls of a floor take from a signal between two points, in dB. */
const wallLoss = (plan: Plan, floor: number, a: Point, b: Point): number =>
  (wallsByFloor(plan.wall).get(String(floor)) ?? [])
    .filter((wall) => crosses(wall, a, b))
    .reduce((sum, { loss }) => sum + loss, 0);

/** What lies between two places. */
interface Between {
  readonly metres: number;
  readonly floors: number;
  /** In dB; walls count on one floor, between floors the floor stands for them. */
  readonly walls: number;
}
type Hung = Pick<Spot, 'floor' | 'x' | 'y'>;
function betweenSpots(plan: Plan, a: Hung, b: Hung): Between {
  const floors = Math.abs(a.floor - b.floor);
  const metres = Math.hypot(a.x - b.x, a.y - b.y, floors * STOREY) / 100;
  return { metres, floors, walls: floors === 0 ? wallLoss(plan, a.floor, a, b) : 0 };
}
const lossOver = (band: Band, { metres, floors, walls }: Between): number =>
  pathLoss(band, metres, floors) + walls;

/** The loss between two places in a band, in dB. */
export const lossBetween = (plan: Plan, band: Band, a: Hung, b: Hung): number =>
  lossOver(band, betweenSpots(plan, a, b));

/** What a radio sends, EIRP in dBm: what it was told, else the most that is allowed on its channel. */
export function powerOfRadio(plan: Plan, { power, channel, band, width }: Radio): number {
  if (power !== null) return power;
  const allowed = channel === null ? null : allowedOn(countryOf(plan), band, channel, width);
  return allowed?.power ?? USUAL_POWER;
}

/** The measured levels by whom they were heard at, from whom and in which band; the loudest where one was measured twice. */
const measured = memo((levels: Plan['level']) => {
  const found = new Map<string, number>();
  for (const { at, of, band, dbm } of levels.values()) {
    const key = `${at} ${of} ${band}`;
    found.set(key, Math.max(dbm, found.get(key) ?? -Infinity));
  }
  return found;
});

/** What lies between a device that hangs somewhere and every other. */
interface Ways {
  readonly here: Spot | undefined;
  readonly walls: Plan['wall'];
  readonly spots: ReadonlyMap<string, Spot>;
  readonly by: ReadonlyMap<string, Between>;
}
/** Who hangs where they did has the same between them, the very same object. */
const waysFrom = deriveBy((plan, device: string, before: Ways | undefined): Ways => {
  const here = spotOf(plan, device);
  const walls = plan.wall;
  const kept = before && before.here === here && before.walls === walls ? before : null;
  const spots = new Map<string, Spot>();
  const by = new Map<string, Between>();
  if (here)
    for (const there of plan.spot.values()) {
      spots.set(there.device, there);
      const known = kept?.spots.get(there.device) === there ? kept.by.get(there.device) : undefined;
      by.set(there.device, known ?? betweenSpots(plan, here, there));
    }
  return { here, walls, spots, by };
}, sameWays);
function sameWays(a: Ways, b: Ways): boolean {
  if (a.here !== b.here || a.walls !== b.walls || a.by.size !== b.by.size) return false;
  for (const [device, way] of a.by) if (b.by.get(device) !== way) return false;
  return true;
}

/** What is sent in a band, by device: of those that have a radio there. A new channel seldom changes it. */
const powersIn = deriveBy(
  (plan, band: Band): ReadonlyMap<string, number> =>
    new Map(
      [...plan.radio.values()]
        .filter((radio) => radio.band === band)
        .map((radio) => [radio.device, powerOfRadio(plan, radio)]),
    ),
);

type Levels = ReadonlyMap<string, number>;
/** A measured level; what goes one way goes the other, but for the power of the two. */
const measuredAt = (levels: Levels, at: string, of: string, band: Band): number | undefined =>
  levels.size === 0 ? undefined : (levels.get(`${at} ${of} ${band}`) ?? levels.get(`${of} ${at} ${band}`));

const ASSUMED: HeardLevel = { dbm: ASSUMED_LEVEL, known: 'assumed' };
const estimated = (band: Band, power: number, way: Between): HeardLevel => ({
  dbm: Math.round(Math.max(-120, power - lossOver(band, way))),
  known: 'estimated',
});

/** How loud one device is at another in a band. */
export function heardAt(plan: Plan, at: string, of: string, band: Band): HeardLevel {
  const dbm = measuredAt(measured(plan.level), at, of, band);
  if (dbm !== undefined) return { dbm, known: 'measured' };
  const way = waysFrom(plan, at).by.get(of);
  const power = powersIn(plan, band).get(of);
  return way && power !== undefined ? estimated(band, power, way) : ASSUMED;
}

/** Below this nobody is disturbed: 10 dB under what a preamble is heard at. */
export const TOO_QUIET = KEEPS_SILENT - 10;

/** Another device with a radio in a band that is loud enough to matter, by the louder of both ways. */
export interface Near extends HeardLevel {
  readonly device: string;
}
interface Neighbours {
  readonly levels: Levels;
  readonly powers: ReadonlyMap<string, number>;
  readonly ways: Ways;
  /** Everybody, those who are too quiet as null. */
  readonly all: ReadonlyMap<string, Near | null>;
  readonly near: readonly Near[];
}
const neighboursOf = deriveBy((plan, key: string, before: Neighbours | undefined): Neighbours => {
  const [at, band] = key.split(' ') as [string, Band];
  const [levels, powers, ways] = [measured(plan.level), powersIn(plan, band), waysFrom(plan, at)];
  const own = powers.get(at);
  const kept = before && before.levels === levels && before.powers === powers ? before : null;
  const all = new Map<string, Near | null>();
  for (const [device, power] of powers) {
    if (device === at) continue;
    const way = ways.by.get(device);
    const known = kept && kept.ways.by.get(device) === way ? kept.all.get(device) : undefined;
    if (known !== undefined) {
      all.set(device, known);
      continue;
    }
    const dbm = measuredAt(levels, at, device, band);
    const level: HeardLevel =
      dbm !== undefined
        ? { dbm, known: 'measured' }
        : // The louder of both ways.
          way
          ? estimated(band, Math.max(power, own ?? power), way)
          : ASSUMED;
    all.set(device, level.dbm > TOO_QUIET ? { device, ...level } : null);
  }
  const near = [...all.values()].filter((one) => one !== null);
  return { levels, powers, ways, all, near };
}, sameNear);
function sameNear(a: Neighbours, b: Neighbours): boolean {
  return a.near.length === b.near.length && a.near.every((one, i) => equal(one, b.near[i]));
}
/** The devices that matter to one in a band, by the louder of both ways. */
export const nearTo = (plan: Plan, device: string, band: Band): readonly Near[] =>
  neighboursOf(plan, `${device} ${band}`).near;
