import fc from 'fast-check';
import { formatAddress, type Prefix, usableRange, countOf, inRange, rangesOverlap } from '../../address';
import { type Plan, withRecord, type Pool, type Subnet, addressesOf, subnetOf, vlansOf } from '../../plan';
import { layoutOfSubnet } from '../../model/segments';
import { done, emptySite } from '../../testing/plans';
import { dynamicNeed } from '../../model/pools';
import { runs } from '../../testing/runs';

/** A staff segment, its subnet, and its pools. */
const base = done(emptySite(), 'addSegment', { purpose: 'staff', devices: 20 });
const subnetIn = (plan: Plan): Subnet => subnetOf(plan, vlansOf(plan)[0]!.id, 4)!;
const poolsIn = (plan: Plan): Pool[] => [...plan.pool.group(subnetIn(plan).id).values()];
const network = (subnetIn(base).prefix as Prefix).address as number;
const only = poolsIn(base)[0]!;
const withPool = (plan: Plan, start: number, end: number, id = only.id): Plan =>
  withRecord(plan, 'pool', id, { ...only, id, start: network + start, end: network + end });
const host = (plan: Plan, at: number, assignment = 'static'): Plan =>
  done(plan, 'addHost', {
    subnet: subnetIn(plan).id,
    address: formatAddress(network + at),
    assignment,
    kind: 'computer',
    mac: `02:00:00:00:01:${at.toString(16).padStart(2, '0')}`,
  });
const spans = (plan: Plan) =>
  poolsIn(plan)
    .map((pool) => [(pool.start as number) - network, (pool.end as number) - network])
    .sort((a, b) => a[0]! - b[0]!);

describe('a pool added', () => {
  test('by start and end, both counted', () => {
    const plan = done(base, 'addPool', {
      subnet: subnetIn(base).id,
      start: '10.20.10.20',
      end: '10.20.10.29',
      lease: 3600,
    });
    const added = poolsIn(plan).find((pool) => pool.id !== only.id)!;
    expect(countOf(added)).toBe(10);
  });
  test.each([
    ['removeRange', { table: 'pool', id: only.id }, 0],
    ['setLease', { subnet: subnetIn(base).id, lease: 7200 }, 1],
  ])('%s', (operation, input, left) => {
    const plan = done(base, operation, input);
    expect(poolsIn(plan)).toHaveLength(left);
    for (const pool of poolsIn(plan)) expect(pool.lease).toBe(7200);
  });
});

describe('a pool cut to what can be leased', () => {
  test('leaves out a static host and keeps both sides', () => {
    const plan = done(host(withPool(base, 100, 110), 105), 'trimPool', { pool: only.id });
    expect(spans(plan)).toEqual([
      [100, 104],
      [106, 110],
    ]);
  });
  test('keeps a reservation inside', () =>
    expect(
      spans(done(host(withPool(base, 100, 110), 105, 'reservation'), 'trimPool', { pool: only.id })),
    ).toEqual([[100, 110]]));
  test('keeps only the largest part when asked', () => {
    const plan = done(host(withPool(base, 100, 110), 103), 'trimPool', { pool: only.id, keepAll: false });
    expect(spans(plan)).toEqual([[104, 110]]);
  });
  test('goes when nothing of it could be leased', () => {
    const plan = done(host(withPool(base, 105, 105), 105), 'trimPool', { pool: only.id });
    expect(poolsIn(plan)).toEqual([]);
  });
  test('holds afterwards no gateway, no static host, no other pool, and nothing outside', () => {
    const numbers = fc.uniqueArray(fc.integer({ min: 2, max: 250 }), { maxLength: 8 });
    fc.assert(
      fc.property(numbers, fc.nat(255), fc.nat(300), fc.nat(200), (hosts, start, size, other) => {
        let plan = withPool(base, start - 20, start - 20 + size);
        plan = withPool(plan, other, other + 15, 'second');
        for (const at of hosts) plan = host(plan, at);
        const before = plan.pool.get(only.id)!;
        plan = done(plan, 'trimPool', { pool: only.id });
        const mine = poolsIn(plan).filter((pool) => pool.id !== 'second');
        const usable = usableRange(subnetIn(plan).prefix);
        for (const pool of mine) {
          expect(pool.start >= usable.first && pool.end <= usable.last).toBe(true);
          expect(pool.start >= before.start && pool.end <= before.end).toBe(true);
          expect(rangesOverlap(pool, plan.pool.get('second')!)).toBe(false);
          for (const address of addressesOf(plan, subnetIn(plan).id))
            expect(inRange(pool, address.address)).toBe(false);
        }
        // Nothing that could be leased was lost.
        const blocked = (at: number) =>
          inRange(plan.pool.get('second')!, at) ||
          addressesOf(plan, subnetIn(plan).id).some(({ address }) => address === at);
        for (let at = before.start as number; at <= (before.end as number); at++)
          if (at >= (usable.first as number) && at <= (usable.last as number) && !blocked(at))
            expect(mine.some((pool) => inRange(pool, at))).toBe(true);
      }),
      { numRuns: runs(60) },
    );
  });
});

describe('a pool widened', () => {
  const wanting = (devices: number) =>
    done(withPool(base, 100, 102), 'edit', {
      table: 'vlan',
      id: vlansOf(base)[0]!.id,
      set: { devices, growth: 0 },
    });
  test('holds the need and takes only what was free', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 4, max: 180 }),
        fc.uniqueArray(fc.integer({ min: 20, max: 99 }), { maxLength: 12 }),
        (devices, hosts) => {
          let plan = wanting(devices);
          for (const at of hosts) plan = host(plan, at);
          const { need, capacity } = dynamicNeed(plan, subnetIn(plan));
          fc.pre(capacity < need.total);
          const before = layoutOfSubnet(plan, subnetIn(plan)).counts;
          const next = done(plan, 'widenPool', { subnet: subnetIn(plan).id });
          const after = dynamicNeed(next, subnetIn(next));
          expect(after.capacity).toBe(after.need.total);
          const counts = layoutOfSubnet(next, subnetIn(next)).counts;
          expect(counts.fixed).toBe(before.fixed);
          expect(counts.pool + counts.free).toBe(before.pool + before.free);
        },
      ),
      { numRuns: runs(60) },
    );
  });
  test('is refused when even every free address is not enough, with how many lack', () =>
    expect(() => done(wanting(400), 'widenPool', { subnet: subnetIn(base).id })).toThrow(
      /lacks \d+ leases even with every free address/,
    ));
  test('is made around who stands there', () => {
    const without = done(base, 'removeRange', { table: 'pool', id: only.id });
    const [start, end] = [only.start, only.end].map((at) => (at as number) - network);
    const after = done(host(without, start! + 4), 'widenPool', { subnet: subnetIn(base).id });
    expect(spans(after)).toEqual([
      [start, start! + 3],
      [start! + 5, end],
    ]);
    expect(poolsIn(after).map(({ lease }) => lease)).toEqual([only.lease, only.lease]);
  });
  test('is made where there was none', () => {
    const bare = withRecord(base, 'pool', only.id, null);
    expect(poolsIn(done(bare, 'widenPool', { subnet: subnetIn(bare).id }))).toHaveLength(1);
  });
});
