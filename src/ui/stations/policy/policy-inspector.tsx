'use client';

import dynamic from 'next/dynamic';
import { usePlan } from '../../session/context';
import { useView } from '../../session/view';
import { PairInspector } from './pair-inspector';

const RuleInspector = dynamic(() => import('./rule-inspector').then((m) => m.RuleInspector));
const ZoneInspector = dynamic(() => import('./zone-inspector').then((m) => m.ZoneInspector));

/** The details of the chosen cells, zone or rule. */
export function PolicyInspector() {
  const plan = usePlan();
  const { pairs, zone: zoneId, rule: ruleId } = useView();
  const known = pairs.filter(({ from, to }) => plan.zone.get(from) && plan.zone.get(to));
  if (known.length > 0)
    return <PairInspector key={known.map(({ from, to }) => from + to).join()} plan={plan} pairs={known} />;
  const rule = ruleId === null ? undefined : plan.rule.get(ruleId);
  if (rule) return <RuleInspector key={rule.id} plan={plan} rule={rule} />;
  const zone = zoneId === null ? undefined : plan.zone.get(zoneId);
  if (zone) return <ZoneInspector key={zone.id} plan={plan} zone={zone} />;
  return <p className="pb-3 text-muted">Choose cells, a zone or a rule to see and set what holds there.</p>;
}
