import fc from 'fast-check';
import { type Plan, withRecord, type Port, type StpPort } from '../../plan';
import { probeFrames } from '../../testing/frames';
import { type Made, type MadeLink, PORTS_OF_SWITCH, portAt, switches } from '../../testing/switches';
import { configurationDigest } from './digest';
import { treesOf } from './forwarding';
import { formatVids, parseVids } from './ranges';
import { factoryStpPort } from './settings';
import type { Grown } from './growing';
import { moreThan, runs } from '../../testing/runs';

const triangle: MadeLink[] = [
  ['a', 1, 'b', 1],
  ['b', 2, 'c', 1],
  ['c', 2, 'a', 2],
];

const treeOf = (plan: Plan, kind: Grown['kind'], number = 0): Grown =>
  treesOf(plan).grown.find((grown) => grown.kind === kind && grown.number === number)!;

/** Roles by port, as `a1 root`. */
const roles = (grown: Grown): Record<string, string> =>
  Object.fromEntries(grown.ports.map(({ ports }, end) => [ports[0]!, grown.tree.roles[end]!]));

/** The VLANs that do not pass at a port; `all`, or their ids. */
function stopped(plan: Plan, box: string, port: number): string {
  const set = treesOf(plan).blocked.get(portAt(box, port));
  return !set
    ? ''
    : set.except
      ? `all${set.vids.size ? ` but ${formatVids(set.vids)}` : ''}`
      : formatVids(set.vids);
}

const withStpPort = (plan: Plan, port: string, set: Partial<StpPort>): Plan =>
  withRecord(plan, 'stpPort', `s${port}`, { ...factoryStpPort, id: `s${port}`, port, instance: 0, ...set });
const withPort = (plan: Plan, id: string, set: Partial<Port>): Plan =>
  withRecord(plan, 'port', id, { ...plan.port.get(id)!, ...set });

test('digests of VLAN maps are those of the standard', () => {
  const all = (instance: (vid: number) => number) =>
    configurationDigest(new Map(Array.from({ length: 4094 }, (_, i) => [i + 1, instance(i + 1)])));
  expect(configurationDigest(new Map())).toBe('AC36177F50283CD4B83821D8AB26DE62');
  expect(all(() => 1)).toBe('E13A80F11ED0856ACD4EE3476941C73B');
  expect(all((vid) => (vid % 32) + 1)).toBe('9D145C267DBE9FB5D893441BE3BA08CE');
});

test('VLAN ids as text are read back as the same set, and nonsense is not', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 4094 })), (vids) => {
      expect([...parseVids(formatVids(vids))!]).toEqual([...vids].sort((a, b) => a - b));
    }),
  );
  for (const text of ['0', '4095', '20-10', '1-', 'a', '1;2']) expect(parseVids(text)).toBeNull();
});

describe('the common tree', () => {
  test('a triangle is opened at the box with the highest identifier', () => {
    const plan = switches({ a: {}, b: {}, c: {} }, triangle);
    expect(roles(treeOf(plan, 'common'))).toEqual({
      ap1: 'designated',
      ap2: 'designated',
      bp1: 'root',
      bp2: 'designated',
      cp1: 'alternate',
      cp2: 'root',
    });
    expect(stopped(plan, 'c', 1)).toBe('all');
    expect(probeFrames(plan, 'b', 10, 'c')).toEqual(['b', 'a', 'c']);
  });

  test('the priority comes before the MAC address, and counts in steps of 4096', () => {
    const low = switches({ a: {}, b: { bridge: { priority: 28_672 } }, c: {} }, triangle);
    expect(stopped(low, 'c', 2)).toBe('all');
    // 32,000 is no multiple: its upper four bits are those of 28,672.
    expect(stopped(switches({ a: {}, b: { bridge: { priority: 32_000 } }, c: {} }, triangle), 'c', 2)).toBe(
      'all',
    );
  });

  test('a slow link is blocked instead of the one with the highest identifier', () => {
    let plan = switches({ a: {}, b: {}, c: {} }, triangle);
    for (const id of ['ap1', 'bp1']) plan = withPort(plan, id, { speed: 10 });
    expect(stopped(plan, 'b', 1)).toBe('all');
    expect(stopped(withStpPort(plan, 'bp1', { cost: 1 }), 'c', 1)).toBe('all');
  });

  test('of two links between the same boxes the second is blocked, unless they are bundled', () => {
    const pair: MadeLink[] = [
      ['a', 1, 'b', 5],
      ['a', 2, 'b', 4],
    ];
    const plan = switches({ a: {}, b: {} }, pair);
    expect(stopped(plan, 'b', 4)).toBe('all');
    let bundled = plan;
    for (const [name, numbers] of [
      ['a', [1, 2]],
      ['b', [4, 5]],
    ] as const) {
      bundled = withRecord(bundled, 'lag', `g${name}`, {
        id: `g${name}`,
        device: name,
        name: 'g',
        lacp: true,
      });
      for (const number of numbers) bundled = withPort(bundled, portAt(name, number), { lag: `g${name}` });
    }
    expect(treesOf(bundled).blocked.size).toBe(0);
    expect(treeOf(bundled, 'common').ports.map(({ speed }) => speed)).toEqual([2000, 2000]);
  });

  test('a box without spanning tree that passes its messages joins two ports of one box: one is a backup', () => {
    const plain: Made = { box: { vlanAware: false, spanningTree: 'none', passes: ['bpdu'] } };
    const links: MadeLink[] = [
      ['a', 1, 'p', 1],
      ['a', 2, 'p', 2],
      ['b', 1, 'p', 3],
    ];
    const plan = switches({ a: {}, p: plain, b: {} }, links);
    expect(roles(treeOf(plan, 'common'))).toEqual({ ap1: 'designated', ap2: 'backup', bp1: 'root' });
    // One that swallows them leaves the loop as it is.
    const deaf = switches({ a: {}, p: { box: { ...plain.box, passes: [] } }, b: {} }, links);
    expect(treesOf(deaf).blocked.size).toBe(0);
  });

  test('guards: root keeps a port from leading to the root, bpdu switches it off, filter makes it deaf', () => {
    const plan = switches({ a: {}, b: {}, c: {} }, triangle);
    expect(roles(treeOf(withStpPort(plan, 'cp2', { guard: 'root' }), 'common'))).toMatchObject({
      cp1: 'root',
      cp2: 'alternate',
    });
    const shut = withStpPort(plan, 'cp2', { guard: 'bpdu' });
    expect([...treesOf(shut).shut]).toEqual(['cp2']);
    expect(stopped(shut, 'c', 2)).toBe('all');
    expect(stopped(shut, 'c', 1)).toBe('');
    const deaf = withStpPort(plan, 'cp2', { guard: 'filter' });
    expect(treesOf(deaf).blocked.size).toBe(0);
  });

  test('where a MAC address is missing both outcomes are known', () => {
    const plan = switches({ a: { mac: null }, b: {}, c: {} }, triangle);
    const { tree, other, ports } = treeOf(plan, 'common');
    const blockedIn = ({ roles: list }: typeof tree) =>
      ports.flatMap((p, i) => (list[i] === 'alternate' ? p.ports : []));
    expect(blockedIn(tree)).toEqual(['ap2']);
    expect(blockedIn(other!)).toEqual(['cp1']);
    const decided = switches({ a: { mac: null, bridge: { priority: 4096 } }, b: {}, c: {} }, triangle);
    expect(treeOf(decided, 'common').other).toBeNull();
  });
});

describe('MST', () => {
  const vids = { 1: { vids: '10' }, 2: { vids: '20' } };
  const mst = (region = 'yard', more: Partial<Made> = {}): Made => ({
    bridge: { mode: 'mst', region },
    instances: vids,
    ...more,
  });

  test('two instances with roots of their own use both uplinks of a box', () => {
    const plan = switches(
      {
        a: mst('yard', { instances: { 1: { vids: '10', priority: 4096 }, 2: { vids: '20' } } }),
        b: mst('yard', { instances: { 1: { vids: '10' }, 2: { vids: '20', priority: 4096 } } }),
        c: mst(),
      },
      triangle,
    );
    expect(stopped(plan, 'c', 1)).toBe('all but 20');
    expect(stopped(plan, 'c', 2)).toBe('20');
    expect(probeFrames(plan, 'c', 10, 'a')).toEqual(['c', 'a']);
    expect(probeFrames(plan, 'c', 20, 'a')).toEqual(['c', 'b', 'a']);
  });

  test('a region is one bridge to the outside: its instances end at its edge and do there as the common tree', () => {
    const square: MadeLink[] = [
      ['r', 1, 'a', 1],
      ['r', 2, 'b', 1],
      ['a', 2, 'b', 2],
      ['a', 3, 'c', 1],
      ['b', 3, 'c', 2],
    ];
    const plan = switches({ r: { bridge: { priority: 4096 } }, a: mst(), b: mst(), c: mst() }, square);
    const common = treeOf(plan, 'common');
    // b gets to the root outside by the region’s root a, as the cost inside does not count against that outside.
    expect(roles(common)).toMatchObject({ ap1: 'root', bp1: 'alternate', bp2: 'root', rp1: 'designated' });
    const inside = treeOf(plan, 'instance', 1);
    expect(Object.keys(roles(inside)).sort()).toEqual(['ap2', 'ap3', 'bp2', 'bp3', 'cp1', 'cp2']);
    // What leads out of the region has the role of the common tree, and the way to the root outside is the master port.
    expect(inside.edge.map(({ port, role }) => `${port.ports[0]} ${role}`)).toEqual([
      'ap1 master',
      'bp1 alternate',
    ]);
    expect(stopped(plan, 'b', 1)).toBe('all');
    expect(common.tree.vectors.map(({ external, internal }) => [external, internal])).toEqual([
      [0, 0],
      [20_000, 0],
      [20_000, 20_000],
      [20_000, 20_000],
    ]);
  });

  test('another name, revision or map makes another region', () => {
    const second = (change: Partial<Made>) => {
      const plan = switches({ a: mst(), b: { ...mst(), ...change } }, [['a', 1, 'b', 1]]);
      return treeOf(plan, 'common').tree.vectors[1]!.external > 0;
    };
    expect(second({})).toBe(false);
    expect(second({ bridge: { mode: 'mst', region: 'Yard' } })).toBe(true);
    expect(second({ bridge: { mode: 'mst', region: 'yard', revision: 1 } })).toBe(true);
    expect(second({ instances: { 1: { vids: '10-20' } } })).toBe(true);
  });
});

describe('RSTP per VLAN', () => {
  const each = (instances: Made['instances'] = {}): Made => ({
    bridge: { mode: 'rstp-per-vlan' },
    instances,
  });

  test('each VLAN has the tree of its own priorities, over the ports that are members', () => {
    const plan = switches(
      { a: each({ 10: { priority: 4096 } }), b: each({ 20: { priority: 4096 } }), c: each() },
      triangle,
    );
    expect(stopped(plan, 'c', 1)).toBe('1,10');
    expect(stopped(plan, 'c', 2)).toBe('20');
    const pruned = withPort(plan, 'bp1', { taggedMode: 'list', tagged: ['v20'] });
    expect(stopped(pruned, 'c', 1)).toBe('1');
  });

  test('its messages pass a box with one tree like data, in so far as that forwards', () => {
    const plan = switches({ a: each(), b: {}, c: each() }, [
      ['a', 1, 'b', 1],
      ['b', 2, 'c', 1],
      ['a', 2, 'c', 2],
    ]);
    expect(roles(treeOf(plan, 'vlan', 10))).toEqual({
      ap1: 'designated',
      ap2: 'designated',
      // The box between counts for nothing: both ways cost the same, and port 1 of a is the lower one.
      cp1: 'root',
      cp2: 'alternate',
    });
  });
});

test('a tree shared by VLANs is the one that each would grow alone', () => {
  const names = ['a', 'b', 'c', 'd'];
  const laid: MadeLink[] = [...triangle, ['c', 3, 'd', 1], ['d', 2, 'a', 3]];
  const drawn = fc.record({
    modes: fc.array(fc.constantFrom('rstp-per-vlan', 'rstp-per-vlan', 'rstp', 'none'), {
      minLength: 4,
      maxLength: 4,
    }),
    pruned: fc.array(fc.tuple(fc.nat(laid.length - 1), fc.boolean(), fc.subarray(['v10', 'v20'])), {
      maxLength: 5,
    }),
  });
  let shared = 0;
  fc.assert(
    fc.property(drawn, ({ modes, pruned }) => {
      let plan = switches(
        Object.fromEntries(names.map((name, i): [string, Made] => [name, { bridge: { mode: modes[i] } }])),
        laid,
      );
      for (const [at, near, tagged] of pruned) {
        const [a, from, b, to] = laid[at]!;
        plan = withPort(plan, near ? portAt(a, from) : portAt(b, to), { taggedMode: 'list', tagged });
      }
      const trees = treesOf(plan).grown.filter(({ kind }) => kind === 'vlan');
      if (new Set(trees.map(({ tree }) => tree)).size < trees.length) shared++;
      for (const { number } of trees) {
        // Settings for one VLAN that say what is usual change nothing but that its tree is grown by itself.
        const alone = withStpPort(plan, portAt('a', 1), { instance: number });
        expect(treeOf(plan, 'vlan', number)).toEqual(treeOf(alone, 'vlan', number));
      }
    }),
    { numRuns: runs(100) },
  );
  expect(shared).toBeGreaterThan(moreThan(20));
});

describe('rings', () => {
  const inRing = (ringPorts: number[], name: string, more: object = {}): Made => ({
    bridge: { mode: 'ring', ringPorts: ringPorts.map((n) => portAt(name, n)), recovery: 200, ...more },
  });
  const ring = (manager: object = { ringManager: true }) =>
    switches({ a: inRing([1, 2], 'a', manager), b: inRing([1, 2], 'b'), c: inRing([1, 2], 'c') }, triangle);

  test('the manager keeps its second port from passing anything while the ring is whole', () => {
    expect(stopped(ring(), 'a', 2)).toBe('all');
    expect(treesOf(ring()).rings[0]).toMatchObject({ broken: null, recovery: 200 });
    const cut = withPort(ring(), 'cp1', { enabled: false });
    expect(treesOf(cut).blocked.size).toBe(0);
    expect(treesOf(cut).rings[0]!.broken).toMatchObject({ why: 'its ring port is off' });
    expect(probeFrames(cut, 'b', 10, 'c')).toEqual(['b', 'a', 'c']);
  });

  test('without a manager nothing opens it', () => {
    expect(treesOf(ring({})).blocked.size).toBe(0);
  });
});

test('in every drawn network frames go round nowhere, and get wherever a cable leads', () => {
  const drawn = fc.record({
    modes: fc.array(fc.constantFrom('rstp', 'mst', 'rstp-per-vlan'), { minLength: 2, maxLength: 6 }),
    links: fc.uniqueArray(fc.tuple(fc.nat(5), fc.nat(5)), { minLength: 1, maxLength: 9 }),
  });
  let rounds = 0;
  fc.assert(
    fc.property(drawn, ({ modes, links }) => {
      const names = modes.map((_, i) => `b${i}`);
      const used = names.map(() => 0);
      const laid = links.flatMap(([x, y]): MadeLink[] => {
        const [a, b] = [x % names.length, y % names.length];
        if (a === b || used[a] === PORTS_OF_SWITCH || used[b] === PORTS_OF_SWITCH) return [];
        return [[names[a]!, ++used[a]!, names[b]!, ++used[b]!]];
      });
      const plan = switches(
        Object.fromEntries(
          modes.map((mode, i): [string, Made] => [
            names[i]!,
            { bridge: { mode, region: 'yard' }, instances: mode === 'mst' ? { 1: { vids: '10' } } : {} },
          ]),
        ),
        laid,
      );
      const { blocked } = treesOf(plan);
      for (const vid of [1, 10, 20]) {
        const passes = (id: string) => {
          const set = blocked.get(id);
          return !set || set.vids.has(vid) === set.except;
        };
        const parts = names.map((_, i) => i);
        const root = (at: number): number => (parts[at] === at ? at : root(parts[at]!));
        const wired = names.map((_, i) => i);
        const wiredRoot = (at: number): number => (wired[at] === at ? at : wiredRoot(wired[at]!));
        for (const [a, from, b, to] of laid) {
          const [x, y] = [names.indexOf(a), names.indexOf(b)];
          wired[wiredRoot(y)] = wiredRoot(x);
          if (!passes(portAt(a, from)) || !passes(portAt(b, to))) {
            rounds++;
            continue;
          }
          expect(root(x)).not.toBe(root(y));
          parts[root(y)] = root(x);
        }
        for (const x of parts.keys())
          for (const y of parts.keys()) expect(root(x) === root(y)).toBe(wiredRoot(x) === wiredRoot(y));
      }
    }),
    { numRuns: runs(300) },
  );
  expect(rounds).toBeGreaterThan(moreThan(200));
});
