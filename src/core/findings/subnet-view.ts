import { usableRange, type IpAddress } from '../address';
import {
  type Plan,
  siteOf,
  type Address,
  type Device,
  type Exclusion,
  type Interface,
  type Pool,
  type Site,
  type Subnet,
  type Vlan,
  addressesOf,
} from '../plan';

/** An address with whose it is. The device is looked up when asked for: most checks need only the interface. */
export class SubnetHost {
  readonly interface: Interface;

  constructor(
    private readonly plan: Plan,
    readonly address: Address,
  ) {
    this.interface = plan.interface.get(address.interface)!;
  }

  get device(): Device {
    return this.plan.device.get(this.interface.device)!;
  }
}

/** Everything that stands in one subnet, joined once for all checks. */
export interface SubnetView {
  readonly plan: Plan;
  readonly site: Site;
  readonly vlan: Vlan;
  readonly subnet: Subnet;
  readonly gateways: readonly SubnetHost[];
  /** Everything but the gateways, ascending by address. */
  readonly hosts: readonly SubnetHost[];
  readonly pools: readonly Pool[];
  readonly exclusions: readonly Exclusion[];
  readonly first: IpAddress;
  readonly last: IpAddress;
}

const byStart = (a: Pool | Exclusion, b: Pool | Exclusion) =>
  a.start < b.start ? -1 : a.start > b.start ? 1 : a.id < b.id ? -1 : 1;

export function subnetView(plan: Plan, subnet: Subnet): SubnetView {
  const gateways: SubnetHost[] = [];
  const hosts: SubnetHost[] = [];
  for (const address of addressesOf(plan, subnet.id)) {
    const host = new SubnetHost(plan, address);
    (address.gateway ? gateways : hosts).push(host);
  }
  return {
    plan,
    site: siteOf(plan),
    vlan: plan.vlan.get(subnet.vlan)!,
    subnet,
    gateways,
    hosts,
    pools: [...plan.pool.group(subnet.id).values()].sort(byStart),
    exclusions: [...plan.exclusion.group(subnet.id).values()].sort(byStart),
    ...usableRange(subnet.prefix),
  };
}
