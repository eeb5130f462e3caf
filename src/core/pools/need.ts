import type { Plan } from '../plan/plan';
import type { Subnet } from '../plan/records';
import { addressesOf } from '../plan/view';
import { leaseCapacity } from '../segments/layout';
import { type Sum, poolNeed } from '../segments/need';
import { leaseOf } from '../segments/subnet-need';

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
