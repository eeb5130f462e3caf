import { type Band, type Plan, type Spot, type Wall, deriveBy, equal } from '../../plan';
import { spotOf } from './air';
import { type HeardLevel, mattersAt, measured, powersIn, wallsByFloor } from './levels';

/** Who is near enough to whom to matter. What a few have changed is made up for with those few, as each of many hears many. */

/** Another device with a radio in a band that is loud enough to matter, by the louder of both ways. */
export interface Near extends HeardLevel {
  readonly device: string;
}
export type Rows = ReadonlyMap<string, readonly Near[]>;

interface Nears {
  readonly levels: ReadonlyMap<string, number>;
  readonly walls: ReadonlyMap<string, readonly Wall[]>;
  readonly powers: ReadonlyMap<string, number>;
  readonly spots: ReadonlyMap<string, Spot | undefined>;
  /** By device, in the order of the devices. */
  readonly rows: Rows;
}

/** The keys under which two maps differ. */
export function differing<V>(
  was: ReadonlyMap<string, V>,
  is: ReadonlyMap<string, V>,
  same: (a: V, b: V) => boolean = Object.is,
): string[] {
  const found: string[] = [];
  if (was === is) return found;
  for (const [key, value] of is) if (!was.has(key) || !same(was.get(key)!, value)) found.push(key);
  for (const key of was.keys()) if (!is.has(key)) found.push(key);
  return found;
}
const sameOrder = (a: ReadonlyMap<string, unknown>, b: ReadonlyMap<string, unknown>): boolean => {
  if (a.size !== b.size) return false;
  const others = b.keys();
  for (const key of a.keys()) if (others.next().value !== key) return false;
  return true;
};

/** A list in order with what it says of one device as it is now: put in where it belongs, or left out. */
export function patched<T extends { readonly device: string }>(
  list: readonly T[],
  device: string,
  now: T | null,
  isBefore: (a: T, b: T) => boolean,
): readonly T[] {
  const at = list.findIndex((one) => one.device === device);
  if (now === null) return at < 0 ? list : list.toSpliced(at, 1);
  if (at >= 0) {
    if (equal(list[at], now)) return list;
    const fits =
      (at === 0 || isBefore(list[at - 1]!, now)) && (at === list.length - 1 || isBefore(now, list[at + 1]!));
    if (fits) return list.with(at, now);
  }
  const others = at < 0 ? list : list.toSpliced(at, 1);
  const next = others.findIndex((one) => isBefore(now, one));
  return others.toSpliced(next < 0 ? others.length : next, 0, now);
}

/** Somebody who is heard otherwise than before, or no more, or now. */
interface Change {
  readonly device: string;
  readonly was: Near | null;
  readonly is: Near | null;
}
const NOTHING: readonly Change[] = [];
/** Who differs between the first and the last item by which two lists differ; in between may be some who do not. */
function changesIn(was: readonly Near[], is: readonly Near[]): readonly Change[] {
  if (was === is) return NOTHING;
  const least = Math.min(was.length, is.length);
  let start = 0;
  while (start < least && was[start] === is[start]) start++;
  let end = 0;
  while (end < least - start && was[was.length - 1 - end] === is[is.length - 1 - end]) end++;
  const found = new Map<string, Change>();
  for (let at = start; at < was.length - end; at++)
    found.set(was[at]!.device, { device: was[at]!.device, was: was[at]!, is: null });
  for (let at = start; at < is.length - end; at++) {
    const { device } = is[at]!;
    found.set(device, { device, was: found.get(device)?.was ?? null, is: is[at]! });
  }
  return [...found.values()];
}
/** The same, with some devices that are heard as before though something else of them changed. */
export function changesWith(
  was: readonly Near[],
  is: readonly Near[],
  others: readonly string[],
): readonly Change[] {
  const changes = changesIn(was, is);
  if (others.length === 0) return changes;
  const more = others.flatMap((device): Change[] => {
    if (changes.some((one) => one.device === device)) return [];
    const near = is.find((one) => one.device === device);
    return near ? [{ device, was: near, is: near }] : [];
  });
  return more.length > 0 ? [...changes, ...more] : changes;
}

const nearsIn = deriveBy((plan, band: Band, before: Nears | undefined): Nears => {
  const powers = powersIn(plan, band);
  const levels = measured(plan.level);
  const walls = wallsByFloor(plan.wall);
  const spots = new Map([...powers.keys()].map((device) => [device, spotOf(plan, device)]));
  const places = new Map([...powers.keys()].map((device, place) => [device, place]));
  const entry = (at: string, of: string): Near | null => {
    const level = mattersAt(plan, band, at, of, powers);
    return level && { device: of, ...level };
  };
  const row = (at: string): readonly Near[] =>
    [...powers.keys()].flatMap((of) => (of === at ? [] : (entry(at, of) ?? [])));
  const kept = before?.walls === walls && sameOrder(before.powers, powers) ? before : null;
  const differs = new Set(
    kept
      ? [
          ...differing(kept.powers, powers),
          ...differing(kept.spots, spots),
          ...differing(kept.levels, levels).flatMap((key) => key.split(' ').slice(0, 2)),
        ].filter((device) => powers.has(device))
      : [],
  );
  const changed = [...differs];
  const isBefore = (a: Near, b: Near) => places.get(a.device)! < places.get(b.device)!;
  const rows = new Map<string, readonly Near[]>();
  for (const at of powers.keys())
    rows.set(
      at,
      !kept || differs.has(at)
        ? row(at)
        : changed.reduce((list, of) => patched(list, of, entry(at, of), isBefore), kept.rows.get(at)!),
    );
  return { levels, walls, powers, spots, rows };
}, Object.is);

const NOBODY: readonly Near[] = [];
const rowOf = deriveBy((plan, key: string): readonly Near[] => {
  const [at, band] = key.split(' ') as [string, Band];
  return nearsIn(plan, band).rows.get(at) ?? NOBODY;
});
/** The devices that matter to one in a band, by the louder of both ways. */
export const nearTo = (plan: Plan, device: string, band: Band): readonly Near[] =>
  rowOf(plan, `${device} ${band}`);
/** The same for every device with a radio in a band. */
export const rowsIn = (plan: Plan, band: Band): Rows => nearsIn(plan, band).rows;
