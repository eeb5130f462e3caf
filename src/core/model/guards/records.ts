import {
  type Interface,
  type Plan,
  type PortGuard,
  type VlanGuard,
  boxOf,
  deriveBy,
  derive,
} from '../../plan';

/** What boxes guard and what their ports are trusted with; what is not recorded is as boxes come: nothing is guarded. */

export type VlanGuards = Omit<VlanGuard, 'id' | 'device' | 'vlan'>;
export type PortGuards = Omit<PortGuard, 'id' | 'port'>;

export const noVlanGuards: VlanGuards = {
  snooping: false,
  inspection: false,
  sourceGuard: false,
  raGuard: false,
  dhcp6Guard: false,
  option82: false,
};
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

export const portGuardOf = (plan: Plan, port: string): PortGuard | undefined =>
  plan.portGuard.by('port', port)[0];
/** What a port is trusted with and held to. Members of a bundle are one port: what is recorded at one of them holds for all. */
export const portGuardsOf = (plan: Plan, port: string): PortGuards =>
  membersWith(plan, port).flatMap((id) => portGuardOf(plan, id) ?? [])[0] ?? factoryPortGuards;

/** A port, then the others of its bundle. */
const membersWith = deriveBy((plan, id: string): readonly string[] => {
  const port = plan.port.get(id);
  if (!port || port.lag === null) return [id];
  const others = [...plan.port.group(port.device).values()].filter((one) => one.lag === port.lag);
  return [id, ...others.map((one) => one.id).filter((one) => one !== id)];
});

/** The addresses that were entered at a box. */
export const boundAt = deriveBy(
  (plan, device: string): ReadonlySet<string> =>
    new Set([...plan.binding.group(device).values()].map(({ address }) => address)),
);

/** The MAC address a network card sends with, as far as it is recorded: its own, else that of its box. */
export const macOf = (plan: Plan, { mac, device }: Pick<Interface, 'mac' | 'device'>): string | null =>
  mac ?? boxOf(plan, device)?.baseMac ?? null;
