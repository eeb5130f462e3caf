import { type Plan, type Port, derive } from '../../plan';
import { linksOf, portsOf } from './wiring';

const cabled = derive((plan) => new Set([...plan.cable.values()].flatMap(({ from, to }) => [from, to])));

/** Ports on the case of a box into which nothing is plugged and that could take a plug. */
export const freePorts = (plan: Plan, device: string): Port[] =>
  portsOf(plan, device).filter(
    (port) =>
      port.number > 0 &&
      !port.defective &&
      port.role !== 'uplink' &&
      !linksOf(plan).has(port.id) &&
      !cabled(plan).has(port.id),
  );
