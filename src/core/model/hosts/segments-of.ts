import { type Interface, type Plan, addressesOn } from '../../plan';

/** The segments a network card stands in: its own, else those of its addresses, each once. */
export const segmentsOf = (plan: Plan, { id, vlan }: Pick<Interface, 'id' | 'vlan'>): readonly string[] =>
  vlan === null
    ? [...new Set(addressesOn(plan, id).map(({ subnet }) => plan.subnet.get(subnet)!.vlan))]
    : [vlan];
