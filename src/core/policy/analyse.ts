import type { Collection } from '../plan/collection';
import { memo } from '../plan/memo';
import type { Plan } from '../plan/plan';
import type { Rule } from '../plan/records';
import { type Box, anyMeet, subtract } from './boxes';
import { boxesOf } from './traffic';
import { inRank } from './zones';

/** What is wrong with rules among themselves, read off the traffic each speaks of. */

const inOrder = memo((rules: Collection<Rule>) => [...rules.values()].sort(inRank));
/** The rules from the top. */
export const rulesOf = (plan: Plan): readonly Rule[] => inOrder(plan.rule);

/** Does a rule hold on a day? Its last day is included. */
export const holds = (rule: Rule, today: string | null): boolean =>
  rule.enabled && (rule.until === null || today === null || rule.until >= today);

export interface Judged {
  readonly rule: Rule;
  readonly boxes: readonly Box[];
  /** What no earlier rule has decided: the traffic this rule really decides. */
  readonly left: readonly Box[];
  /**
   * nothing: it speaks of nobody or of no service. shadowed: rules above decide all it speaks of, some of it the other
   * way. redundant: all it speaks of would be decided the same by the rules above and below. conflict: a rule above takes
   * part of it the other way, and neither is the exception of the other.
   */
  readonly fault: 'nothing' | 'shadowed' | 'redundant' | 'conflict' | null;
  /** The rules concerned besides: those that decide the other way, or those that do the same. */
  readonly others: readonly Rule[];
}

const covers = (outer: readonly Box[], inner: readonly Box[]): boolean => subtract(inner, outer).length === 0;

/** Judges every rule that holds, from the top. The first rule that speaks of a packet decides it. */
export function analyse(plan: Plan, today: string | null = null): Judged[] {
  const rules = rulesOf(plan).filter((rule) => holds(rule, today));
  const boxes = rules.map((rule) => boxesOf(plan, rule));
  return rules.map((rule, at): Judged => {
    const own = boxes[at]!;
    const base = { rule, boxes: own };
    if (own.length === 0) return { ...base, left: [], fault: 'nothing', others: [] };
    // Those above it that really take something away from it.
    const deciders: Rule[] = [];
    let left: readonly Box[] = own;
    for (const [i, other] of rules.slice(0, at).entries()) {
      if (!anyMeet(left, boxes[i]!)) continue;
      deciders.push(other);
      left = subtract(left, boxes[i]!);
    }
    const against = deciders.filter(({ action }) => action !== rule.action);
    if (left.length === 0)
      return against.length > 0
        ? { ...base, left, fault: 'shadowed', others: against }
        : { ...base, left, fault: 'redundant', others: deciders };
    const taken = takenOver(rules, boxes, at, left);
    if (taken) return { ...base, left, fault: 'redundant', others: [...deciders, ...taken] };
    const crossing = against.filter((other) => {
      const theirs = boxes[rules.indexOf(other)]!;
      return !covers(own, theirs) && !covers(theirs, own);
    });
    return { ...base, left, fault: crossing.length > 0 ? 'conflict' : null, others: crossing };
  });
}

/** The later rules that would decide all of `left` in the same way; null when some of it would come out otherwise. */
function takenOver(
  rules: readonly Rule[],
  boxes: readonly (readonly Box[])[],
  at: number,
  left: readonly Box[],
): Rule[] | null {
  let rest = [...left];
  const by: Rule[] = [];
  for (let later = at + 1; later < rules.length && rest.length > 0; later++) {
    if (!anyMeet(rest, boxes[later]!)) continue;
    if (rules[later]!.action !== rules[at]!.action) return null;
    by.push(rules[later]!);
    rest = subtract(rest, boxes[later]!);
  }
  return rest.length === 0 ? by : null;
}
