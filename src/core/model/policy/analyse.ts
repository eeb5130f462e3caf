import { type Collection, derive, deriveBy, memo, type Plan, type Rule, inRank } from '../../plan';
import { type TrafficRange, anyMeet, subtract } from './traffic-range';
import { RangeIndex } from './range-index';
import { boxesOfRule } from './traffic';

/** What is wrong with rules among themselves, read off the traffic each speaks of. */

const inOrder = memo((rules: Collection<Rule>) => [...rules.values()].sort(inRank));
/** The rules from the top. */
export const rulesOf = (plan: Plan): readonly Rule[] => inOrder(plan.rule);

/** What of a rule decides something: neither why it is there nor whether it is logged. */
export type PlainRule = Omit<Rule, 'note' | 'log'>;
const plainRule = memo(({ note: _note, log: _log, ...rule }: Rule): PlainRule => rule);
/** The rules from the top, for whoever does not say why they are there. */
export const plainRulesOf = derive((plan): readonly PlainRule[] => rulesOf(plan).map(plainRule));

/** Does a rule hold on a day? Its last day is included. */
export const ruleHolds = (rule: Pick<Rule, 'enabled' | 'until'>, today: string | null): boolean =>
  rule.enabled && (rule.until === null || today === null || rule.until >= today);

export interface Judged {
  readonly rule: PlainRule;
  readonly boxes: readonly TrafficRange[];
  /** What no earlier rule has decided: the traffic this rule really decides. */
  readonly left: readonly TrafficRange[];
  /**
   * nothing: it speaks of nobody or of no service. shadowed: rules above decide all it speaks of, some of it the other
   * way. redundant: all it speaks of would be decided the same by the rules above and below. conflict: a rule above takes
   * part of it the other way, and neither is the exception of the other.
   */
  readonly fault: 'nothing' | 'shadowed' | 'redundant' | 'conflict' | null;
  /** The rules concerned besides: those that decide the other way, or those that do the same. */
  readonly others: readonly PlainRule[];
}

const covers = (outer: readonly TrafficRange[], inner: readonly TrafficRange[]): boolean =>
  subtract(inner, outer).length === 0;

/** For each list of boxes the others that may share traffic with it, ascending: by receivers, or by senders if fewer. */
function neighbours(boxes: readonly (readonly TrafficRange[])[]): (at: number) => readonly number[] {
  const all = boxes.flat();
  const owners = boxes.flatMap((list, i) => list.map(() => i));
  const [senders, receivers] = [new RangeIndex(all, owners, 0), new RangeIndex(all, owners, 1)];
  return (at) => {
    const own = boxes[at]!;
    const to = receivers.meeting(own, Infinity)!;
    const found = senders.meeting(own, to.size) ?? to;
    return [...found].sort((a, b) => a - b);
  };
}

/** Judges every rule that holds, from the top. The first rule that speaks of a packet decides it. */
export const analyse = (plan: Plan, today: string | null = null): readonly Judged[] =>
  judgedOn(plan, today ?? '');
const judgedOn = deriveBy((plan, today: string): readonly Judged[] => judge(plan, today || null));

function judge(plan: Plan, today: string | null): Judged[] {
  const rules = plainRulesOf(plan).filter((rule) => ruleHolds(rule, today));
  const boxes = rules.map((rule) => boxesOfRule(plan, rule));
  const near = neighbours(boxes);
  return rules.map((rule, at): Judged => {
    const own = boxes[at]!;
    const base = { rule, boxes: own };
    if (own.length === 0) return { ...base, left: [], fault: 'nothing', others: [] };
    const around = near(at);
    // Those above it that really take something away from it.
    const deciders: number[] = [];
    let left: readonly TrafficRange[] = own;
    for (const i of around) {
      if (i >= at) break;
      if (!anyMeet(left, boxes[i]!)) continue;
      deciders.push(i);
      left = subtract(left, boxes[i]!);
    }
    const named = (list: readonly number[]) => list.map((i) => rules[i]!);
    const against = deciders.filter((i) => rules[i]!.action !== rule.action);
    if (left.length === 0)
      return against.length > 0
        ? { ...base, left, fault: 'shadowed', others: named(against) }
        : { ...base, left, fault: 'redundant', others: named(deciders) };
    const taken = takenOver(rules, boxes, at, left, around);
    if (taken) return { ...base, left, fault: 'redundant', others: named([...deciders, ...taken]) };
    const crossing = against.filter((i) => !covers(own, boxes[i]!) && !covers(boxes[i]!, own));
    return { ...base, left, fault: crossing.length > 0 ? 'conflict' : null, others: named(crossing) };
  });
}

/** The later rules that would decide all of `left` in the same way; null when some of it would come out otherwise. */
function takenOver(
  rules: readonly PlainRule[],
  boxes: readonly (readonly TrafficRange[])[],
  at: number,
  left: readonly TrafficRange[],
  around: readonly number[],
): number[] | null {
  let rest = [...left];
  const by: number[] = [];
  for (const later of around) {
    if (rest.length === 0) break;
    if (later <= at || !anyMeet(rest, boxes[later]!)) continue;
    if (rules[later]!.action !== rules[at]!.action) return null;
    by.push(later);
    rest = subtract(rest, boxes[later]!);
  }
  return rest.length === 0 ? by : null;
}
