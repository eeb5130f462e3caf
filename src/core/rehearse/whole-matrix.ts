import { memoOn } from '../plan/memo';
import type { Plan } from '../plan/plan';
import type { Rule, Zone } from '../plan/records';
import { holds, rulesOf } from '../policy/analyse';
import { BoxIndex } from '../policy/box-index';
import { type Box, type Span, subtract } from '../policy/boxes';
import { boxesOfRule, zoneSpans } from '../policy/traffic';
import { type Passing, passing, zonesOf } from '../policy/zones';
import { type Difference, differencesBy, differencesOf } from './differences';

/** The whole matrix: for every pair of zones what the cell says, what rules above it decide, and what the rehearsal found. */
export interface Pair {
  readonly from: Zone;
  readonly to: Zone;
  readonly passing: Passing;
  /** The rules that decide something between the two, from the top, each with the traffic that is left to it. */
  readonly rules: readonly { readonly rule: Rule; readonly boxes: readonly Box[] }[];
  readonly differences: readonly Difference[];
}

type Exceptions = Pair['rules'];
const NONE: Exceptions = [];
const ANY: Span = [0n, 0n];

/** What the zones are made of, and which rules were found to speak of which of them. */
const zonesIn = memoOn(
  ['zone', 'vlan', 'subnet', 'address', 'interface', 'device', 'tunnel', 'service'],
  (plan: Plan) => {
    const zones = zonesOf(plan);
    const spans = zones.map((zone) => zoneSpans(plan, zone));
    const boxes = spans.flat().map((span): Box => [span, span, ANY]);
    const owners = spans.flatMap((list, i) => list.map(() => i));
    return {
      zones,
      spans,
      senders: new BoxIndex(boxes, owners, 0),
      receivers: new BoxIndex(boxes, owners, 1),
      pairsOf: new WeakMap<Rule, readonly number[]>(),
      /** By pair: what came out for the rules that spoke of it then. */
      known: new Map<number, { readonly rules: readonly Rule[]; readonly found: Exceptions }>(),
    };
  },
);
type Zones = ReturnType<typeof zonesIn>;

/** The cells, which an edit of a rule leaves as they are. */
const cellsIn = memoOn(['zone', 'cell', 'vlan'], (plan: Plan) => {
  const zones = zonesOf(plan);
  return zones.flatMap((from) => zones.map((to) => passing(plan, from, to)));
});

/** The pairs a rule speaks of, as `from * zones + to`. */
function pairsOf(plan: Plan, made: Zones, rule: Rule): readonly number[] {
  let pairs = made.pairsOf.get(rule);
  if (!pairs) {
    const boxes = boxesOfRule(plan, rule);
    const [from, to] = [made.senders.meeting(boxes, Infinity)!, made.receivers.meeting(boxes, Infinity)!];
    const spoken: number[] = [];
    for (const a of from) for (const b of to) spoken.push(a * made.zones.length + b);
    pairs = spoken;
    made.pairsOf.set(rule, pairs);
  }
  return pairs;
}

/** The pairs of different zones that a rule speaks of. */
export function zonesSpokenOf(plan: Plan, rule: Rule): readonly (readonly [Zone, Zone])[] {
  const made = zonesIn(plan);
  const count = made.zones.length;
  return pairsOf(plan, made, rule)
    .map((pair) => [made.zones[Math.floor(pair / count)]!, made.zones[pair % count]!] as const)
    .filter(([from, to]) => from !== to);
}

const cut = (a: Span, b: Span): Span | null => {
  const from = a[0] > b[0] ? a[0] : b[0];
  const to = a[1] < b[1] ? a[1] : b[1];
  return from <= to ? [from, to] : null;
};

/** The part of some boxes that goes from one zone to another. */
function within(boxes: readonly Box[], senders: readonly Span[], receivers: readonly Span[]): Box[] {
  const parts: Box[] = [];
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

function decidedBy(plan: Plan, made: Zones, pair: number, rules: readonly Rule[]): Exceptions {
  const count = made.zones.length;
  const [senders, receivers] = [made.spans[Math.floor(pair / count)]!, made.spans[pair % count]!];
  const found: Exceptions[number][] = [];
  const decided: Box[] = [];
  for (const rule of rules) {
    const boxes = subtract(within(boxesOfRule(plan, rule), senders, receivers), decided);
    if (boxes.length === 0) continue;
    found.push({ rule, boxes });
    decided.push(...boxes);
  }
  return found;
}

/** What rules decide in every pair they speak of. Pairs whose rules are the same as before keep what was found. */
function exceptionsIn(plan: Plan, today: string | null): ReadonlyMap<number, Exceptions> {
  const made = zonesIn(plan);
  const byPair = new Map<number, Rule[]>();
  for (const rule of rulesOf(plan)) {
    if (!holds(rule, today)) continue;
    for (const pair of pairsOf(plan, made, rule)) {
      const list = byPair.get(pair);
      if (list) list.push(rule);
      else byPair.set(pair, [rule]);
    }
  }
  const found = new Map<number, Exceptions>();
  for (const [pair, rules] of byPair) {
    let known = made.known.get(pair);
    if (known?.rules.length !== rules.length || known.rules.some((rule, i) => rule !== rules[i])) {
      known = { rules, found: decidedBy(plan, made, pair, rules) };
      made.known.set(pair, known);
    }
    found.set(pair, known.found);
  }
  return found;
}

/** Every pair of zones, in the order of the matrix. */
export function wholeMatrix(plan: Plan, today: string | null): Pair[] {
  const { zones } = zonesIn(plan);
  const cells = cellsIn(plan);
  const exceptions = exceptionsIn(plan, today);
  const differences = differencesBy(plan);
  return zones.flatMap((from, row) =>
    zones.map((to, column): Pair => {
      const pair = row * zones.length + column;
      return {
        from,
        to,
        passing: cells[pair]!,
        rules: exceptions.get(pair) ?? NONE,
        differences: differences(from.id, to.id),
      };
    }),
  );
}

/** One pair of the matrix. */
export function pairOf(plan: Plan, from: Zone, to: Zone, today: string | null): Pair {
  const made = zonesIn(plan);
  const pair = made.zones.indexOf(from) * made.zones.length + made.zones.indexOf(to);
  const rules = rulesOf(plan).filter(
    (rule) => holds(rule, today) && pairsOf(plan, made, rule).includes(pair),
  );
  return {
    from,
    to,
    passing: passing(plan, from, to),
    rules: decidedBy(plan, made, pair, rules),
    differences: differencesOf(plan, from.id, to.id),
  };
}
