import type { Plan, Party, Zone } from '../../plan';
import { rulesOf } from './analyse';
import { forwardText, forwardsInto } from './openings';
import { serviceNames } from './services';
import { isOutside, passing, zonesOf } from './zones';

const joined = (parts: readonly string[]): string =>
  parts.length < 2 ? (parts[0] ?? '') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}`;

/** What passes from one zone to another, as a part of a sentence; null when nothing does. */
function part(plan: Plan, from: Zone, to: Zone, named: Zone): string | null {
  const { decision, services } = passing(plan, from, to);
  const name = isOutside(named) ? 'the Internet' : named.name;
  const forwarded = forwardsInto(plan, from, to).map((forward) => forwardText(plan, forward));
  const listed = [
    ...(decision === 'services' ? [serviceNames(plan, services)] : []),
    ...(forwarded.length > 0 ? [`by forward ${forwarded.join(', ')}`] : []),
  ];
  if (decision === 'deny' && forwarded.length === 0) return null;
  if (decision === 'deny' || decision === 'services') return `${name} (${listed.join('; ')})`;
  return decision === 'wish' ? `${name} (some of its segments)` : name;
}

const speaksOf = (zone: Zone, parties: readonly Party[]): boolean =>
  parties.some(
    (party) =>
      ('zone' in party && party.zone === zone.id) || ('vlan' in party && zone.vlans.includes(party.vlan)),
  );

/** Who gets what from the gateway itself: zones with the same services together. */
function explainGateway(plan: Plan, zone: Zone): string {
  const groups = new Map<string, string[]>();
  for (const other of zonesOf(plan)) {
    if (other.id === zone.id) continue;
    const { decision, services } = passing(plan, other, zone);
    const what = {
      allow: 'everything',
      deny: 'nothing',
      wish: 'nothing',
      services: serviceNames(plan, services),
    }[decision];
    groups.set(what, [...(groups.get(what) ?? []), isOutside(other) ? 'the Internet' : other.name]);
  }
  return `${zone.name} answers ${[...groups].map(([what, names]) => `${joined(names)} on ${what}`).join('; ')}.`;
}

/**
 * A zone in one sentence: "Cameras may reach Servers (camera pictures) and nothing else; nobody but Staff reaches it."
 * Rules above the matrix are counted, not told.
 */
export function explainZone(plan: Plan, zone: Zone): string {
  if (zone.gateway && zone.vlans.length === 0) return explainGateway(plan, zone);
  const others = zonesOf(plan).filter(({ id, gateway }) => id !== zone.id && !gateway);
  const out = others.flatMap((other) => part(plan, zone, other, other) ?? []);
  const into = others.flatMap((other) => part(plan, other, zone, other) ?? []);
  const gateway = zonesOf(plan).find((other) => other.gateway && other.id !== zone.id);
  const desk = gateway ? part(plan, zone, gateway, gateway) : null;
  const may = out.length > 0 ? `may reach ${joined(out)} and nothing else` : 'may reach nothing';
  const reached = into.length > 0 ? `nobody but ${joined(into)} reaches it` : 'nobody reaches it';
  const rules = rulesOf(plan).filter(
    (rule) => rule.enabled && (speaksOf(zone, rule.from) || speaksOf(zone, rule.to)),
  ).length;
  return (
    [
      `${zone.name} ${may}`,
      reached,
      ...(desk
        ? [`the gateway answers it${desk === gateway!.name ? '' : desk.slice(gateway!.name.length)}`]
        : []),
      ...(rules > 0
        ? [
            `${rules} rule${rules === 1 ? '' : 's'} above the matrix ${rules === 1 ? 'speaks' : 'speak'} of it`,
          ]
        : []),
    ].join('; ') + '.'
  );
}
