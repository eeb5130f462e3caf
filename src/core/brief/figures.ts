import { type Plan, type Progress, type Work, boxOf, groupBy } from '../plan';
import { passing, zoneOfVlan } from '../model/policy';
import { isPassive, powerOf, wiredPorts, linksAt } from '../model/wiring';
import { assumedSeconds } from '../commission';
import { type Fault, outOfTouch } from '../rehearse';
import { groupsOf } from './gather';
import type { Proposal } from './propose';

/** What a proposal costs and what it is good for, so that one can be held against another. */
export interface Figures {
  readonly boxes: number;
  /** Of them out of what is at hand. */
  readonly atHand: number;
  readonly ports: number;
  readonly portsUsed: number;
  /** Reserved for what is powered over the network. */
  readonly watts: number;
  /** Directions between two groups of the brief in which not everything passes, and all there are. */
  readonly apart: number;
  readonly pairs: number;
  readonly wishes: number;
  readonly wishesKept: number;
  /** Hours on site, by what each box and each plug takes. */
  readonly hours: number;
}

/** What happens when one box or one cable between boxes fails; found by rehearsing each. */
export interface Weakness {
  /** Boxes and cables whose failure cuts off more than what is plugged into them. */
  readonly points: number;
  readonly tried: number;
  /** The failure that cuts off most. */
  readonly worst: { readonly what: string; readonly cutOff: number; readonly of: number } | null;
}

export function figuresOf({ plan, brief, hardware, unmet }: Proposal): Figures {
  const boxes = [...plan.box.values()].filter(({ device }) => !isPassive(plan.device.get(device)!.kind));
  const ports = boxes.flatMap(({ device }) => wiredPorts(plan, device).filter(({ number }) => number > 0));
  const used = ports.filter((port) => port.role === 'uplink' || linksAt(plan, port).length > 0);
  const watts = boxes.reduce((sum, { device }) => sum + powerOf(plan, device).reserved, 0);
  const { apart, pairs } = apartIn(plan, brief);
  const atHand = [...hardware.switches, ...hardware.accessPoints, hardware.gateway].filter(
    (one) => one.atHand,
  );
  return {
    boxes: boxes.length,
    atHand: atHand.length,
    ports: ports.length,
    portsUsed: used.length,
    watts: Math.round(watts),
    apart,
    pairs,
    wishes: brief.wishes.length,
    wishesKept: brief.wishes.length - unmet.length,
    hours: hoursFor(
      plan,
      boxes.map(({ device }) => device),
    ),
  };
}

/** Directions between groups in which something is stopped; groups as VLANs would tell them apart. */
function apartIn(plan: Plan, brief: Proposal['brief']): { readonly apart: number; readonly pairs: number } {
  const groups = groupsOf(brief.site, brief.needs, { ...brief.choice, separation: 'vlans' });
  const pairs = groups.length * (groups.length - 1);
  if (brief.choice.separation === 'flat') return { apart: 0, pairs };
  const vlans = [...plan.vlan.values()].filter(
    ({ purpose }) => purpose !== 'management' && purpose !== 'parking' && purpose !== 'transit',
  );
  const stops = (from: string, to: string): boolean => {
    const [a, b] = [zoneOfVlan(plan, from), zoneOfVlan(plan, to)];
    return !a || !b || passing(plan, a, b).decision !== 'allow';
  };
  const apart = vlans.flatMap((a) => vlans.filter((b) => a !== b && stops(a.id, b.id))).length;
  return { apart, pairs: Math.max(pairs, vlans.length * (vlans.length - 1)) };
}

/** Sitting down, starting, pages, saving and plugs, as long as they usually take. */
function hoursFor(plan: Plan, devices: readonly string[]): number {
  const { sit, starts, look, page, save, plug, anotherPort } = assumedSeconds;
  const settings = devices.reduce((sum, device) => {
    const box = boxOf(plan, device);
    if (!box?.vlanAware) return sum;
    const ports = wiredPorts(plan, device).filter(({ number }) => number > 0);
    const alike = groupBy(ports, ({ role, pvid, tagged }) => `${role} ${pvid} ${tagged.join(' ')}`);
    const vlans = new Set(ports.flatMap(({ pvid, tagged }) => [pvid ?? '', ...tagged]));
    const pages = alike.size + vlans.size + 2;
    return sum + sit + starts + look + save + pages * page + (ports.length - alike.size) * anotherPort;
  }, 0);
  return Math.round(((settings + plan.cable.size * plug) / 3600) * 10) / 10;
}

/** Tries every box and every cable between boxes without each; yields after each. */
export function* weaknessOf({ plan }: Proposal): Work<Weakness, Progress> {
  const isBox = (device: string) => boxOf(plan, device) !== undefined;
  const faults: { readonly fault: Fault; readonly what: string; readonly own: number }[] = [
    ...[...plan.box.values()].map(({ device }) => ({
      fault: { kind: 'box' as const, device },
      what: plan.device.get(device)!.name,
      own: pluggedInto(plan, device),
    })),
    ...[...plan.cable.values()]
      .filter(({ from, to }) => [from, to].every((port) => isBox(plan.port.get(port)!.device)))
      .map(({ id, from, to }) => ({
        fault: { kind: 'cable' as const, cable: id },
        what: [from, to].map((port) => plan.device.get(plan.port.get(port)!.device)!.name).join(' to '),
        own: 0,
      })),
  ];
  const of = plan.device.size - plan.box.size;
  const before = new Set(outOfTouch(plan));
  let worst: Weakness['worst'] = null;
  let points = 0;
  for (const [i, { fault, what, own }] of faults.entries()) {
    const cutOff = outOfTouch(plan, fault).filter((id) => !before.has(id) && !isBox(id)).length;
    if (cutOff > own) points++;
    if (cutOff > 0 && cutOff > (worst?.cutOff ?? 0)) worst = { what, cutOff, of };
    yield { done: i + 1, of: faults.length };
  }
  return { points, tried: faults.length, worst };
}

const pluggedInto = (plan: Plan, device: string): number =>
  wiredPorts(plan, device)
    .flatMap((port) => linksAt(plan, port))
    .filter(({ to }) => !boxOf(plan, plan.port.get(to)!.device)).length;
