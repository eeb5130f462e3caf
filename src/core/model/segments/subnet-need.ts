import { type Plan, siteOf, type Subnet, type Vlan, addressesOf } from '../../plan';
import { DEFAULT_LEASE, subnetNeed } from './need';

/** What a recorded subnet has to hold. */

/** The longest lease of the pools of a subnet, in seconds. */
export const leaseOf = (plan: Plan, subnet: Subnet): number => {
  const leases = [...plan.pool.group(subnet.id).values()].map((pool) => pool.lease);
  return leases.length ? Math.max(...leases) : DEFAULT_LEASE;
};

/** Gateways a subnet must hold: one, and two more addresses for a redundant pair behind a virtual one. */
export const gatewayCount = (plan: Plan, subnet: Subnet): number =>
  addressesOf(plan, subnet.id).some((address) => address.assignment === 'virtual') ? 3 : 1;

export const needOf = (plan: Plan, vlan: Vlan, subnet: Subnet) =>
  subnetNeed(vlan, siteOf(plan), leaseOf(plan, subnet), gatewayCount(plan, subnet));
