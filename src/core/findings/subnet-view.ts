import { usableRange } from '../address/prefix';
import type { IpAddress } from '../address/ip';
import type { Plan } from '../plan/plan';
import { siteOf } from '../plan/plan';
import type { Address, Device, Exclusion, Interface, Pool, Site, Subnet, Vlan } from '../plan/records';
import { addressesOf } from '../plan/view';

export interface Host {
  readonly address: Address;
  readonly interface: Interface;
  readonly device: Device;
}

/** Everything that stands in one subnet, joined once for all checks. */
export interface SubnetView {
  readonly plan: Plan;
  readonly site: Site;
  readonly vlan: Vlan;
  readonly subnet: Subnet;
  /** Ascending by address. */
  readonly all: readonly Host[];
  readonly gateways: readonly Host[];
  /** Everything but the gateways. */
  readonly hosts: readonly Host[];
  readonly pools: readonly Pool[];
  readonly exclusions: readonly Exclusion[];
  readonly first: IpAddress;
  readonly last: IpAddress;
}

const byStart = (a: Pool | Exclusion, b: Pool | Exclusion) =>
  a.start < b.start ? -1 : a.start > b.start ? 1 : a.id < b.id ? -1 : 1;

/** Looks interfaces and devices up by id: in the plan, or in flat maps made for a run over everything. */
export interface Lookup {
  readonly interface: (id: string) => Interface | undefined;
  readonly device: (id: string) => Device | undefined;
}

export const planLookup = (plan: Plan): Lookup => ({
  interface: (id) => plan.interface.get(id),
  device: (id) => plan.device.get(id),
});

/** Flat maps cost one pass and pay when every record is asked for: a full run. */
export function flatLookup(plan: Plan): Lookup {
  const interfaces = new Map<string, Interface>();
  for (const group of plan.interface.allGroups()) for (const [id, item] of group) interfaces.set(id, item);
  const devices = new Map<string, Device>();
  for (const group of plan.device.allGroups()) for (const [id, device] of group) devices.set(id, device);
  return { interface: (id) => interfaces.get(id), device: (id) => devices.get(id) };
}

export function subnetView(plan: Plan, subnet: Subnet, lookup: Lookup = planLookup(plan)): SubnetView {
  const all = addressesOf(plan, subnet.id).map((address): Host => {
    const item = lookup.interface(address.interface)!;
    return { address, interface: item, device: lookup.device(item.device)! };
  });
  return {
    plan,
    site: siteOf(plan),
    vlan: plan.vlan.get(subnet.vlan)!,
    subnet,
    all,
    gateways: all.filter((host) => host.address.gateway),
    hosts: all.filter((host) => !host.address.gateway),
    pools: [...plan.pool.group(subnet.id).values()].sort(byStart),
    exclusions: [...plan.exclusion.group(subnet.id).values()].sort(byStart),
    ...usableRange(subnet.prefix),
  };
}
