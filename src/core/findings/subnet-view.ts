import { usableRange } from '../address/prefix';
import type { IpAddress } from '../address/ip';
import type { Plan } from '../plan/plan';
import { siteOf } from '../plan/plan';
import type { Address, Device, Exclusion, Interface, Pool, Site, Subnet, Vlan } from '../plan/records';
import { addressesOf, hostOf } from '../plan/view';

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

export function subnetView(plan: Plan, subnet: Subnet): SubnetView {
  const all = addressesOf(plan, subnet.id).map((address): Host => ({ address, ...hostOf(plan, address) }));
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
