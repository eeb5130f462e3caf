import { hasLoop, fabric, atRisk } from '../../../model/switching';
import { boxOf, groupBy, type Plan, withRecord, portTitle } from '../../../plan';
import { type Grown, treesOf, formatVids, regionOf, stpPortRecordsOf, vlanMapOf } from '../../../model/tree';
import { onDevice, onPort } from '../refs';
import { andCarry, commonOf, deviceAt, treeCheck } from './shared';

/** Settings of trees and rings that contradict the standard, each other, or the cables. */

const prioritySteps = treeCheck('tree-priority', function* (plan) {
  for (const { id, device, priority } of plan.bridge.values()) {
    if (priority % 4096 === 0) continue;
    const name = plan.device.get(device)!.name;
    yield {
      severity: 'fix',
      on: { table: 'bridge', id },
      also: [onDevice(device)],
      what: `${name} has a priority that is no step`,
      because: `${priority} is no multiple of 4096; a box refuses it or takes ${priority - (priority % 4096)} (IEEE 802.1Q clause 13.26.3).`,
      remedies: [
        {
          label: `Make it ${priority - (priority % 4096)}`,
          operation: 'edit',
          input: {
            table: 'bridge',
            id,
            set: { priority: priority - (priority % 4096) },
            seen: { priority },
          },
        },
      ],
    };
  }
});

const timers = treeCheck('tree-timers', function* (plan) {
  for (const { id, device, hello, maxAge, forwardDelay } of plan.bridge.values()) {
    const wrong = [
      ...(2 * (forwardDelay - 1) >= maxAge
        ? []
        : [
            `2 × (forward delay ${forwardDelay} − 1) = ${2 * (forwardDelay - 1)} is less than max age ${maxAge}`,
          ]),
      ...(maxAge >= 2 * (hello + 1)
        ? []
        : [`max age ${maxAge} is less than 2 × (hello ${hello} + 1) = ${2 * (hello + 1)}`]),
    ];
    if (wrong.length === 0) continue;
    const fits = {
      hello: Math.min(hello, 2),
      forwardDelay: Math.max(forwardDelay, Math.ceil(maxAge / 2) + 1),
    };
    yield {
      severity: 'fix',
      on: { table: 'bridge', id },
      also: [onDevice(device)],
      what: `The timers of ${plan.device.get(device)!.name} do not fit together`,
      because: `${wrong.join(', and ')}: information would outlive or outrun the changes it reports.`,
      remedies: [
        {
          label: `Hello ${fits.hello}, max age ${maxAge}, forward delay ${fits.forwardDelay}`,
          operation: 'setBridge',
          input: { devices: [device], set: { ...fits, maxAge } },
        },
      ],
    };
  }
});

const mixedScales = treeCheck('tree-cost-scales', function* (plan) {
  const grown = commonOf(plan);
  if (!grown) return;
  const { settings } = treesOf(plan);
  const parts = new Map<number, number[]>();
  grown.tree.vectors.forEach(({ root }, bridge) => parts.set(root, [...(parts.get(root) ?? []), bridge]));
  for (const part of parts.values()) {
    const short = part.filter((bridge) => settings[grown.places[bridge]!]!.costScale === 'short');
    if (short.length === 0 || short.length === part.length) continue;
    const devices = short.map((bridge) => deviceAt(plan, grown, bridge)).sort();
    const names = devices.map((id) => plan.device.get(id)!.name).join(', ');
    yield {
      severity: 'fix',
      on: onDevice(devices[0]!),
      also: devices.slice(1).map(onDevice),
      what: 'Path costs of two scales are mixed',
      because: `${names} ${devices.length === 1 ? 'counts' : 'count'} by the short values (1 Gbit/s = 4), the other ${part.length - short.length} by the long ones (20,000): ways through the former look five thousand times better.`,
      remedies: [
        {
          label: `Long values at ${names}${andCarry(atRisk(plan))}`,
          operation: 'setBridge',
          input: { devices, set: { costScale: 'long' }, carry: atRisk(plan) },
        },
      ],
    };
  }
});

/** What two regions differ in, by name. */
function differences(plan: Plan, a: string, b: string): string[] {
  const [one, two] = [a, b].map((id) => regionOf(plan, boxOf(plan, id)!));
  const named = (name: string) => (name.startsWith('(') ? 'no name' : `“${name}”`);
  const found: string[] = [];
  if (one!.name !== two!.name) found.push(`the name, ${named(one!.name)} and ${named(two!.name)}`);
  if (one!.revision !== two!.revision) found.push(`the revision, ${one!.revision} and ${two!.revision}`);
  if (one!.digest !== two!.digest) {
    const [x, y] = [vlanMapOf(plan, a), vlanMapOf(plan, b)];
    const vids = [...new Set([...x.keys(), ...y.keys()])].filter(
      (vid) => (x.get(vid) ?? 0) !== (y.get(vid) ?? 0),
    );
    found.push(`the instance of VLAN ${formatVids(vids).replaceAll(',', ', ')}`);
  }
  return found;
}

/** Whoever shares a network with another, and with all who share one with that. */
function hangingTogether(lans: readonly (readonly number[])[]): number[][] {
  const besides = groupBy(
    lans.flatMap((lan) => lan.map((bridge) => ({ bridge, lan }))),
    ({ bridge }) => bridge,
  );
  const seen = new Set<number>();
  const from = (start: number): number[] => {
    const group = [start];
    for (const bridge of group) {
      if (seen.has(bridge)) continue;
      seen.add(bridge);
      group.push(...besides.get(bridge)!.flatMap(({ lan }) => lan));
    }
    return [...new Set(group)];
  };
  return [...besides.keys()].flatMap((start) => (seen.has(start) ? [] : [from(start)]));
}

/** Boxes that run MST and are joined without others between them, by region, the largest first. */
function regionsJoined(plan: Plan, grown: Grown): string[][][] {
  const { settings } = treesOf(plan);
  const { topology, places } = grown;
  const lans = topology.lans
    .map((lan) =>
      lan
        .map((end) => topology.ends[end]!.bridge)
        .filter((bridge) => settings[places[bridge]!]!.mode === 'mst'),
    )
    .filter((lan) => lan.length > 1);
  return hangingTogether(lans).map((group) => {
    const regions = groupBy(group, (bridge) => String(topology.region[bridge]));
    return [...regions.values()]
      .map((bridges) => bridges.map((bridge) => deviceAt(plan, grown, bridge)).sort())
      .sort((a, b) => b.length - a.length || (a[0]! < b[0]! ? -1 : 1));
  });
}

const regionMismatch = treeCheck('mst-region', function* (plan) {
  const grown = commonOf(plan);
  if (!grown) return;
  const { topology, tree } = grown;
  for (const [main, ...others] of regionsJoined(plan, grown))
    for (const region of others) {
      const [a, b] = [main![0]!, region[0]!];
      const names = region.map((id) => plan.device.get(id)!.name).join(', ');
      const inside = (end: number) => region.includes(deviceAt(plan, grown, topology.ends[end]!.bridge));
      // Of the common tree the root is elsewhere, and one port leads there.
      const master = topology.lans.some((lan) =>
        lan.some(
          (end) => inside(end) && tree.rootEnds[topology.ends[end]!.bridge] === end && !lan.every(inside),
        ),
      );
      yield {
        severity: 'fix',
        on: onDevice(b),
        also: [...region.slice(1), ...main!].map(onDevice),
        what: `${names} ${region.length === 1 ? 'is' : 'are'} not in the MST region of ${plan.device.get(a)!.name}`,
        because: `They differ in ${differences(plan, a, b).join(', and in ')}. Between them all VLANs follow the common tree${master ? ', by a master port in the middle of what was meant to be one region' : ''}, and instances balance nothing.`,
        remedies: [
          {
            label: `Give ${names} the region of ${plan.device.get(a)!.name}${andCarry(atRisk(plan))}`,
            operation: 'likeRegionOf',
            input: { from: a, devices: region, carry: atRisk(plan) },
          },
        ],
      };
    }
});

const edgeAtSwitch = treeCheck('edge-at-switch', function* (plan) {
  const { settings } = treesOf(plan);
  const { bridges, seats, links } = fabric(plan);
  for (const { id, port: portId, instance, edge } of plan.stpPort.values()) {
    const seat = seats.get(portId);
    if (!edge || instance !== 0 || !seat || settings[seat.bridge]!.mode === 'none') continue;
    const far = (links.get(portId) ?? []).map(({ to }) => seats.get(to)).find((other) => other !== undefined);
    if (!far) continue;
    const title = portTitle(plan, plan.port.get(portId)!);
    const other = plan.device.get(bridges[far.bridge]!.device)!.name;
    yield {
      severity: 'fix',
      on: { table: 'stpPort', id },
      also: [onPort(portId)],
      what: `${title} is an edge port and leads to ${other}`,
      because:
        'An edge port forwards at once: until the first message is heard there is a loop, at every restart.',
      remedies: [
        {
          label: `${title}: no edge port`,
          operation: 'setStpPort',
          input: { ports: [portId], set: { edge: false } },
        },
      ],
    };
  }
});

const guardShut = treeCheck('guard-shut', function* (plan) {
  for (const id of treesOf(plan).shut) {
    const record = stpPortRecordsOf(plan, id).find(({ instance }) => instance === 0)!;
    const title = portTitle(plan, plan.port.get(id)!);
    const carry = atRisk(plan);
    // Where no tree would open the loop, the guard is all that does.
    const without = withRecord(plan, 'stpPort', record.id, { ...record, guard: 'none', edge: false });
    yield {
      severity: 'stop',
      on: { table: 'stpPort', id: record.id },
      also: [onPort(id)],
      what: `${title} switches itself off`,
      because: 'Its BPDU guard hears the box at the other end as soon as that is plugged in.',
      remedies: hasLoop(without)
        ? []
        : [
            {
              label: `${title}: no guard${andCarry(carry)}`,
              operation: 'setStpPort',
              input: { ports: [id], set: { guard: 'none', edge: false }, carry },
            },
          ],
    };
  }
});

export const settingChecks = [prioritySteps, timers, mixedScales, regionMismatch, edgeAtSwitch, guardShut];
