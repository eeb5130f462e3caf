import { formatPrefix } from '../../address';
import type { Plan, Party, Rule } from '../../plan';
import { serviceNames } from './services';
import { isJust, zoneCalled } from './zones';

/** One of those a rule speaks of, by name; a segment is called one where a larger zone has the name too. */
export function partyText(plan: Plan, party: Party): string {
  if ('prefix' in party) return formatPrefix(party.prefix);
  if ('zone' in party) return plan.zone.get(party.zone)?.name ?? 'a zone that is gone';
  if ('vlan' in party) {
    const name = plan.vlan.get(party.vlan)?.name;
    if (name === undefined) return 'a segment that is gone';
    const zone = zoneCalled(plan, name);
    return zone && !isJust(zone, party.vlan) ? `segment ${name}` : name;
  }
  return plan.device.get(party.device)?.name ?? 'a device that is gone';
}

export const partiesText = (plan: Plan, parties: readonly Party[]): string =>
  parties.length === 0 ? 'anybody' : parties.map((party) => partyText(plan, party)).join(', ');

/** A rule in words: "allow Staff to historian: HTTPS". */
export const ruleText = (plan: Plan, rule: Pick<Rule, 'action' | 'from' | 'to' | 'services'>): string =>
  `${rule.action} ${partiesText(plan, rule.from)} to ${partiesText(plan, rule.to)}: ${rule.services.length === 0 ? 'everything' : serviceNames(plan, rule.services)}`;
