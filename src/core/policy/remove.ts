import type { Draft } from '../plan/draft';
import type { Party } from '../plan/records';

/**
 * Takes somebody out of every rule. A rule that spoke of nobody else goes too: with an empty list it would speak of
 * everybody.
 */
function dropParty(draft: Draft, gone: (party: Party) => boolean): void {
  for (const rule of [...draft.plan.rule.values()]) {
    const [from, to] = [rule.from, rule.to].map((parties) => parties.filter((party) => !gone(party)));
    if (from!.length === rule.from.length && to!.length === rule.to.length) continue;
    const emptied = (from!.length === 0 && rule.from.length > 0) || (to!.length === 0 && rule.to.length > 0);
    if (emptied) draft.remove('rule', rule.id);
    else draft.update('rule', rule.id, { from: from!, to: to! });
  }
}

export function dropZone(draft: Draft, zone: string): void {
  for (const cell of [...draft.plan.cell.values()])
    if (cell.from === zone || cell.to === zone) draft.remove('cell', cell.id);
  dropParty(draft, (party) => 'zone' in party && party.zone === zone);
}

/** Takes something out of every zone that lists it. */
function dropMember(draft: Draft, field: 'vlans' | 'uplinks' | 'tunnels', id: string): void {
  for (const zone of [...draft.plan.zone.values()])
    if (zone[field].includes(id))
      draft.update('zone', zone.id, { [field]: zone[field].filter((other) => other !== id) });
}

export function dropVlan(draft: Draft, vlan: string): void {
  dropMember(draft, 'vlans', vlan);
  dropParty(draft, (party) => 'vlan' in party && party.vlan === vlan);
}

export const dropUplink = (draft: Draft, uplink: string): void => dropMember(draft, 'uplinks', uplink);
export const dropTunnel = (draft: Draft, tunnel: string): void => dropMember(draft, 'tunnels', tunnel);

export function dropDevice(draft: Draft, device: string): void {
  for (const rule of [...draft.plan.rule.values()])
    if (rule.device === device) draft.update('rule', rule.id, { device: null });
  dropParty(draft, (party) => 'device' in party && party.device === device);
}

/** A service that goes leaves what allowed it alone: a cell denies then, and a rule of nothing else goes. */
export function dropService(draft: Draft, service: string): void {
  const rest = (ids: readonly string[]) => ids.filter((id) => id !== service);
  for (const cell of [...draft.plan.cell.values()])
    if (cell.services.includes(service)) {
      const services = rest(cell.services);
      draft.update('cell', cell.id, {
        services,
        ...(services.length === 0 ? { decision: 'deny' as const } : {}),
      });
    }
  for (const rule of [...draft.plan.rule.values()])
    if (rule.services.includes(service)) {
      const services = rest(rule.services);
      if (services.length === 0) draft.remove('rule', rule.id);
      else draft.update('rule', rule.id, { services });
    }
}
