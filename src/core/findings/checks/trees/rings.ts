import type { Plan } from '../../../plan';
import { boxesInOrder, atRisk } from '../../../model/switching';
import { treesOf } from '../../../model/tree';
import { onDevice } from '../refs';
import { andCarry, treeCheck } from './shared';

/** Rings that a manager should open. */

const deviceOf = (plan: Plan, place: number): string => boxesInOrder(plan)[place]!.device;
const name = (plan: Plan, place: number): string => plan.device.get(deviceOf(plan, place))!.name;

const ringBroken = treeCheck('ring-broken', function* (plan) {
  for (const { manager, broken } of treesOf(plan).rings)
    if (broken)
      yield {
        severity: 'stop',
        on: onDevice(deviceOf(plan, manager)),
        also: [onDevice(deviceOf(plan, broken.bridge))],
        what: `The ring of ${name(plan, manager)} is not closed`,
        because: `Followed from its first ring port it ends at ${name(plan, broken.bridge)}: ${broken.why}. The next gap cuts it in two.`,
      };
});

const ringManagers = treeCheck('ring-managers', function* (plan) {
  const carry = atRisk(plan);
  for (const { manager, others, broken } of treesOf(plan).rings)
    if (others.length > 0 && !broken)
      yield {
        severity: 'stop',
        on: onDevice(deviceOf(plan, manager)),
        also: others.map((place) => onDevice(deviceOf(plan, place))),
        what: `The ring of ${name(plan, manager)} has more than one manager`,
        because: `${[manager, ...others].map((place) => name(plan, place)).join(' and ')} each keep a port shut, so the ring falls in two.`,
        remedies: [
          {
            label: `Only ${name(plan, manager)} manages it${andCarry(carry)}`,
            operation: 'setBridge',
            input: {
              devices: others.map((place) => deviceOf(plan, place)),
              set: { ringManager: false },
              carry,
            },
          },
        ],
      };
});

const ringUnmanaged = treeCheck('ring-unmanaged', function* (plan) {
  const { rings, settings } = treesOf(plan);
  const managed = new Set(rings.flatMap(({ boxes }) => boxes));
  for (const [place, { mode, ringPorts }] of settings.entries())
    if (mode === 'ring' && ringPorts.length > 0 && !managed.has(place))
      yield {
        severity: 'stop',
        on: onDevice(deviceOf(plan, place)),
        what: `${name(plan, place)} is in a ring that nobody manages`,
        because:
          'Its ring ports run no spanning tree, and no manager is reached by them that would open the ring: a closed one is a loop.',
      };
});

export const ringChecks = [ringBroken, ringManagers, ringUnmanaged];
