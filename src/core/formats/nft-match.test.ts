import fc from 'fast-check';
import {
  RangeIndex,
  type TrafficRange,
  type Span,
  rangesMeet,
  PORTS,
  V6_FIRST,
  serviceAt,
} from '../model/policy';
import { deviceNamed, put } from '../testing/gear';
import { soundPolicy } from '../testing/policy';
import { conditions, interfaceName, merged, quoted } from './nft-match';
import { nftRuleset } from './nftables';

const span = fc
  .tuple(fc.nat(40), fc.nat(40))
  .map(([a, b]): Span => (a < b ? [BigInt(a), BigInt(b)] : [BigInt(b), BigInt(a)]));
const v4 = (a: number, b = a): Span => [BigInt(a), BigInt(b)];

describe('parts of a ruleset', () => {
  test('merged ranges hold the same numbers, in order, and never touch', () => {
    fc.assert(
      fc.property(fc.array(span, { maxLength: 8 }), (spans) => {
        const found = merged(spans);
        const holds = (list: readonly Span[], n: bigint) => list.some(([from, to]) => from <= n && n <= to);
        for (let n = 0n; n <= 42n; n++) expect(holds(found, n)).toBe(holds(spans, n));
        found.slice(1).forEach(([from], i) => expect(from).toBeGreaterThan(found[i]![1] + 1n));
      }),
    );
    // The last IPv4 and the first IPv6 address are neighbours on the line and no range.
    expect(merged([v4(0, Number(V6_FIRST) - 1), [V6_FIRST, V6_FIRST]])).toHaveLength(2);
  });
  test('one line for each family and protocol, and none when nobody or nothing is meant', () => {
    const services: Span[] = [
      [serviceAt('tcp', 443), serviceAt('tcp', 443)],
      [serviceAt('icmp', 8), serviceAt('icmp', 8)],
    ];
    const from = [v4(167772161, 167772164)];
    expect(conditions({ from, to: null, services })).toEqual([
      'ip saddr 10.0.0.1-10.0.0.4 tcp dport 443',
      'ip saddr 10.0.0.1-10.0.0.4 icmp type 8',
    ]);
    const six: Span = [V6_FIRST + 1n, V6_FIRST + 1n];
    expect(conditions({ from: [...from, six], to: [six], services })).toEqual([
      'ip6 saddr ::1 ip6 daddr ::1 tcp dport 443',
      'ip6 saddr ::1 ip6 daddr ::1 icmpv6 type echo-request',
    ]);
    expect(conditions({ from: [], to: null, services })).toEqual([]);
    expect(conditions({ from, to: null, services: [] })).toEqual([]);
    expect(conditions({ from: null, to: null, services: null, before: 'iifname "wan0"' })).toEqual([
      'iifname "wan0"',
    ]);
    expect(conditions({ from: null, to: null, services: [v4(PORTS, 2 * PORTS - 1)] })).toEqual([
      'udp dport 0-65535',
    ]);
  });
  test('nothing a person wrote ends a comment, begins a line or becomes a name the kernel refuses', () => {
    expect(quoted('a "b" \\ c\nflush ruleset')).toBe('"a  b    c flush ruleset"');
    // The kernel counts bytes, and takes no half characters.
    const long = quoted('café 🔌 '.repeat(40));
    expect(Buffer.byteLength(long)).toBeLessThanOrEqual(129);
    expect(Buffer.byteLength(long)).toBeGreaterThan(122);
    expect(long.isWellFormed()).toBe(true);
    expect(interfaceName('ge-0.10', 'vlan10')).toBe('ge-0.10');
    expect(interfaceName('a name with spaces', 'vlan10')).toBe('vlan10');
    const sound = soundPolicy();
    const gateway = deviceNamed(sound, 'gw-1');
    const plan = put(sound, 'device', gateway, { name: 'gw-1\nflush ruleset\u2028x' });
    const lines = nftRuleset(plan, plan.device.get(gateway.id)!, null).split('\n');
    expect(lines.filter((line) => line.trimStart().startsWith('flush'))).toEqual([]);
  });
});

test('the tree names every box that meets another by senders or by receivers', () => {
  const box = fc.tuple(span, span, span) as fc.Arbitrary<TrafficRange>;
  fc.assert(
    fc.property(fc.array(box, { maxLength: 20 }), fc.array(box, { maxLength: 4 }), (boxes, asked) => {
      const owners = boxes.map((_, i) => i);
      for (const side of [0, 1] as const) {
        const found = new RangeIndex(boxes, owners, side).meeting(asked, Infinity)!;
        boxes.forEach((one, i) => {
          const meets = asked.some(
            ([...other]) => one[side][0] <= other[side]![1] && other[side]![0] <= one[side][1],
          );
          expect(found.has(i)).toBe(meets);
          if (asked.some((other) => rangesMeet(one, other))) expect(found.has(i)).toBe(true);
        });
        const few = new RangeIndex(boxes, owners, side).meeting(asked, 1);
        expect(few === null).toBe(found.size > 1);
      }
    }),
  );
});
