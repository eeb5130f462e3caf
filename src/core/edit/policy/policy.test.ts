import fc from 'fast-check';
import { type Plan, type Zone, vlansOf, withRecord, standardServices } from '../../plan';
import { deviceNamed, vlanFor } from '../../testing/gear';
import { soundInternet } from '../../testing/internet';
import { buildPolicy, damagedPolicy, soundPolicy, zoneNamed } from '../../testing/policy';
import { done, emptySite, prefix } from '../../testing/plans';
import {
  analyse,
  ruleHolds,
  rulesOf,
  type TrafficRange,
  type Span,
  rangesMeet,
  gaps,
  subtract,
  rangeWithout,
  enforcement,
  explainZone,
  serviceNames,
  serviceOf,
  typedMatches,
  boxesOf,
  onLine,
  serviceAt,
  ruleText,
  passing,
  zoneOfVlan,
  zonesOf,
} from '../../model/policy';
import { startFor, starts } from './start';
import { moreThan, runs } from '../../testing/runs';

const sound = soundPolicy();
const pair = (plan: Plan, from: string, to: string) =>
  passing(plan, zoneNamed(plan, from), zoneNamed(plan, to));

describe('boxes of traffic', () => {
  const span = fc
    .tuple(fc.nat(9), fc.nat(9))
    .map(([a, b]): Span => (a < b ? [BigInt(a), BigInt(b)] : [BigInt(b), BigInt(a)]));
  const box = fc.tuple(span, span, span) as fc.Arbitrary<TrafficRange>;
  const holdsPoint = (boxes: readonly TrafficRange[], point: readonly bigint[]) =>
    boxes.some((one) => one.every(([from, to], i) => point[i]! >= from && point[i]! <= to));
  test('what is left of a box is what was in it and not in the other, each point once', () => {
    fc.assert(
      fc.property(box, box, fc.tuple(fc.nat(9), fc.nat(9), fc.nat(9)), (one, cut, at) => {
        const point = at.map(BigInt);
        const left = rangeWithout(one, cut);
        expect(holdsPoint(left, point)).toBe(holdsPoint([one], point) && !holdsPoint([cut], point));
        left.forEach((a, i) => left.slice(i + 1).forEach((b) => expect(rangesMeet(a, b)).toBe(false)));
      }),
    );
  });
  test('subtracting many is subtracting one after the other', () => {
    const point = fc.tuple(fc.nat(9), fc.nat(9), fc.nat(9));
    fc.assert(
      fc.property(
        fc.array(box, { maxLength: 4 }),
        fc.array(box, { maxLength: 4 }),
        point,
        (boxes, cuts, at) => {
          const where = at.map(BigInt);
          expect(holdsPoint(subtract(boxes, cuts), where)).toBe(
            holdsPoint(boxes, where) && !holdsPoint(cuts, where),
          );
        },
      ),
    );
  });
  test('gaps and spans together are the whole line, and do not overlap', () => {
    fc.assert(
      fc.property(fc.array(span, { maxLength: 5 }), fc.nat(9), (spans, at) => {
        const inside = (list: readonly Span[]) => list.some(([a, b]) => BigInt(at) >= a && BigInt(at) <= b);
        expect(inside(gaps([0n, 9n], spans))).toBe(!inside(spans));
      }),
    );
  });
});

describe('rules among themselves', () => {
  /** Corners and middles of everything the rules speak of: enough points to tell any two of their sets apart. */
  const points = (plan: Plan): (readonly [bigint, bigint, bigint])[] => {
    const boxes = rulesOf(plan).flatMap((rule) => boxesOf(plan, rule));
    const marks = [0, 1, 2].map((axis) => [
      ...new Set(boxes.flatMap((one) => [one[axis as 0]![0], one[axis as 0]![1]])),
    ]);
    return marks[0]!.flatMap((a) => marks[1]!.flatMap((b) => marks[2]!.map((c) => [a, b, c] as const)));
  };
  const speaks = (boxes: readonly TrafficRange[], point: readonly bigint[]) =>
    boxes.some((one) => one.every(([from, to], i) => point[i]! >= from && point[i]! <= to));
  const drawn = fc.array(
    fc.tuple(
      fc.constantFrom('rule', 'opposite', 'same', 'any', 'gone', 'off', 'crossing'),
      fc.nat(60),
      fc.nat(60),
    ),
    { minLength: 2, maxLength: 6 },
  );

  test('against brute force: a rule judged shadowed or redundant decides nothing, any other decides something', () => {
    const faults = new Map<string, number>();
    fc.assert(
      fc.property(drawn, (damage) => {
        const plan = buildPolicy(damage, sound);
        const rules = rulesOf(plan).filter((rule) => ruleHolds(rule, null));
        const sets = new Map(rules.map((rule) => [rule.id, boxesOf(plan, rule)]));
        const all = points(plan).slice(0, 4000);
        const decide = (point: readonly bigint[], but?: string) =>
          rules.find((rule) => rule.id !== but && speaks(sets.get(rule.id)!, point));
        for (const { rule, fault, left } of analyse(plan)) {
          faults.set(fault ?? 'none', (faults.get(fault ?? 'none') ?? 0) + 1);
          const decided = all.filter((point) => decide(point)?.id === rule.id);
          if (fault === 'shadowed' || fault === 'nothing') expect(decided).toEqual([]);
          if (fault === 'redundant')
            for (const point of decided) expect(decide(point, rule.id)?.action).toBe(rule.action);
          if (fault === null || fault === 'conflict') {
            const corner = left[0]!.map(([from]) => from);
            expect(decide(corner)?.id).toBe(rule.id);
          }
          // What is left is exactly what it is the first to speak of.
          for (const point of all) expect(speaks(left, point)).toBe(decide(point)?.id === rule.id);
        }
      }),
      { numRuns: runs(120), seed: 3 },
    );
    for (const fault of ['none', 'shadowed', 'redundant', 'conflict', 'nothing'])
      expect([fault, (faults.get(fault) ?? 0) > moreThan(5)]).toEqual([fault, true]);
  }, 60_000);

  test('a rule that runs out holds on its last day and not after', () => {
    const rule = { ...rulesOf(sound)[0]!, until: '2026-05-04' };
    expect([ruleHolds(rule, '2026-05-04'), ruleHolds(rule, '2026-05-05'), ruleHolds(rule, null)]).toEqual([
      true,
      false,
      true,
    ]);
    expect(ruleHolds({ ...rule, enabled: false }, '2026-05-04')).toBe(false);
  });
  test('rules are moved before another, or last', () => {
    const two = done(sound, 'addRule', { action: 'deny', note: 'second' });
    const [first, second] = rulesOf(two);
    const moved = done(two, 'moveRule', { rule: second!.id, before: first!.id });
    expect(rulesOf(moved).map(({ id }) => id)).toEqual([second!.id, first!.id]);
    const back = done(moved, 'moveRule', { rule: second!.id, before: null });
    expect(rulesOf(back).map(({ id }) => id)).toEqual([first!.id, second!.id]);
  });
  test('a rule in words', () =>
    expect(ruleText(sound, rulesOf(sound)[0]!)).toBe('allow till to Devices: camera pictures'));
});

describe('what passes between zones', () => {
  test('usual: the Internet by the wish of the segments, the gateway what a segment needs, else nothing', () => {
    expect(pair(sound, 'Staff', 'Internet')).toMatchObject({ decision: 'allow', cell: null });
    expect(pair(sound, 'Devices', 'Internet').decision).toBe(
      vlanFor(sound, 'cameras').internet ? 'allow' : 'deny',
    );
    expect(pair(sound, 'Guests', 'Staff').decision).toBe('deny');
    expect(pair(sound, 'Guests', 'Guests').decision).toBe('deny');
    expect(pair(sound, 'Internet', 'Gateway').decision).toBe('deny');
    expect(pair(sound, 'Gateway', 'Internet').decision).toBe('allow');
    expect(serviceNames(sound, pair(sound, 'Guests', 'Gateway').services)).toBe('DHCP, DNS, NTP, ping');
    expect(serviceNames(sound, pair(sound, 'Management', 'Gateway').services)).toContain('web pages, SSH');
  });
  test('a zone whose segments differ passes as each of them wishes', () => {
    const staff = vlanFor(sound, 'staff').id;
    const mixed = done(sound, 'putInZone', {
      zone: zoneNamed(sound, 'Staff').id,
      vlans: [vlanFor(sound, 'cameras').id],
    });
    const plan = done(mixed, 'edit', { table: 'vlan', id: staff, set: { internet: true } });
    const other = done(plan, 'edit', {
      table: 'vlan',
      id: vlanFor(sound, 'cameras').id,
      set: { internet: false },
    });
    expect(pair(other, 'Staff', 'Internet').decision).toBe('wish');
  });
  test('what is decided goes before what is usual, and is taken back', () => {
    const pairs = [{ from: zoneNamed(sound, 'Staff').id, to: zoneNamed(sound, 'Voice').id }];
    const decided = done(sound, 'decidePairs', { pairs, decision: 'services', services: ['stdping'] });
    expect(pair(decided, 'Staff', 'Voice')).toMatchObject({ decision: 'services', services: ['stdping'] });
    const usual = done(decided, 'decidePairs', { pairs, decision: 'usual' });
    expect(pair(usual, 'Staff', 'Voice')).toMatchObject({ decision: 'deny', cell: null });
    expect(() => done(sound, 'decidePairs', { pairs, decision: 'services' })).toThrow('No service is named');
    expect(() => done(sound, 'decidePairs', { pairs, decision: 'services', services: ['nosuch'] })).toThrow(
      'One of the services is gone',
    );
  });
});

describe('zones', () => {
  test.each(starts.map((start) => [start.name, start] as const))(
    'the starting point %s puts everything into exactly one zone',
    (_, start) => {
      const plan = done(soundInternet(), 'startPolicy', { kind: start.kind });
      const zones = zonesOf(plan);
      const all = (field: 'vlans' | 'uplinks') => zones.flatMap((zone) => zone[field]).sort();
      expect(all('vlans')).toEqual(
        vlansOf(plan)
          .map(({ id }) => id)
          .sort(),
      );
      expect(all('uplinks')).toEqual([...plan.uplink.values()].map(({ id }) => id).sort());
      expect(zones.filter(({ gateway }) => gateway)).toHaveLength(1);
      expect(startFor(soundInternet(), start).map(({ name }) => name)).toEqual(
        zones.slice(0, -2).map(({ name }) => name),
      );
      expect(() => done(plan, 'startPolicy', { kind: start.kind })).toThrow('There are zones already');
    },
  );
  test('control cells stand alone, and only supervision and management reach them', () => {
    let plan = emptySite({ kind: 'industrial' });
    for (const purpose of ['management', 'supervisory', 'control-cell', 'control-cell', 'staff'])
      plan = done(plan, 'addSegment', { purpose });
    plan = done(plan, 'startPolicy', { kind: 'industrial' });
    const cells = vlansOf(plan).filter(({ purpose }) => purpose === 'control-cell');
    const zones = cells.map(({ id }) => zoneOfVlan(plan, id)!);
    expect(new Set(zones.map(({ id }) => id)).size).toBe(2);
    const into = (from: string) => passing(plan, zoneNamed(plan, from), zones[0]!).decision;
    expect([
      into('Supervision'),
      into('Management'),
      into('Office'),
      passing(plan, zones[1]!, zones[0]!).decision,
    ]).toEqual(['allow', 'allow', 'deny', 'deny']);
  });
  test('something is in one zone at a time', () => {
    const staff = vlanFor(sound, 'staff').id;
    const plan = done(sound, 'putInZone', { zone: zoneNamed(sound, 'Guests').id, vlans: [staff] });
    expect(
      zonesOf(plan)
        .filter(({ vlans }) => vlans.includes(staff))
        .map(({ name }) => name),
    ).toEqual(['Guests']);
    expect(() => done(sound, 'addZone', { name: 'staff' })).toThrow('There is a zone staff already');
    expect(() => done(sound, 'putInZone', { zone: zoneNamed(sound, 'Guests').id })).toThrow(
      'Nothing is chosen',
    );
  });
  test('what goes leaves no zone, cell or rule that speaks of it; a rule of nobody else goes too', () => {
    const cameras = vlanFor(sound, 'cameras').id;
    const ruled = done(sound, 'addRule', {
      action: 'deny',
      from: [{ vlan: cameras }],
      to: [{ zone: zoneNamed(sound, 'Staff').id }, { vlan: vlanFor(sound, 'voice').id }],
    });
    const withoutZone = done(ruled, 'removeZone', { zone: zoneNamed(sound, 'Staff').id });
    expect(rulesOf(withoutZone).at(-1)!.to).toEqual([{ vlan: vlanFor(sound, 'voice').id }]);
    expect([...withoutZone.cell.values()].some(({ from }) => from === zoneNamed(sound, 'Staff').id)).toBe(
      false,
    );
    const withoutDevices = done(ruled, 'removeZone', { zone: zoneNamed(sound, 'Devices').id });
    expect(rulesOf(withoutDevices)).toHaveLength(1);
    const till = deviceNamed(ruled, 'till').id;
    const address = [...ruled.address.values()].find(
      (item) => ruled.interface.get(item.interface)!.device === till,
    )!;
    expect(rulesOf(done(ruled, 'removeHosts', { addresses: [address.id] }))).toHaveLength(1);
    const uplink = [...sound.uplink.values()][0]!.id;
    expect(zoneNamed(done(sound, 'removeUplink', { uplink }), 'Internet').uplinks).not.toContain(uplink);
  });
});

describe('services', () => {
  test('ports as typed; what is wrong names the part and a right one', () => {
    expect(typedMatches('tcp 8443, udp 5000-5010, icmp 8, ip 50')).toEqual([
      { protocol: 'tcp', from: 8443, to: 8443 },
      { protocol: 'udp', from: 5000, to: 5010 },
      { protocol: 'icmp', from: 8, to: 8 },
      { protocol: 'ip', from: 50, to: 50 },
    ]);
    for (const wrong of ['443', 'tcp 70000', 'tcp 20-10', 'icmp 300', 'tcp'])
      expect(() => typedMatches(wrong)).toThrow(`“${wrong}” is no port; write tcp 443`);
  });
  test('a number that the protocol does not have is refused', () => {
    const plan = done(sound, 'addService', { name: 'tunnel', ports: 'ip 47' });
    const [service] = [...plan.service.values()];
    const set = { matches: [{ protocol: 'ip', from: 47, to: 256 }] };
    expect(() => done(plan, 'edit', { table: 'service', id: service!.id, set })).toThrow(
      'There is no ip 256; the last is 255.',
    );
  });
  test('the standard ones have ids of their own', () =>
    expect(new Set(standardServices.map(({ id }) => id)).size).toBe(standardServices.length));
  test('a service that goes leaves what allowed only it denied', () => {
    const named = done(sound, 'addService', { name: 'tanker report', ports: 'tcp 9443' });
    const service = [...named.service.values()][0]!;
    const pairs = [{ from: zoneNamed(sound, 'Staff').id, to: zoneNamed(sound, 'Voice').id }];
    const used = done(named, 'decidePairs', { pairs, decision: 'services', services: [service.id] });
    const ruled = done(used, 'addRule', { action: 'allow', services: [service.id] });
    const gone = done(ruled, 'removeService', { service: service.id });
    expect(pair(gone, 'Staff', 'Voice').decision).toBe('deny');
    expect(rulesOf(gone)).toHaveLength(1);
    expect(serviceOf(gone, service.id)).toBeUndefined();
    expect(() => done(named, 'addService', { name: 'Tanker report', ports: 'tcp 1' })).toThrow('already');
  });
  test('lines do not mix families or protocols', () => {
    expect(onLine(prefix('255.255.255.255/32').address)).toBeLessThan(onLine(prefix('::/128').address));
    expect(serviceAt('tcp', 65_535)).toBeLessThan(serviceAt('udp', 0));
  });
});

describe('who enforces', () => {
  const between = (plan: Plan, a: string, b: string) => {
    const { boxes, filter } = enforcement(plan, zoneNamed(plan, a) as Zone, zoneNamed(plan, b) as Zone);
    return [boxes.map(({ name }) => name), filter];
  };
  test('the gateway that routes both, with what its filter can do', () => {
    expect(between(sound, 'Staff', 'Devices')).toEqual([['gw-1'], 'stateful']);
    expect(between(sound, 'Guests', 'Internet')).toEqual([['gw-1'], 'stateful']);
  });
  test('where nobody routes nothing passes', () => {
    const bare = done(sound, 'addZone', { name: 'empty' });
    expect(between(bare, 'Staff', 'empty')).toEqual([[], null]);
  });
  test('every damaged plan has an answer for every pair', () => {
    fc.assert(
      fc.property(damagedPolicy, (damage) => {
        const plan = buildPolicy(damage, sound);
        for (const from of zonesOf(plan))
          for (const to of zonesOf(plan)) {
            const { boxes, filter } = enforcement(plan, from, to);
            expect(filter === null).toBe(boxes.length === 0);
          }
      }),
      { numRuns: runs(100) },
    );
  });
});

describe('a zone in one sentence', () => {
  test('who it reaches, who reaches it, and what the gateway answers', () => {
    expect(explainZone(sound, zoneNamed(sound, 'Guests'))).toBe(
      'Guests may reach the Internet and nothing else; nobody reaches it; the gateway answers it (DHCP, DNS, NTP, ping).',
    );
    expect(explainZone(sound, zoneNamed(sound, 'Devices'))).toBe(
      'Devices may reach nothing; nobody but Staff (web pages, printing) and Management reaches it; the gateway answers it (DHCP, DNS, NTP, ping); 1 rule above the matrix speaks of it.',
    );
    // The forward to the desk opens what the matrix keeps shut, and both ends say so.
    expect(explainZone(sound, zoneNamed(sound, 'Internet'))).toMatch(
      /^Internet may reach Staff \(by forward desk tcp 443\) and nothing else;/,
    );
    expect(explainZone(sound, zoneNamed(sound, 'Staff'))).toContain('the Internet (by forward desk tcp 443)');
    const [forward] = sound.forward.values();
    const off = withRecord(sound, 'forward', forward!.id, { ...forward!, enabled: false });
    expect(explainZone(off, zoneNamed(off, 'Internet'))).toMatch(/^Internet may reach nothing;/);
    expect(explainZone(sound, zoneNamed(sound, 'Gateway'))).toMatch(
      /^Gateway answers .*Guests.* on DHCP, DNS, NTP, ping; Management on DHCP, DNS, NTP, ping, web pages, SSH; the Internet on nothing\.$/,
    );
  });
});
