import { type Plan, type Subnet, addressesOf } from '../../plan';
import { leaseCapacity, type Sum, poolNeed, leaseOf } from '../segments';

/** What the pools of a subnet must hold against what they can lease, with the arithmetic. */
export function dynamicNeed(plan: Plan, subnet: Subnet): { readonly need: Sum; readonly capacity: number } {
  const vlan = plan.vlan.get(subnet.vlan)!;
  const hosts = addressesOf(plan, subnet.id).filter(
    (address) => !address.gateway && address.assignment !== 'virtual',
  );
  const need = poolNeed(vlan, hosts.length, leaseOf(plan, subnet));
  const pools = [...plan.pool.group(subnet.id).values()];
  const capacity = pools.reduce((sum, pool) => sum + leaseCapacity(plan, subnet, pool), 0);
  return { need, capacity };
}
