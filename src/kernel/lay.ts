import { type LaidPlan, kernelSettings, laidPlan } from '../core/lab';
import type { Plan } from '../core/plan';
import { Namespaces } from './namespaces';

/** A whole plan on the kernel of this machine. */

export interface LaidNetwork {
  readonly net: Namespaces;
  /** End devices that have an address and a cable, by device id. */
  readonly hosts: LaidPlan['ends'];
  /** The boxes that route. */
  readonly routers: readonly string[];
}

/** Makes the network. The caller closes it. */
export function layNetwork(plan: Plan, today: string | null, ports: readonly number[]): LaidNetwork {
  const net = new Namespaces();
  try {
    const { hosts, cables, ends, routers } = laidPlan(plan, today, ports);
    for (const host of hosts) {
      net.add(host.id);
      net.exec(host.id, 'sh', ['-c', kernelSettings(host).join('; ')]);
    }
    for (const { from, to } of cables) net.cable(from.host, from.name, to.host, to.name);
    for (const { id, links } of hosts) net.batch(id, links);
    for (const { id, routes } of hosts) net.batch(id, routes, true);
    for (const { id, rules } of hosts) if (rules !== '') net.exec(id, 'nft', ['-f', '-'], rules);
    return { net, hosts: ends, routers };
  } catch (error) {
    net.close();
    throw error;
  }
}
