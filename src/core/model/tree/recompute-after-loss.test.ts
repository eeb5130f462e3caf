import fc from 'fast-check';
import { type Lag, type Plan, withRecord } from '../../plan';
import { withFaults } from '../../rehearse';
import { fabricOf } from '../wiring';
import { type Made, type MadeLink, PORTS_OF_SWITCH, portAt, switches } from '../../testing/switches';
import { type Trees, growTrees } from './trees';
import { lostBetween, treesAfterLoss } from './recompute-after-loss';
import { moreThan, runs } from '../../testing/runs';

const BOXES = 6;
const drawn = fc.record({
  boxes: fc.array(
    fc.record({
      mode: fc.constantFrom('mst', 'mst', 'mst', 'rstp', 'none', 'rstp-per-vlan'),
      priority: fc.constantFrom(4096, 32_768, 32_768),
      second: fc.constantFrom(4096, 32_768, 32_768),
    }),
    { minLength: 2, maxLength: BOXES },
  ),
  links: fc.array(fc.tuple(fc.nat(BOXES - 1), fc.nat(BOXES - 1)), { minLength: 2, maxLength: 12 }),
  all: fc.boolean(),
  cables: fc.uniqueArray(fc.nat(11), { maxLength: 3 }),
  // At a box from a port on: three ports in a bundle, LACP or not.
  bundles: fc.array(fc.tuple(fc.nat(BOXES - 1), fc.nat(5), fc.boolean()), { maxLength: 5 }),
  dead: fc.option(fc.nat(BOXES - 1)),
});

const bundled = (plan: Plan, lag: Lag, numbers: readonly number[]): Plan =>
  numbers.reduce(
    (next, number) => {
      const id = portAt(lag.device, number);
      return withRecord(next, 'port', id, { ...next.port.get(id)!, lag: lag.id });
    },
    withRecord(plan, 'lag', lag.id, lag),
  );

/** What is known of each port and bridge, whatever the order in which they are counted. */
function plainly({ grown, blocked, shut }: Trees) {
  return {
    grown: grown.map(({ kind, number, places, ports, tree, topology }) => ({
      kind,
      number,
      roles: ports.map((port, end) => [port.ports.join(), tree.roles[end]]).sort(),
      vectors: places.map((place, at) => [place, tree.vectors[at]]),
      by: places.map((place, at) => [
        place,
        tree.rootEnds[at] === null ? null : ports[tree.rootEnds[at]!]!.ports[0],
      ]),
      lans: topology.lans.map((lan) => lan.map((end) => ports[end]!.ports[0]).sort()).sort(),
    })),
    blocked: [...blocked].map(([id, { except, vids }]) => [id, except, [...vids].sort()]).sort(),
    shut: [...shut].sort(),
  };
}

test('the trees made from those before a fault are the trees grown from nothing', () => {
  let made = 0;
  fc.assert(
    fc.property(drawn, ({ boxes, links, all, cables, bundles, dead }) => {
      const used = boxes.map(() => 0);
      const laid = links.flatMap(([a, b]): MadeLink[] => {
        const [x, y] = [a % boxes.length, b % boxes.length];
        if (x === y || used[x]! >= PORTS_OF_SWITCH || used[y]! >= PORTS_OF_SWITCH) return [];
        return [[`s${x}`, ++used[x]!, `s${y}`, ++used[y]!]];
      });
      const bare = switches(
        Object.fromEntries(
          boxes.map(({ mode, priority, second }, at): [string, Made] => {
            const own = all ? 'mst' : mode;
            return [
              `s${at}`,
              {
                box: { spanningTree: own as 'mst', passes: [] },
                bridge: { mode: own as 'mst', priority, region: 'yard' },
                instances: own === 'mst' ? { 1: { vids: '10', priority: second }, 2: { vids: '20' } } : {},
              },
            ];
          }),
        ),
        laid,
      );
      const plan = bundles.reduce(
        (next, [at, first, lacp], i) =>
          at >= boxes.length || next.lag.get(`g${at}`)
            ? next
            : bundled(next, { id: `g${at}`, device: `s${at}`, name: `lag ${i}`, lacp }, [
                first + 1,
                first + 2,
                first + 3,
              ]),
        bare,
      );
      const faults = [
        ...cables
          .filter((cable) => cable < laid.length)
          .map((cable) => ({ kind: 'cable' as const, cable: `c${cable}` })),
        ...(dead === null || dead >= boxes.length ? [] : [{ kind: 'box' as const, device: `s${dead}` }]),
      ];
      const broken = withFaults(plan, faults);
      const [before, after] = [fabricOf(plan), fabricOf(broken)];
      const lost = lostBetween(before, after);
      const kept = lost && treesAfterLoss(growTrees(plan, before), broken, after, lost);
      if (!kept) return;
      made++;
      expect(plainly(kept)).toEqual(plainly(growTrees(broken, after)));
    }),
    { numRuns: runs(600), seed: 17 },
  );
  expect(made).toBeGreaterThan(moreThan(200));
});

test('whatever is more than ports going off is grown anew', () => {
  const plan = switches({ a: {}, b: {} }, [['a', 1, 'b', 1]]);
  const port = plan.port.get('ap1')!;
  const other = withRecord(plan, 'port', 'ap1', { ...port, speed: 10 });
  expect(lostBetween(fabricOf(plan), fabricOf(other))).toBeNull();
  const off = withRecord(plan, 'port', 'ap1', { ...port, enabled: false });
  expect([...lostBetween(fabricOf(plan), fabricOf(off))!]).toEqual(['ap1']);
  expect(lostBetween(fabricOf(off), fabricOf(plan))).toBeNull();

  // In VLAN 1 alone such boxes have no tree besides the common one, which still counts for them in VLAN 1 only.
  const own: Made = { box: { spanningTree: 'rstp-per-vlan' }, bridge: { mode: 'rstp-per-vlan' } };
  const links: MadeLink[] = [
    ['a', 1, 'b', 1],
    ['a', 2, 'b', 2],
  ];
  const single = switches({ a: own, b: own }, links, [1]);
  const pulled = withFaults(single, [{ kind: 'cable', cable: 'c0' }]);
  const lost = lostBetween(fabricOf(single), fabricOf(pulled))!;
  const trees = growTrees(single, fabricOf(single));
  expect(trees.grown).toHaveLength(1);
  expect(treesAfterLoss(trees, pulled, fabricOf(pulled), lost)).toBeNull();
});
