import { fabric, atRisk, rootCandidates } from '../../../model/switching';
import { treesOf } from '../../../model/tree';
import { onDevice } from '../refs';
import { andCarry, commonOf, deviceAt, partsWithChoice, treeCheck } from './shared';

/** Who is root, whether anybody decided it, and who takes over. */

const rootByAccident = treeCheck('root-by-accident', function* (plan) {
  const grown = commonOf(plan);
  if (!grown) return;
  const carry = atRisk(plan);
  for (const { reasons, root, part } of partsWithChoice(plan, grown)) {
    const priorities = new Set(part.map((bridge) => grown.identifiers[bridge]!.priority));
    if (priorities.size > 1) continue;
    const [first, second] = rootCandidates(plan, fabric(plan), grown, part);
    const name = reasons.name(root);
    const better =
      first!.bridge === root
        ? `${name} would be a good root, but a new box may take it away`
        : `${reasons.name(first!.bridge)} is nearer to where the traffic goes`;
    yield {
      severity: 'fix',
      on: onDevice(deviceAt(plan, grown, root)),
      what: `${name} is root by accident`,
      because: `All ${part.length} boxes have priority ${[...priorities][0]}, so the lowest MAC address decides: ${reasons.ofRoot(root)}. ${better}.`,
      remedies: [
        {
          label: `Make ${reasons.name(first!.bridge)} the root and ${reasons.name(second!.bridge)} the one that takes over${andCarry(carry)}`,
          operation: 'placeRoots',
          input: { primary: first!.device, secondary: second!.device, carry },
        },
      ],
    };
  }
});

const rootMisplaced = treeCheck('root-misplaced', function* (plan) {
  const grown = commonOf(plan);
  if (!grown) return;
  const carry = atRisk(plan);
  for (const { reasons, root, part } of partsWithChoice(plan, grown)) {
    const priorities = new Set(part.map((bridge) => grown.identifiers[bridge]!.priority));
    if (priorities.size === 1) continue;
    const candidates = rootCandidates(plan, fabric(plan), grown, part);
    const [best, second] = candidates;
    const own = candidates.find(({ bridge }) => bridge === root)!;
    const reasonsFor = [
      ...(own.toRouter > best!.toRouter
        ? [
            `it is ${own.toRouter} links from the router and ${reasons.name(best!.bridge)} ${best!.toRouter}, so traffic takes a detour`,
          ]
        : []),
      ...(own.feeds === 1 && best!.feeds > 1
        ? [
            `it has one power feed and ${reasons.name(best!.bridge)} has ${best!.feeds}: when it fails, all links learn anew`,
          ]
        : []),
    ];
    if (reasonsFor.length === 0) continue;
    yield {
      severity: 'fix',
      on: onDevice(deviceAt(plan, grown, root)),
      what: `${reasons.name(root)} is no good root`,
      because: `${reasonsFor.join('; ').replace(/^./, (letter) => letter.toUpperCase())}.`,
      remedies: [
        {
          label: `Make ${reasons.name(best!.bridge)} the root and ${reasons.name(second!.bridge)} the one that takes over${andCarry(carry)}`,
          operation: 'placeRoots',
          input: { primary: best!.device, secondary: second!.device, carry },
        },
      ],
    };
  }
});

const secondaryMissing = treeCheck('root-secondary', function* (plan) {
  const grown = commonOf(plan);
  if (!grown) return;
  for (const { reasons, root, part } of partsWithChoice(plan, grown)) {
    const others = part.filter((bridge) => bridge !== root);
    const priorities = others.map((bridge) => grown.identifiers[bridge]!.priority);
    const lowest = Math.min(...priorities);
    if (grown.identifiers[root]!.priority >= lowest) continue;
    if (others.length < 2 || priorities.filter((value) => value === lowest).length === 1) continue;
    const [next] = rootCandidates(plan, fabric(plan), grown, others);
    // Between the root and the others, and rather a usual value than any.
    const own = grown.identifiers[root]!.priority;
    const step = own < 8192 && 8192 < lowest ? 8192 : Math.floor((lowest - 1) / 4096) * 4096;
    yield {
      severity: 'note',
      on: onDevice(deviceAt(plan, grown, root)),
      what: `Nobody is chosen to take over from ${reasons.name(root)}`,
      because: `${priorities.filter((value) => value === lowest).length} boxes share the next priority ${lowest}; should the root fail, the lowest MAC address among them decides.`,
      remedies:
        step > own
          ? [
              {
                label: `Let ${reasons.name(next!.bridge)} take over`,
                operation: 'setBridge',
                input: { devices: [next!.device], set: { priority: step } },
              },
            ]
          : [],
    };
  }
});

const hopsTooMany = treeCheck('tree-hops', function* (plan) {
  const { settings } = treesOf(plan);
  const grown = commonOf(plan);
  if (!grown) return;
  for (const { reasons, root, part } of partsWithChoice(plan, grown)) {
    const { maxAge, maxHops, mode } = settings[grown.places[root]!]!;
    const limit = mode === 'mst' ? Math.min(maxAge, maxHops) : maxAge;
    const far = part.filter((bridge) => reasons.hops(bridge) > limit);
    if (far.length === 0) continue;
    const farthest = far.reduce((a, b) => (reasons.hops(a) >= reasons.hops(b) ? a : b));
    yield {
      severity: 'stop',
      on: onDevice(deviceAt(plan, grown, root)),
      also: far.map((bridge) => onDevice(deviceAt(plan, grown, bridge))),
      what: `The tree of ${reasons.name(root)} is too deep`,
      because: `${reasons.name(farthest)} is ${reasons.hops(farthest)} links from the root, and messages live for ${limit}: ${far.length} ${far.length === 1 ? 'box hears' : 'boxes hear'} nothing of the root and open loops of their own.`,
      remedies:
        mode !== 'mst' && reasons.hops(farthest) <= 40
          ? [
              {
                label: `Let messages live for ${Math.max(reasons.hops(farthest), maxAge)}`,
                operation: 'setBridge',
                input: {
                  devices: [deviceAt(plan, grown, root)],
                  set: {
                    maxAge: reasons.hops(farthest),
                    forwardDelay: Math.ceil(reasons.hops(farthest) / 2) + 1,
                  },
                },
              },
            ]
          : [],
    };
  }
});

export const rootChecks = [rootByAccident, rootMisplaced, secondaryMissing, hopsTooMany];
