import { type PlainVlan, type Plan, type Zone, derive, groupBy, memo, plainVlansOf } from '../plan';
import {
  type Passing,
  isOutside,
  passing,
  passingOfPairs,
  vlansOfZone,
  zoneOfVlan,
  zonesOf,
} from '../model/policy';
import {
  type Cause,
  type SharedWire,
  apart,
  cutOff,
  joined,
  routed,
  strays,
  unfiltered,
  vlanRef,
} from './causes';
import { homeOf } from './classes';
import { farAddress } from './host';

/** Where the rehearsed network does something else than the matrix says. */
export interface Difference extends Cause {
  readonly from: Zone;
  readonly to: Zone;
  /** excess: it passes though it is not allowed. missing: it is allowed and does not pass. */
  readonly kind: 'excess' | 'missing';
}

/** Segments that share a wire while one of them is in no zone, so that no pair of zones tells of it. */
export const looseWires = (plan: Plan): readonly (Cause & Pick<SharedWire, 'a' | 'b'>)[] =>
  zonesOf(plan).length === 0
    ? []
    : [...joined(plan), ...strays(plan)]
        .filter(({ a, b }) => !zoneOfVlan(plan, a) || !zoneOfVlan(plan, b))
        .map(({ a, b, cause }) => ({ ...cause, a, b }));

interface Decided {
  readonly from: Zone;
  readonly to: Zone;
  readonly decision: Passing['decision'];
}
/** The pairs of different zones, row by row, of whose decisions some are wanted. */
function decidedAs(plan: Plan, wanted: (decision: Passing['decision']) => boolean): Decided[] {
  const zones = zonesOf(plan);
  return passingOfPairs(plan).flatMap(({ decision }, pair) => {
    if (!wanted(decision)) return [];
    const [from, to] = [zones[Math.floor(pair / zones.length)]!, zones[pair % zones.length]!];
    return from === to ? [] : [{ from, to, decision }];
  });
}
const open = derive((plan): readonly Decided[] => decidedAs(plan, (decision) => decision !== 'deny'));

/** Those of a zone who are meant by a decision about it. */
const meant = (plan: Plan, { from, decision }: Decided): PlainVlan[] =>
  vlansOfZone(plan, from).filter(({ internet }) => decision !== 'wish' || internet);

const nameOf = (plan: Plan, { id }: PlainVlan): string => plan.vlan.get(id)!.name;

/** What passes between segments of zones that are to be kept apart. */
function excess(plan: Plan): Difference[] {
  const between = (a: string, b: string, cause: Cause): Difference[] => {
    const [from, to] = [zoneOfVlan(plan, a), zoneOfVlan(plan, b)];
    if (!from || !to || from === to || passing(plan, from, to).decision === 'allow') return [];
    return [{ from, to, kind: 'excess', ...cause }];
  };
  return [
    ...joined(plan).flatMap(({ a, b, cause }) => between(a, b, cause)),
    ...strays(plan).flatMap(({ a, b, cause }) => [...between(a, b, cause), ...between(b, a, cause)]),
    ...unguarded(plan).flatMap(({ a, b, cause }) => between(a, b, cause)),
  ];
}

/** Segments of zones that are to be kept apart, with a router between them that has no filter. */
function unguarded(plan: Plan): SharedWire[] {
  const routers = new Map(plainVlansOf(plan).map(({ id }) => [id, homeOf(plan, id).router]));
  if (![...routers.values()].some((router) => unfiltered(plan, router, router))) return [];
  return decidedAs(plan, (decision) => decision !== 'allow').flatMap((pair) =>
    meant(plan, pair).flatMap((a) =>
      vlansOfZone(plan, pair.to).flatMap((b) => {
        const router = unfiltered(plan, routers.get(a.id)!, routers.get(b.id)!);
        if (!router) return [];
        const cause: Cause = {
          why: `${router.device.name} routes between ${nameOf(plan, a)} and ${nameOf(plan, b)} and has no filter.`,
          on: { table: 'device', id: router.device.id },
          also: [],
          remedies: [],
          cause: `filter ${router.device.id}`,
        };
        return [{ a: a.id, b: b.id, cause }];
      }),
    ),
  );
}

/** What keeps from working what is allowed for a pair. */
function missing(plan: Plan, pair: Decided): Cause[] {
  const senders = meant(plan, pair);
  const receivers = vlansOfZone(plan, pair.to);
  const found: Cause[] = [...senders, ...receivers].flatMap(({ id }) => cutOff(plan, id));
  for (const a of senders) {
    const { why: shut, router } = homeOf(plan, a.id);
    if (shut !== null || !router) continue;
    if (isOutside(pair.to)) {
      const why = routed(plan, router, farAddress(plan), true);
      if (why)
        found.push({
          why: `${why}, so ${nameOf(plan, a)} has no Internet.`,
          on: vlanRef(a),
          also: [],
          remedies: [],
          cause: `out ${a.id}`,
        });
    }
    for (const b of receivers) {
      if (homeOf(plan, b.id).why !== null) continue;
      const why = apart(plan, a, b);
      if (why)
        found.push({
          why: `${nameOf(plan, a)} and ${nameOf(plan, b)}: ${why}.`,
          on: vlanRef(a),
          also: [vlanRef(b)],
          remedies: [],
          cause: `apart ${a.id} ${b.id}`,
        });
    }
  }
  return found;
}

/** Every difference between the matrix and what the rehearsed network does. Empty while there are no zones. */
export const differencesIn = derive((plan): readonly Difference[] =>
  zonesOf(plan).length === 0
    ? []
    : [
        ...excess(plan),
        ...open(plan).flatMap((pair) =>
          missing(plan, pair).map((cause): Difference => ({
            from: pair.from,
            to: pair.to,
            kind: 'missing',
            ...cause,
          })),
        ),
      ],
);

const byPair = memo((found: readonly Difference[]) =>
  groupBy(found, ({ from, to }) => `${from.id} ${to.id}`),
);
const NONE: readonly Difference[] = [];
/** The differences of pairs of zones, asked by the ids of both. */
export function differencesBy(plan: Plan): (from: string, to: string) => readonly Difference[] {
  const pairs = byPair(differencesIn(plan));
  return pairs.size === 0 ? () => NONE : (from, to) => pairs.get(`${from} ${to}`) ?? NONE;
}
/** The differences of one pair of zones. */
export const differencesOf = (plan: Plan, from: string, to: string): readonly Difference[] =>
  differencesBy(plan)(from, to);
