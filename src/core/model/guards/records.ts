import {
  type Interface,
  type Plan,
  type PortGuard,
  type VlanGuard,
  boxOf,
  deriveBy,
  derive,
  pick,
} from '../../plan';

/** What boxes guard and what their ports are trusted with; what is not recorded is as boxes come: nothing is guarded. */

export type VlanGuards = Omit<VlanGuard, 'id' | 'device' | 'vlan'>;
export type PortGuards = Omit<PortGuard, 'id' | 'port'>;

export const noVlanGuards: VlanGuards = {
  snooping: false,
  inspection: false,
  sourceGuard: false,
  sourceGuard6: false,
  raGuard: false,
  dhcp6Guard: false,
  option82: false,
};
/** Guards that let pass what fits a binding. */
const BY_BINDING: readonly (keyof VlanGuards)[] = ['inspection', 'sourceGuard', 'sourceGuard6'];
export const hangsOnBindings = (guard: keyof VlanGuards): boolean => BY_BINDING.includes(guard);
export const factoryPortGuards: PortGuards = {
  trustsDhcp: false,
  trustsArp: false,
  trustsRouters: false,
  dhcpRate: null,
  arpRate: null,
  macLimit: null,
  macSticky: false,
  macAction: 'drop',
  storm: null,
  access: null,
};

/** Does any box guard anything? Where none does, nobody needs to look. */
export const anyGuards = derive((plan): boolean => plan.vlanGuard.size > 0);

/** What a box guards, by the number of the VLAN as frames wear it; nothing where its model cannot watch what ports say. */
export const guardsOf = deriveBy((plan, device: string): ReadonlyMap<number, VlanGuard> => {
  const guards = [...plan.vlanGuard.group(device).values()];
  if (guards.length === 0 || !boxOf(plan, device)?.snooping) return new Map();
  return new Map(guards.map((guard) => [plan.vlan.get(guard.vlan)!.vid, guard]));
});

export const vlanGuardOf = (plan: Plan, device: string, vlan: string): VlanGuard | undefined =>
  [...plan.vlanGuard.group(device).values()].find((guard) => guard.vlan === vlan);

/** The ports that act as one with a port, in the order of their numbers: its bundle, else itself. */
const actingWith = deriveBy((plan, id: string): readonly string[] => {
  const port = plan.port.get(id);
  if (!port || port.lag === null) return [id];
  return [...plan.port.group(port.device).values()]
    .filter(({ lag }) => lag === port.lag)
    .sort((a, b) => a.number - b.number)
    .map((one) => one.id);
});
/** The port that stands for a bundle: its first; any other port stands for itself. */
export const actingPort = (plan: Plan, id: string): string => actingWith(plan, id)[0] ?? id;

/** The record that holds for a port: what is recorded at one port of a bundle holds for all. */
export const portGuardOf = (plan: Plan, id: string): PortGuard | undefined =>
  actingWith(plan, id).flatMap((one) => plan.portGuard.by('port', one))[0];
/** What a port is trusted with and held to. */
export const portGuardsOf = (plan: Plan, id: string): PortGuards =>
  portGuardOf(plan, id) ?? factoryPortGuards;

export type Trust = Pick<PortGuards, 'trustsDhcp' | 'trustsArp' | 'trustsRouters'>;
/** What a port is trusted with. */
export const trustOf = (plan: Plan, id: string): Trust =>
  pick(portGuardsOf(plan, id), ['trustsDhcp', 'trustsArp', 'trustsRouters']);

/** The addresses that were entered at a box. */
export const boundAt = deriveBy(
  (plan, device: string): ReadonlySet<string> =>
    new Set([...plan.binding.group(device).values()].map(({ address }) => address)),
);

/** The MAC address a network card sends with, as far as it is recorded: its own, else that of its box. */
export const macOf = (plan: Plan, { mac, device }: Pick<Interface, 'mac' | 'device'>): string | null =>
  mac ?? boxOf(plan, device)?.baseMac ?? null;
