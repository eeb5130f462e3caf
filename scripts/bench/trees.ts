import { type Plan, planOf, type BridgeRecord, type Instance, tableNames } from '../../src/core/plan';
import { questionFields } from '../../src/core/rehearse';
import {
  type Topology,
  formatVids,
  factoryBridge,
  rootPathVector,
  designatedVector,
  type Vector,
  compareVectors,
} from '../../src/core/model/tree';
import { largePolicy } from './policy';

/**
 * The site of the policy bench with `switches` switches and `links` links between them, all in one MST region of `instances`
 * instances whose roots are spread over the first ten switches; twenty questions are kept.
 */
export function largeTrees(
  switches: number,
  zones: number,
  instances: number,
  endpoints: number,
  links: number,
): Plan {
  const base = largePolicy(zones, endpoints, 1000, switches);
  const lists = Object.fromEntries(
    tableNames.map((table) => [table, [...base[table].values()]]),
  ) as unknown as Record<string, object[]>;
  const every = [...base.vlan.values()].map(({ id }) => id).sort();
  const trunk = {
    role: 'trunk' as const,
    pvid: null,
    untagged: null,
    tagged: every,
    accepts: 'tagged' as const,
  };
  const changed = new Map<string, object>();
  const free = Array.from({ length: switches }, (_, s) =>
    [...base.port.group(`s${s}`).values()].filter(({ role, number }) => role === 'parked' && number > 0),
  );
  let laid = [...base.cable.values()].filter(({ to }) => to.startsWith('s')).length;
  for (let step = 1; laid < links; step++)
    for (let s = 0; s < switches && laid < links; s++) {
      const other = (s + step * 7) % switches;
      const [a, b] = [free[s]!.pop(), free[other]!.pop()];
      if (!a || !b) continue;
      for (const port of [a, b]) changed.set(port.id, { ...port, ...trunk });
      lists.cable!.push({
        id: `t${laid}`,
        from: a.id,
        fromSide: 'front',
        to: b.id,
        toSide: 'front',
        media: 'copper',
        length: null,
        label: '',
      });
      laid++;
    }
  lists.port = lists.port!.map((port) => changed.get((port as { id: string }).id) ?? port);
  lists.port = lists.port.map((port) => {
    const item = port as { number: number; device: string };
    return item.number === 0 && item.device.startsWith('s') ? { ...port, ...trunk } : port;
  });
  const hex = (n: number) => n.toString(16).toUpperCase().padStart(2, '0');
  lists.box = lists.box!.map((box) => {
    const s = Number((box as { device: string }).device.slice(1));
    return Number.isNaN(s)
      ? box
      : { ...box, spanningTree: 'mst', baseMac: `02:00:5E:00:${hex((s * 37) % 251)}:${hex(s)}` };
  });
  const vids = [...base.vlan.values()].map(({ vid }) => vid);
  const map = Array.from({ length: instances }, (_, i) =>
    formatVids(vids.filter((vid) => vid % instances === i)),
  );
  for (let s = 0; s < switches; s++) {
    const bridge: BridgeRecord = {
      ...factoryBridge('mst'),
      id: `b${s}`,
      device: `s${s}`,
      region: 'plant',
      priority: s === 0 ? 4096 : s === 1 ? 8192 : 32_768,
    };
    lists.bridge!.push(bridge);
    map.forEach((text, i) => {
      const instance: Instance = {
        id: `in${s}x${i}`,
        device: `s${s}`,
        number: i + 1,
        vids: text,
        priority: i % 10 === s ? 4096 : 32_768,
      };
      lists.instance!.push(instance);
    });
  }
  for (let q = 0; q < 20; q++)
    lists.question!.push({
      ...questionFields({
        from: { device: `e${q * 211}` },
        to: { device: `e${q * 97 + 5}` },
        wanted: { protocol: 'tcp', port: 443 },
      }),
      id: `q${q}`,
      rank: `a${String(q).padStart(3, '0')}x`,
      expected: 'delivered',
      why: '',
    });
  return planOf(lists as never);
}

/** The straightforward tree: every port asks its neighbour again and again until a round changes nothing. */
export function naiveTree(topology: Topology): number {
  const { order, ends, lans } = topology;
  const vectors: Vector[] = order.map((own) => ({
    root: own,
    external: 0,
    regional: own,
    internal: 0,
    bridge: own,
    port: 0,
    received: 0,
  }));
  let rounds = 0;
  for (let changed = true; changed; rounds++) {
    changed = false;
    ends.forEach((end, to) => {
      for (const from of lans[end.lan]!) {
        const sender = ends[from]!.bridge;
        if (from === to || sender === end.bridge) continue;
        const candidate = rootPathVector(topology, designatedVector(topology, vectors, from), sender, to);
        if (compareVectors(candidate, vectors[end.bridge]!) >= 0) continue;
        vectors[end.bridge] = candidate;
        changed = true;
      }
    });
  }
  return rounds;
}
