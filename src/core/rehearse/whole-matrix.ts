import { derive, deriveBy, equal, type Plan, type Zone } from '../plan';
import {
  ruleHolds,
  type PlainRule,
  plainRulesOf,
  RangeIndex,
  type TrafficRange,
  type Span,
  cut,
  subtract,
  boxesOfRule,
  spansOfZone,
  type Passing,
  passing,
  passingOfPairs,
  zonesOf,
} from '../model/policy';
import { type Difference, differencesBy, differencesOf } from './differences';

/** The whole matrix: for every pair of zones what the cell says, what rules above it decide, and what the rehearsal found. */
export interface Pair {
  readonly from: Zone;
  readonly to: Zone;
  readonly passing: Passing;
  /** The rules that decide something between the two, from the top, each with the traffic that is left to it. */
  readonly rules: readonly { readonly rule: PlainRule; readonly boxes: readonly TrafficRange[] }[];
  readonly differences: readonly Difference[];
}

type Exceptions = Pair['rules'];
const NONE: Exceptions = [];
const ANY: Span = [0n, 0n];

/** What the zones are made of. */
const zonesIn = derive(
  (plan) => {
    const zones = zonesOf(plan);
    const spans = zones.map(({ id }) => spansOfZone(plan, id));
    const boxes = spans.flat().map((span): TrafficRange => [span, span, ANY]);
    const owners = spans.flatMap((list, i) => list.map(() => i));
    return {
      zones,
      spans,
      senders: new RangeIndex(boxes, owners, 0),
      receivers: new RangeIndex(boxes, owners, 1),
    };
  },
  (a, b) => equal(a.zones, b.zones) && equal(a.spans, b.spans),
);
type Zones = ReturnType<typeof zonesIn>;

interface Spoken {
  readonly zones: Zones;
  readonly byRule: ReadonlyMap<
    string,
    { readonly boxes: readonly TrafficRange[]; readonly pairs: readonly number[] }
  >;
}
/** What each rule speaks of: traffic, and the pairs of zones it is between, as `from * zones + to`. */
const spokenIn = derive((plan, before: Spoken | undefined): Spoken => {
  const zones = zonesIn(plan);
  const known = before?.zones === zones ? before.byRule : undefined;
  const byRule = new Map(
    plainRulesOf(plan).map((rule) => {
      const boxes = boxesOfRule(plan, rule);
      const old = known?.get(rule.id);
      return [rule.id, old?.boxes === boxes ? old : { boxes, pairs: pairsBetween(zones, boxes) }] as const;
    }),
  );
  return { zones, byRule };
}, Object.is);

function pairsBetween(made: Zones, boxes: readonly TrafficRange[]): number[] {
  const [from, to] = [made.senders.meeting(boxes, Infinity)!, made.receivers.meeting(boxes, Infinity)!];
  const spoken: number[] = [];
  for (const a of from) for (const b of to) spoken.push(a * made.zones.length + b);
  return spoken;
}
const pairsOf = (plan: Plan, { id }: Pick<PlainRule, 'id'>): readonly number[] =>
  spokenIn(plan).byRule.get(id)!.pairs;

/** The pairs of different zones that a rule speaks of. */
export function zonesSpokenOf(plan: Plan, rule: PlainRule): readonly (readonly [Zone, Zone])[] {
  const made = zonesIn(plan);
  const count = made.zones.length;
  return pairsOf(plan, rule)
    .map((pair) => [made.zones[Math.floor(pair / count)]!, made.zones[pair % count]!] as const)
    .filter(([from, to]) => from !== to);
}

/** The part of some boxes that goes from one zone to another. */
function within(
  boxes: readonly TrafficRange[],
  senders: readonly Span[],
  receivers: readonly Span[],
): TrafficRange[] {
  const parts: TrafficRange[] = [];
  for (const [from, to, service] of boxes)
    for (const a of senders) {
      const sender = cut(from, a);
      if (!sender) continue;
      for (const b of receivers) {
        const receiver = cut(to, b);
        if (receiver) parts.push([sender, receiver, service]);
      }
    }
  return parts;
}

function decidedBy(plan: Plan, made: Zones, pair: number, rules: readonly PlainRule[]): Exceptions {
  const count = made.zones.length;
  const [senders, receivers] = [made.spans[Math.floor(pair / count)]!, made.spans[pair % count]!];
  const found: Exceptions[number][] = [];
  const decided: TrafficRange[] = [];
  for (const rule of rules) {
    const boxes = subtract(within(boxesOfRule(plan, rule), senders, receivers), decided);
    if (boxes.length === 0) continue;
    found.push({ rule, boxes });
    decided.push(...boxes);
  }
  return found;
}

interface Decided {
  readonly zones: Zones;
  readonly byPair: ReadonlyMap<
    number,
    {
      readonly rules: readonly PlainRule[];
      readonly boxes: readonly (readonly TrafficRange[])[];
      readonly found: Exceptions;
    }
  >;
}
const sameItems = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((item, i) => item === b[i]);

/** What rules decide in every pair they speak of. Pairs whose rules are the same as before keep what was found. */
const exceptionsOn = deriveBy((plan, today: string, before: Decided | undefined): Decided => {
  const { zones, byRule } = spokenIn(plan);
  const rulesBy = new Map<number, PlainRule[]>();
  for (const rule of plainRulesOf(plan)) {
    if (!ruleHolds(rule, today || null)) continue;
    for (const pair of byRule.get(rule.id)!.pairs) {
      const list = rulesBy.get(pair);
      if (list) list.push(rule);
      else rulesBy.set(pair, [rule]);
    }
  }
  const byPair = new Map<
    number,
    { rules: PlainRule[]; boxes: (readonly TrafficRange[])[]; found: Exceptions }
  >();
  for (const [pair, rules] of rulesBy) {
    const boxes = rules.map((rule) => byRule.get(rule.id)!.boxes);
    const known = before?.zones === zones ? before.byPair.get(pair) : undefined;
    const same = known !== undefined && sameItems(known.rules, rules) && sameItems(known.boxes, boxes);
    byPair.set(pair, { rules, boxes, found: same ? known.found : decidedBy(plan, zones, pair, rules) });
  }
  return { zones, byPair };
}, Object.is);

/** Every pair of zones, in the order of the matrix. */
export const wholeMatrix = (plan: Plan, today: string | null): readonly Pair[] => matrixOn(plan, today ?? '');

const matrixOn = deriveBy((plan, today: string): readonly Pair[] => {
  const { zones } = zonesIn(plan);
  const cells = passingOfPairs(plan);
  const { byPair } = exceptionsOn(plan, today);
  const differences = differencesBy(plan);
  return zones.flatMap((from, row) =>
    zones.map((to, column): Pair => {
      const pair = row * zones.length + column;
      return {
        from,
        to,
        passing: cells[pair]!,
        rules: byPair.get(pair)?.found ?? NONE,
        differences: differences(from.id, to.id),
      };
    }),
  );
}, Object.is);

/** One pair of the matrix. */
export function pairOf(plan: Plan, from: Zone, to: Zone, today: string | null): Pair {
  const made = zonesIn(plan);
  const placeOf = (zone: Zone) => made.zones.findIndex(({ id }) => id === zone.id);
  const pair = placeOf(from) * made.zones.length + placeOf(to);
  const rules = plainRulesOf(plan).filter(
    (rule) => ruleHolds(rule, today) && pairsOf(plan, rule).includes(pair),
  );
  return {
    from,
    to,
    passing: passing(plan, from, to),
    rules: decidedBy(plan, made, pair, rules),
    differences: differencesOf(plan, from.id, to.id),
  };
}
