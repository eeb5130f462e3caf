import { type Plan, type Progress, type Work, finish, type Device } from '../plan';
import { bridgeAt, fabric } from '../model/switching';
import { workingUplinks } from '../model/uplink';
import { linksOf, portsOf, inwardPorts } from '../model/wiring';
import { type Fault, endsOfCable, singleFaultsOf, withFault } from './faults';
import { snapshotAfter, snapshotOf } from './network-snapshot';
import { compareStandings } from './what-if';

/** Every failure that can happen alone, and how much it takes away. */

export interface Ranked {
  readonly fault: Fault;
  /** Names of the end devices cut off. */
  readonly cutOff: readonly string[];
  /** Questions whose answer changes, as asked. */
  readonly answers: number;
  readonly lost: readonly string[];
  /** What would make it harmless; empty where it is. */
  readonly cure: string;
}

/** Ports of a box that are free for one more link. */
function spareAt(plan: Plan, device: string): string | null {
  const links = linksOf(plan);
  const port = portsOf(plan, device)
    .filter((item) => item.number > 0 && !links.has(item.id) && !item.defective && item.role !== 'uplink')
    .at(-1);
  return port ? `${plan.device.get(device)!.name} ${port.number}` : null;
}

/** The boxes on either side of a link that nothing goes round. */
function cureOf(plan: Plan, fault: Fault, cutOff: readonly Device[]): string {
  const others = workingUplinks(withFault(plan, fault));
  const isGateway = fault.kind === 'box' && plan.device.get(fault.device)!.kind === 'gateway';
  if (!isGateway && others.length < workingUplinks(plan).length) {
    return others.length > 0
      ? `repeat on ${others[0]!.name} what is bound to this uplink`
      : 'a second uplink, over another line and another provider';
  }
  const { bridges, seats, links } = fabric(plan);
  if (fault.kind === 'cable') {
    const boxes = endsOfCable(plan, fault.cable).flatMap((id) =>
      seats.has(id) ? [bridges[seats.get(id)!.bridge]!.device] : [],
    );
    const spare = boxes.map(
      (device) => spareAt(plan, device) ?? `a new port at ${plan.device.get(device)!.name}`,
    );
    return boxes.length === 2
      ? `a second link on another route: ${spare.join(' to ')}`
      : 'a second link on another route';
  }
  if (fault.kind !== 'box') return '';
  const at = bridgeAt(plan, fault.device);
  const name = plan.device.get(fault.device)!.name;
  if (at < 0) return `a second panel beside ${name}, with half of the links`;
  const neighbours = new Set(
    inwardPorts(fabric(plan))[at]!.flatMap((index) =>
      (links.get(bridges[at]!.ports[index]!.id) ?? []).flatMap(({ to }) => {
        const seat = seats.get(to);
        return seat && seat.bridge !== at ? [bridges[seat.bridge]!.device] : [];
      }),
    ),
  );
  const own = new Set(
    portsOf(plan, fault.device).flatMap(({ id }) =>
      (links.get(id) ?? []).flatMap(({ to }) => (seats.has(to) ? [] : [plan.port.get(to)!.device])),
    ),
  );
  const beyond = cutOff.filter(({ id }) => !own.has(id));
  if (plan.device.get(fault.device)!.kind === 'gateway')
    return `a second gateway that takes over the addresses of ${name}`;
  if (beyond.length === 0) return `a spare of ${name} ready, and what must not stop plugged into two boxes`;
  // A second way is laid between boxes that others hang on.
  const names = [...neighbours]
    .map((id) => plan.device.get(id)!)
    .filter(({ kind }) => kind === 'switch' || kind === 'layer3-switch' || kind === 'gateway')
    .map((device) => device.name)
    .sort();
  return names.length > 1
    ? `a link between ${names.slice(0, 3).join(' and ')} that does not pass ${name}`
    : `a second box beside ${name}`;
}

/**
 * Runs every single failure; yields after each, so that whoever runs it can say how far it is, or stop. Returns them ranked:
 * most devices cut off first, then most answers changed, then most services lost.
 */
export function* singleFaults(plan: Plan, today: string | null): Work<Ranked[], Progress> {
  const faults = singleFaultsOf(plan);
  const before = snapshotOf(plan, today);
  const ranked: Ranked[] = [];
  for (const [i, fault] of faults.entries()) {
    const after = snapshotAfter(plan, before, withFault(plan, fault), today);
    const { cutOff, answers, lost } = compareStandings(plan, before, after);
    const harmless = cutOff.length === 0 && answers.length === 0 && lost.length === 0;
    ranked.push({
      fault,
      cutOff: cutOff.map(({ name }) => name),
      answers: answers.length,
      lost,
      cure: harmless ? '' : cureOf(plan, fault, cutOff),
    });
    yield { done: i + 1, of: faults.length };
  }
  return ranked.sort(
    (a, b) => b.cutOff.length - a.cutOff.length || b.answers - a.answers || b.lost.length - a.lost.length,
  );
}

/** Runs to the end at once. */
export const allSingleFaults = (plan: Plan, today: string | null): Ranked[] =>
  finish(singleFaults(plan, today));
