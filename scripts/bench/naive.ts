import { contains, overlaps, inRange } from '../../src/core/address';
import { nameProblem } from '../../src/core/model/hosts';
import type { Plan, Port } from '../../src/core/plan';

/**
 * The straightforward way: every pair of subnets, within each subnet every pair of addresses, every pair of MAC
 * addresses and of names. It finds less than the checks do; it is here to be compared in time.
 */
export function naiveFindings(plan: Plan): number {
  let found = 0;
  const subnets = [...plan.subnet.values()];
  const addresses = [...plan.address.values()];
  const interfaces = [...plan.interface.values()];
  const devices = [...plan.device.values()];
  const pools = [...plan.pool.values()];
  for (let i = 0; i < subnets.length; i++)
    for (let j = i + 1; j < subnets.length; j++)
      if (overlaps(subnets[i]!.prefix, subnets[j]!.prefix)) found++;
  for (const subnet of subnets) {
    const own = addresses.filter((address) => address.subnet === subnet.id);
    for (let i = 0; i < own.length; i++) {
      if (!contains(subnet.prefix, own[i]!.address)) found++;
      for (let j = i + 1; j < own.length; j++) if (own[i]!.address === own[j]!.address) found++;
      if (pools.some((pool) => pool.subnet === subnet.id && inRange(pool, own[i]!.address))) found++;
    }
  }
  for (const device of devices) if (nameProblem(device.name)) found++;
  for (let i = 0; i < interfaces.length; i++)
    for (let j = i + 1; j < interfaces.length; j++)
      if (interfaces[i]!.mac !== null && interfaces[i]!.mac === interfaces[j]!.mac) found++;
  for (let i = 0; i < devices.length; i++)
    for (let j = i + 1; j < devices.length; j++) if (devices[i]!.name === devices[j]!.name) found++;
  return found;
}

/** The straightforward reach: a queue of frames, and at each box every port asked from its record. */
export function naiveReach(plan: Plan): number {
  let reached = 0;
  const cables = [...plan.cable.values()];
  const far = new Map<string, string>();
  for (const { from, to } of cables) far.set(from, to).set(to, from);
  for (const vlan of plan.vlan.values()) {
    const carries = (port: Port) => port.untagged === vlan.id || port.tagged.includes(vlan.id);
    const left = new Set(
      [...plan.port.values()].filter((port) => port.role === 'access' && port.untagged === vlan.id),
    );
    while (left.size > 0) {
      const [start] = left;
      const seen = new Set<string>();
      const queue = [start!.device];
      for (let device = queue.pop(); device !== undefined; device = queue.pop()) {
        if (seen.has(device)) continue;
        seen.add(device);
        for (const port of plan.port.group(device).values()) {
          if (!carries(port)) continue;
          left.delete(port);
          reached++;
          const other = plan.port.get(far.get(port.id) ?? '');
          if (other && carries(other)) queue.push(other.device);
        }
      }
    }
  }
  return reached;
}
