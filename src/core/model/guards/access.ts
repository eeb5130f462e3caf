import { type Access, type Identity, type Plan, type Port, type RadiusServer, derive } from '../../plan';
import { actingPort, portGuardsOf } from './records';

/** Who is let in at ports, as recorded. */

/** How ports ask who is there, by name. */
export const accessesOf = derive((plan): readonly Access[] =>
  [...plan.access.values()].sort((a, b) => a.name.localeCompare(b.name) || (a.id < b.id ? -1 : 1)),
);
/** How a port asks; null where it asks nobody. */
export function accessAt(plan: Plan, port: string): Access | null {
  const { access } = portGuardsOf(plan, port);
  return access === null ? null : (plan.access.get(access) ?? null);
}

/** The servers in the order they are asked. */
export const radiusOf = derive((plan): readonly RadiusServer[] =>
  [...plan.radius.values()].sort((a, b) => (a.rank < b.rank || (a.rank === b.rank && a.id < b.id) ? -1 : 1)),
);
/** Those that a port asks with this profile. */
export const serversFor = (plan: Plan, { group }: Pick<Access, 'group'>): readonly RadiusServer[] =>
  radiusOf(plan).filter((server) => group === '' || server.group === group);

export type KnownBy = Identity['by'] | 'unknown';
/** Whether a device answers 802.1X, as somebody recorded it. */
export const knownBy = (plan: Plan, device: string): KnownBy =>
  plan.identity.by('device', device)[0]?.by ?? 'unknown';

export interface Asking {
  readonly port: Port;
  readonly access: Access;
}
/** The ports that ask who is there; of a bundle the one that acts for it. */
export const askingPorts = derive((plan): readonly Asking[] =>
  [...plan.portGuard.values()].flatMap(({ port: id }): Asking[] => {
    const access = accessAt(plan, id);
    return access && actingPort(plan, id) === id ? [{ port: plan.port.get(id)!, access }] : [];
  }),
);
/** Each way of asking that is in use, with the boxes that ask so. */
export const boxesAsking = derive((plan): ReadonlyMap<Access, ReadonlySet<string>> => {
  const found = new Map<Access, Set<string>>();
  for (const { port, access } of askingPorts(plan))
    found.set(access, (found.get(access) ?? new Set<string>()).add(port.device));
  return found;
});
