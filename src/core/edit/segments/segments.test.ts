import fc from 'fast-check';
import {
  contains,
  formatAddress,
  parseIpv4,
  covers,
  formatPrefix,
  networkOf,
  overlaps,
  sizeOf,
} from '../../address';
import { nextFreeAddress } from '../../model/hosts';
import { perform } from '../operations';
import { type Plan, siteOf, type Address, addressesOf, gatewaysOf, subnetOf, vlansOf } from '../../plan';
import { build, damagedSite, done, emptySite, nextSeed, prefix } from '../../testing/plans';
import {
  addressUses,
  layoutOf,
  layoutOfSubnet,
  leaseCapacity,
  arrivalsWithin,
  grown,
  poolNeed,
  prefixLengthFor,
  proposeLease,
  subnetNeed,
  transientNeed,
  bandsOf,
  thirdOctetPlaces,
} from '../../model/segments';
import { proposeSegment } from './propose';
import { renumbered } from './renumber';
import { runs } from '../../testing/runs';

const vlanOf = (plan: Plan, name: string) => vlansOf(plan).find((vlan) => vlan.name === name)!;
const v4 = (plan: Plan, name: string) => subnetOf(plan, vlanOf(plan, name).id, 4)!;
const ip = (text: string) => parseIpv4(text)!;

describe('need', () => {
  test.each([
    [9, 60, 15],
    [10, 30, 13],
    [3, 0, 3],
    [0, 50, 0],
    [100, 10, 110],
  ])('%i devices growing by %i %% are %i', (devices, growth, total) =>
    expect(grown(devices, growth)).toBe(total),
  );
  test('shows its arithmetic', () =>
    expect(subnetNeed({ devices: 9, growth: 60, transient: null }, { infrastructureBand: 8 }, 43200)).toEqual(
      {
        total: 24,
        text: '⌈9 × 1.6⌉ + 8 + 1 = 24',
      },
    ));
  test.each([
    [6, 29],
    [7, 28],
    [14, 28],
    [15, 27],
    [254, 24],
    [255, 23],
  ])('%i hosts need a /%i', (need, length) => expect(prefixLengthFor(need)).toBe(length));
  test('a transit link takes a /31, RFC 3021', () =>
    expect([prefixLengthFor(2, true), prefixLengthFor(3, true)]).toEqual([31, 29]));
  test('nothing holds more than a /8', () => expect(prefixLengthFor(2 ** 24)).toBeNull());
  const cafe = { present: 25, arrivalsPerHour: 18, openHours: 10 };
  test('arrivals count open hours only, whole days in full', () => {
    expect([1, 10, 12, 24, 25, 48].map((hours) => arrivalsWithin(cafe, hours * 3600))).toEqual([
      18, 180, 180, 180, 198, 360,
    ]);
  });
  test('visitors need the larger of present and arrivals', () => {
    expect(transientNeed(cafe, 3600).total).toBe(25);
    expect(transientNeed(cafe, 7200).total).toBe(36);
  });
  test('no span as long as the lease has more arrivals than said', () => {
    const arrivals = fc.record({
      present: fc.nat(9),
      arrivalsPerHour: fc.integer({ min: 1, max: 9 }),
      openHours: fc.integer({ min: 1, max: 24 }),
    });
    fc.assert(
      fc.property(arrivals, fc.integer({ min: 1, max: 60 }), fc.nat(23), (load, hours, start) => {
        const open = Array.from({ length: hours }, (_, i) => (start + i) % 24 < load.openHours).filter(
          Boolean,
        ).length;
        expect(arrivalsWithin(load, hours * 3600)).toBeGreaterThanOrEqual(open * load.arrivalsPerHour);
      }),
    );
  });
  test('the lease proposed is the longest that holds the need', () => {
    const vlan = { devices: 2, growth: 0, transient: cafe };
    expect(proposeLease(vlan, 1, 78)).toBe(4 * 3600);
    expect(poolNeed(vlan, 1, 8 * 3600).total).toBeGreaterThan(78);
    expect(proposeLease(vlan, 1, 3)).toBeNull();
  });
});

describe('the layout of a subnet', () => {
  const ranges = fc.array(
    fc.tuple(fc.nat(80), fc.nat(20)).map(([start, count]) => ({ start, end: start + count })),
    { maxLength: 3 },
  );
  const held = fc.array(
    fc.tuple(fc.nat(80), fc.constantFrom('static', 'reservation', 'virtual'), fc.boolean()),
    { maxLength: 12 },
  );
  test('gives every address exactly one use, the first that applies', () => {
    fc.assert(
      fc.property(
        held,
        ranges,
        ranges,
        fc.integer({ min: 26, max: 32 }),
        (list, exclusions, pools, length) => {
          const where = networkOf(16, length);
          const addresses = list.map(
            ([address, assignment, gateway]) => ({ address, assignment, gateway }) as Address,
          );
          const { runs, counts } = layoutOf(where, addresses, exclusions, pools);
          const within = (list: { start: number; end: number }[], at: number) =>
            list.some((range) => at >= range.start && at <= range.end);
          const at = (use: (address: Address) => boolean, value: number) =>
            addresses.some((address) => address.address === value && use(address));
          const low = where.address as number;
          const high = low + sizeOf(where) - 1;
          let expected = low;
          for (const run of runs) {
            expect(run.start).toBe(expected);
            for (let value = run.start as number; value <= (run.end as number); value++) {
              const uses = [
                length <= 30 && value === low && 'network',
                length <= 30 && value === high && 'broadcast',
                at((address) => address.gateway, value) && 'gateway',
                at((address) => address.assignment === 'virtual', value) && 'virtual',
                at((address) => address.assignment === 'static', value) && 'fixed',
                at((address) => address.assignment === 'reservation', value) && 'reserved',
                within(exclusions, value) && 'excluded',
                within(pools, value) && 'pool',
              ].filter(Boolean);
              expect(run.use).toBe(uses[0] ?? 'free');
            }
            expected = (run.end as number) + 1;
          }
          expect(expected).toBe(high + 1);
          expect(addressUses.reduce((sum, use) => sum + counts[use], 0)).toBe(sizeOf(where));
        },
      ),
    );
  });
  test('the capacity of a pool is what the layout counts as pool, with and without exclusions', () => {
    fc.assert(
      fc.property(damagedSite, fc.boolean(), (site, exclude) => {
        let plan = build(site);
        for (const subnet of plan.subnet.values()) {
          const [pool, ...others] = plan.pool.group(subnet.id).values();
          if (!pool || others.length > 0) continue;
          if (exclude && contains(subnet.prefix, pool.start)) {
            const at = formatAddress(pool.start);
            plan = done(plan, 'addExclusion', { subnet: subnet.id, start: at, end: at });
          }
          expect(leaseCapacity(plan, subnet, pool)).toBe(layoutOfSubnet(plan, subnet).counts.pool);
        }
      }),
      { numRuns: runs(150), seed: 31 },
    );
  });
  test('a pool that starts at .8 leaves six free addresses below it, not seven', () => {
    let plan = done(emptySite(), 'addSegment', { purpose: 'servers' });
    plan = done(plan, 'addPool', { subnet: v4(plan, 'Servers').id, start: '10.20.10.8', end: '10.20.10.20' });
    const subnet = v4(plan, 'Servers');
    const { runs } = layoutOf(
      subnet.prefix,
      addressesOf(plan, subnet.id),
      [],
      plan.pool.group(subnet.id).values(),
    );
    expect(runs.slice(0, 3).map((run) => run.use)).toEqual(['network', 'gateway', 'free']);
    expect((runs[2]!.end as number) - (runs[2]!.start as number) + 1).toBe(6);
  });
  test('costs what stands in it, not what it could hold', () => {
    const { counts } = layoutOf({ address: 0n, length: 64 }, [], [], [{ start: 16n, end: 31n }]);
    expect([counts.pool, counts.free]).toEqual([16, 2 ** 64 - 16]);
  });
});

describe('proposals', () => {
  test('the VLAN id stands in the third octet while it can', () => {
    expect(thirdOctetPlaces({ space: [prefix('10.44.0.0/16')] }, 140, 26).map(formatPrefix)).toEqual([
      '10.44.140.0/26',
    ]);
    expect(thirdOctetPlaces({ space: [prefix('10.44.96.0/19')] }, 140, 26)).toEqual([]);
    expect(thirdOctetPlaces({ space: [prefix('10.44.0.0/16')] }, 300, 26)).toEqual([]);
    expect(thirdOctetPlaces({ space: [prefix('10.44.0.0/16')] }, 140, 23)).toEqual([]);
    expect(
      thirdOctetPlaces({ space: [prefix('192.168.0.0/16'), prefix('10.0.0.0/14')] }, 20, 24).map(
        formatPrefix,
      ),
    ).toEqual(['192.168.20.0/24', '10.0.20.0/24', '10.1.20.0/24', '10.2.20.0/24', '10.3.20.0/24']);
  });
  test('every segment added is what was proposed', () => {
    let plan = emptySite({ sizing: 'need' });
    for (const purpose of ['management', 'staff', 'guest', 'cameras', 'voice', 'iot'] as const) {
      const proposal = proposeSegment(plan, { purpose });
      plan = done(plan, 'addSegment', { purpose });
      const added = vlansOf(plan).at(-1)!;
      expect({ vid: added.vid, name: added.name, code: added.code }).toEqual({
        vid: proposal.vid,
        name: proposal.name,
        code: proposal.code,
      });
      const subnet = subnetOf(plan, added.id, 4)!;
      expect(gatewaysOf(plan, subnet.id)[0]!.address).toBe(proposal.gateway);
      expect(formatPrefix(subnet.prefix)).toContain(`10.20.${added.vid}.`);
    }
    expect(new Set(vlansOf(plan).map((vlan) => vlan.colour)).size).toBe(6);
  });
  test('a full space is said plainly', () => {
    const plan = done(
      emptySite({ space: [prefix('10.1.0.0/28')], sizing: 'need', numbering: 'free' }),
      'addSegment',
      { purpose: 'transit' },
    );
    expect(() => done(plan, 'addSegment', { purpose: 'staff' })).toThrow(
      /No free block of the address space holds a \/\d+/,
    );
  });
  test('bands keep to the subnet and leave the gateway out of the pool', () => {
    const bands = bandsOf(
      { infrastructureBand: 9, fixedBand: 90, gatewayHabit: 'last' },
      prefix('10.0.0.0/26'),
    );
    const text = (band: { start: number | bigint; end: number | bigint } | null) =>
      band && `${formatAddress(band.start)}-${formatAddress(band.end)}`;
    expect([text(bands.infrastructure), text(bands.fixed), text(bands.pool)]).toEqual([
      '10.0.0.1-10.0.0.9',
      '10.0.0.10-10.0.0.35',
      '10.0.0.36-10.0.0.61',
    ]);
  });
  test('next free honours the bands: infrastructure low, hosts in the fixed band', () => {
    const plan = done(emptySite(), 'addSegment', { purpose: 'staff' });
    const subnet = v4(plan, 'Staff');
    expect(formatAddress(nextFreeAddress(plan, subnet, 'switch', 'static')!)).toBe('10.20.10.2');
    expect(formatAddress(nextFreeAddress(plan, subnet, 'printer', 'static')!)).toBe('10.20.10.10');
    expect(
      formatAddress(nextFreeAddress(plan, subnet, 'printer', 'static', new Set([ip('10.20.10.10')]))!),
    ).toBe('10.20.10.11');
  });
});

describe('moving and resizing', () => {
  test.each([
    ['10.0.0.0/24', '10.0.9.0/24', '10.0.0.24', '10.0.9.24'],
    ['10.0.0.64/26', '10.0.0.0/25', '10.0.0.70', '10.0.0.70'],
    ['10.0.0.0/24', '10.0.0.0/26', '10.0.0.24', '10.0.0.24'],
  ])('in %s → %s the host %s becomes %s', (from, to, address, expected) =>
    expect(formatAddress(renumbered(prefix(from), prefix(to), ip(address))!)).toBe(expected),
  );
  test('a host whose number does not fit has no place', () => {
    expect(renumbered(prefix('10.0.0.0/24'), prefix('10.0.9.0/26'), ip('10.0.0.80'))).toBeNull();
    expect(renumbered(prefix('10.0.0.0/24'), prefix('10.0.0.0/26'), ip('10.0.0.63'))).toBeNull();
  });
  const staff = () => {
    let plan = done(emptySite(), 'addSegment', { purpose: 'staff' });
    for (const address of ['10.20.10.10', '10.20.10.90'])
      plan = done(plan, 'addHost', { subnet: v4(plan, 'Staff').id, address, kind: 'printer' });
    return plan;
  };
  test('shrinking says who would not fit, and moves them when asked', () => {
    const plan = staff();
    const input = { subnet: v4(plan, 'Staff').id, prefix: '10.20.10.0/26' };
    expect(() => perform(plan, { operation: 'setPrefix', input }, nextSeed())).toThrow(
      'st-printer-02 10.20.10.90',
    );
    const after = done(plan, 'setPrefix', { ...input, relocate: true });
    const hosts = addressesOf(after, v4(after, 'Staff').id).filter((address) => !address.gateway);
    expect(
      hosts.every((host) => covers(prefix('10.20.10.0/26'), { address: host.address, length: 32 })),
    ).toBe(true);
  });
  test('in IPv6 whoever made an address of his MAC address keeps all of it', () => {
    const plan = staff();
    const vlan = v4(plan, 'Staff').vlan;
    let six = done(plan, 'addSubnet', { vlan, prefix: 'fd00:0:0:8::/64' });
    const subnet = subnetOf(six, vlan, 6)!.id;
    const hosts = ['200:5eff:fe00:5301', '200:5eff:fe00:5303'];
    for (const host of hosts)
      six = done(six, 'addHost', { subnet, name: `desk-${host.slice(-1)}`, address: `fd00:0:0:8:${host}` });
    const after = done(six, 'setPrefix', { subnet, prefix: 'fd00:0:0:9::/64' });
    const now = addressesOf(after, subnet).filter(({ gateway }) => !gateway);
    expect(now.map(({ address }) => formatAddress(address)).sort()).toEqual(
      hosts.map((host) => `fd00::9:${host}`),
    );
  });
  test('a subnet keeps its family and the value it was seen with', () => {
    const plan = staff();
    const subnet = v4(plan, 'Staff').id;
    expect(() => done(plan, 'setPrefix', { subnet, prefix: 'fd00::/64' })).toThrow(
      'a subnet keeps its family',
    );
    expect(() => done(plan, 'setPrefix', { subnet, prefix: '10.20.11.0/24', seen: '10.20.12.0/24' })).toThrow(
      'was 10.20.12.0/24 when you edited it',
    );
    expect(() => done(plan, 'setPrefix', { subnet, prefix: '10.20.10.5/24' })).toThrow(
      'write the network itself, 10.20.10.0/24',
    );
  });
  test('splitting keeps every address and gives both halves a gateway', () => {
    const plan = staff();
    const after = done(plan, 'splitSubnet', { subnet: v4(plan, 'Staff').id });
    const values = (at: Plan) =>
      [...at.address.values()]
        .filter((address) => !address.gateway)
        .map((address) => formatAddress(address.address))
        .sort();
    expect(values(after)).toEqual(values(plan));
    expect(formatPrefix(v4(after, 'Staff').prefix)).toBe('10.20.10.0/25');
    expect(formatAddress(gatewaysOf(after, v4(after, 'Staff upper').id)[0]!.address)).toBe('10.20.10.129');
  });
  test('Fit never overlaps, never moves what is pinned, and gives each its need', () => {
    fc.assert(
      fc.property(damagedSite, fc.nat(7), (site, mask) => {
        let plan = build({
          ...site,
          damage: site.damage.filter(([name]) => name === 'devices' || name === 'addHost'),
        });
        [...plan.subnet.values()].forEach((subnet, i) => {
          if (mask & (1 << (i % 3)))
            plan = done(plan, 'edit', { table: 'subnet', id: subnet.id, set: { pinned: true } });
        });
        const after = done(plan, 'packSubnets', {});
        const all = [...after.subnet.values()];
        all.forEach((subnet, i) => {
          expect(all.slice(i + 1).some((other) => overlaps(subnet.prefix, other.prefix))).toBe(false);
          expect(siteOf(after).space.some((block) => covers(block, subnet.prefix))).toBe(true);
          if (subnet.pinned) expect(subnet).toEqual(plan.subnet.get(subnet.id));
        });
        expect([...after.address.values()].length).toBe([...plan.address.values()].length);
      }),
      { numRuns: runs(80), seed: 21 },
    );
  });
});
