import type { Remedy } from '../../../plan';
import {
  type PlainRule,
  analyse,
  ruleHolds,
  plainRulesOf,
  ruleText,
  enforcement,
  filterOf,
} from '../../../model/policy';
import { zonesSpokenOf } from '../../../rehearse';
import { policyCheck } from './shared';

/** Rules among themselves, and rules that are more than anybody meant. */

const onRule = ({ id }: Pick<PlainRule, 'id'>) => ({ table: 'rule' as const, id });
const removal = (rule: Pick<PlainRule, 'id'>) =>
  ({
    label: 'Remove the rule',
    operation: 'removeRule',
    input: { rule: rule.id },
  }) satisfies Remedy;
const off = (rule: Pick<PlainRule, 'id'>) =>
  ({
    label: 'Switch it off',
    operation: 'edit',
    input: { table: 'rule', id: rule.id, set: { enabled: false }, seen: { enabled: true } },
  }) satisfies Remedy;

const words = {
  nothing: ['fix', 'speaks of nothing'],
  shadowed: ['fix', 'never decides anything'],
  redundant: ['note', 'changes nothing'],
  conflict: ['note', 'crosses another'],
} as const;

const faulty = policyCheck('rule-order', function* (plan, today) {
  const place = new Map(plainRulesOf(plan).map((rule, i) => [rule.id, i + 1]));
  for (const { rule, fault, others } of analyse(plan, today)) {
    if (fault === null) continue;
    const [severity, what] = words[fault];
    const which = others.map(({ id }) => place.get(id)).join(', ');
    const some = others.length === 1 ? `Rule ${which}` : `Rules ${which}`;
    const because = {
      nothing: 'Nobody, or no service, is left that it could be about.',
      shadowed: `${some} above it decide${others.length === 1 ? 's' : ''} otherwise, and nothing is left for it.`,
      redundant: `${some} decide${others.length === 1 ? 's' : ''} the same already.`,
      conflict: `${some} above it ${others.length === 1 ? 'takes' : 'take'} part of what it speaks of the other way; which comes first matters.`,
    }[fault];
    yield {
      severity,
      on: onRule(rule),
      also: others.map(onRule),
      what: `Rule ${place.get(rule.id)} ${what}`,
      because: `${ruleText(plan, rule)}. ${because}`,
      remedies: [
        removal(rule),
        ...(fault === 'shadowed' && others[0]
          ? [
              {
                label: `Put it above rule ${place.get(others[0].id)}`,
                operation: 'moveRule',
                input: { rule: rule.id, before: others[0].id },
              } satisfies Remedy,
            ]
          : []),
      ],
    };
  }
});

const expired = policyCheck('rule-expired', function* (plan, today) {
  for (const [i, rule] of plainRulesOf(plan).entries())
    if (rule.enabled && !ruleHolds(rule, today))
      yield {
        severity: 'fix',
        on: onRule(rule),
        what: `Rule ${i + 1} has run out`,
        because: `${ruleText(plan, rule)}. It held until ${rule.until}; on the boxes it may still stand.`,
        remedies: [removal(rule), off(rule)],
      };
});

const anyToAny = policyCheck('rule-any', function* (plan, today) {
  for (const [i, rule] of plainRulesOf(plan).entries())
    if (
      ruleHolds(rule, today) &&
      rule.action === 'allow' &&
      rule.from.length === 0 &&
      rule.to.length === 0 &&
      rule.services.length === 0
    )
      yield {
        severity: 'stop',
        on: onRule(rule),
        what: `Rule ${i + 1} lets everybody do everything`,
        because: 'From anybody, to anybody, any service: nothing below it and no zone counts any more.',
        remedies: [removal(rule), off(rule)],
      };
});

const tooWide = policyCheck('rule-wide', function* (plan, today) {
  for (const [i, rule] of plainRulesOf(plan).entries()) {
    if (!ruleHolds(rule, today) || rule.action !== 'allow' || rule.services.length > 0) continue;
    const [only, second] = rule.to;
    if (!only || second || !('device' in only)) continue;
    const listeners = [...plan.listener.group(only.device).values()];
    if (listeners.length === 0) continue;
    yield {
      severity: 'note',
      on: onRule(rule),
      also: [{ table: 'device', id: only.device }],
      what: `Rule ${i + 1} is wider than needed`,
      because: `It allows every service of ${plan.device.get(only.device)?.name ?? 'a device'}, which listens on ${listeners.length} only.`,
      remedies: [{ label: 'Limit it to these', operation: 'narrowRule', input: { rule: rule.id } }],
    };
  }
});

const wrongBox = policyCheck('rule-box', function* (plan, today) {
  for (const [i, rule] of plainRulesOf(plan).entries()) {
    const device = rule.device === null ? undefined : plan.device.get(rule.device);
    if (!device || !ruleHolds(rule, today)) continue;
    const pairs = zonesSpokenOf(plan, rule);
    const stands = pairs.some(([from, to]) => enforcement(plan, from, to).boxes.includes(device));
    const filters = filterOf(plan, device) !== 'none';
    if (filters && (stands || pairs.length === 0)) continue;
    yield {
      severity: 'fix',
      on: onRule(rule),
      also: [{ table: 'device', id: device.id }],
      what: `Rule ${i + 1} is given to a box that cannot keep it`,
      because: filters
        ? `${ruleText(plan, rule)}. ${device.name} does not route between these, so it never sees such a packet.`
        : `${ruleText(plan, rule)}. ${device.name} has no filter.`,
      remedies: [
        {
          label: 'Give it to whoever routes the pair',
          operation: 'setRuleDevice',
          input: { rule: rule.id, device: null },
        },
      ],
    };
  }
});

export const ruleChecks = [wrongBox, faulty, expired, anyToAny, tooWide];
