import fc from 'fast-check';
import { formatAddress, formatIpv4, parseAddress, parseIpv4, parseIpv6 } from './ip';
import { isGroupMac, parseMac } from './mac';
import { freeBlocks, packPrefixes, totalSize } from './packing';
import {
  type Prefix,
  contains,
  covers,
  formatPrefix,
  halves,
  isBroadcast,
  lastOf,
  maskOf,
  networkOf,
  overlaps,
  parseMask,
  parsePrefix,
  samePlace,
  sizeOf,
  usableHosts,
  usableRange,
} from './prefix';
import { countOf, endOf } from './range';
import { specialBlockOf } from './special';

const p = (text: string) => parsePrefix(text)!.prefix;
const ipv4 = fc.nat(2 ** 32 - 1);
const ipv6 = fc.bigInt({ min: 0n, max: 2n ** 128n - 1n });

describe('addresses', () => {
  test('text and value round trip in both families', () => {
    fc.assert(
      fc.property(fc.oneof(ipv4, ipv6), (value) => expect(parseAddress(formatAddress(value))).toBe(value)),
    );
  });
  test.each(['1.2.3', '1.2.3.256', '01.2.3.4', '1.2.3.4.5', '1.2.3.-4', '1e1.2.3.4', '', ' '])(
    'refuses %p as IPv4',
    (text) => expect(parseIpv4(text)).toBeNull(),
  );
  // RFC 5952 section 4: leading zeros, longest run, first of equal runs, one zero field, lower case.
  test.each([
    ['2001:0db8::0001', '2001:db8::1'],
    ['2001:db8:0:0:0:0:2:1', '2001:db8::2:1'],
    ['2001:db8:0:1:1:1:1:1', '2001:db8:0:1:1:1:1:1'],
    ['2001:0:0:1:0:0:0:1', '2001:0:0:1::1'],
    ['2001:db8:0:0:1:0:0:1', '2001:db8::1:0:0:1'],
    ['2001:DB8::ABCD', '2001:db8::abcd'],
  ])('writes %s as RFC 5952 says', (text, canonical) =>
    expect(formatAddress(parseIpv6(text)!)).toBe(canonical),
  );
  test('refuses a zone and other text as IPv6', () => {
    expect(parseIpv6('fe80::1%eth0')).toBeNull();
    expect(parseIpv6('12')).toBeNull();
  });
});

describe('prefixes', () => {
  test('usable hosts: RFC 3021 for /31, one for /32', () => {
    expect([24, 26, 29, 30, 31, 32].map((length) => usableHosts({ address: 0, length }))).toEqual([
      254, 62, 6, 2, 2, 1,
    ]);
  });
  test('masks read as people write them', () => {
    for (let length = 0; length <= 32; length++) expect(parseMask(maskOf(length))).toBe(length);
    expect(parseMask('/26')).toBe(26);
    expect(parseMask('255.255.0.255')).toBeNull();
  });
  test('host bits are noticed', () => {
    expect(parsePrefix('192.168.20.7/24')).toEqual({ prefix: p('192.168.20.0/24'), aligned: false });
    expect(parsePrefix('192.168.20.0/33')).toBeNull();
  });
  test('two prefixes overlap exactly when they share an address', () => {
    const small = fc
      .tuple(fc.nat(255), fc.integer({ min: 24, max: 32 }))
      .map(([at, length]) => networkOf(at, length));
    fc.assert(
      fc.property(small, small, (a, b) => {
        const share = Array.from({ length: 256 }, (_, i) => i).some(
          (at) => contains(a, at) && contains(b, at),
        );
        expect(overlaps(a, b)).toBe(share);
      }),
    );
  });
  test('halves make up the whole', () => {
    fc.assert(
      fc.property(ipv6, fc.integer({ min: 0, max: 127 }), (address, length) => {
        const whole = networkOf(address, length);
        const [low, high] = halves(whole);
        expect(low.address).toBe(whole.address);
        expect(lastOf(high)).toBe(lastOf(whole));
        expect(BigInt(high.address)).toBe(BigInt(lastOf(low)) + 1n);
      }),
    );
  });
  test('the same place in another network, to the bit; none for an address of the other family', () => {
    const at = (from: string, to: string, address: string) =>
      formatAddress(samePlace(p(from), p(to), parseAddress(address)!));
    expect(at('10.1.2.0/24', '172.20.9.0/24', '10.1.2.77')).toBe('172.20.9.77');
    expect(at('fd00:1::/64', '2001:db8:9:9::/64', 'fd00:1::200:5eff:fe00:5301')).toBe(
      '2001:db8:9:9:200:5eff:fe00:5301',
    );
    expect(at('10.1.2.0/24', '172.20.9.0/24', 'fd00::5')).toBe('fd00::5');
    expect(at('fd00:1::/64', '2001:db8:9:9::/64', '10.1.2.77')).toBe('10.1.2.77');
    expect(at('10.1.2.0/24', '2001:db8:9:9::/64', '10.1.2.77')).toBe('10.1.2.77');
    fc.assert(
      fc.property(ipv6, ipv6, fc.nat(), fc.integer({ min: 1, max: 127 }), (a, b, host, length) => {
        const [from, to] = [networkOf(a, length), networkOf(b, length)];
        const address = (from.address as bigint) + (BigInt(host) % BigInt(sizeOf(from)));
        const there = samePlace(from, to, address);
        expect(contains(to, there)).toBe(true);
        expect(samePlace(to, from, there)).toBe(address);
      }),
    );
  });
  test('a network of IPv4 has a broadcast address, unless it joins two or is one address', () => {
    const is = (net: string, address: string) => isBroadcast(p(net), parseAddress(address)!);
    expect(is('10.20.20.8/30', '10.20.20.11')).toBe(true);
    expect(is('10.20.20.8/30', '10.20.20.10')).toBe(false);
    expect(is('10.20.20.10/31', '10.20.20.11')).toBe(false);
    expect(is('10.20.20.11/32', '10.20.20.11')).toBe(false);
    expect(is('2001:db8::/64', '2001:db8::ffff:ffff:ffff:ffff')).toBe(false);
  });

  test('the usable range leaves out network and broadcast', () => {
    const { first, last } = usableRange(p('10.44.140.0/26'));
    expect([formatIpv4(first as number), formatIpv4(last as number)]).toEqual([
      '10.44.140.1',
      '10.44.140.62',
    ]);
  });
});

describe('ranges', () => {
  test('a pool from .100 with 50 leases ends at .149', () => {
    const start = parseIpv4('192.168.1.100')!;
    expect(formatIpv4(endOf(start, 50) as number)).toBe('192.168.1.149');
    expect(countOf({ start, end: parseIpv4('192.168.1.149')! })).toBe(50);
  });
});

describe('packing', () => {
  const request = fc.array(fc.integer({ min: 24, max: 30 }), { maxLength: 40 });
  const pins = fc.array(fc.tuple(fc.nat(65535), fc.integer({ min: 22, max: 30 })), { maxLength: 10 });
  test('never overlaps, never touches what is taken, and with the free blocks covers the space', () => {
    fc.assert(
      fc.property(request, pins, (lengths, pinned) => {
        const space = [p('10.0.0.0/16')];
        const taken = pinned.map(([at, length]) => networkOf(10 * 2 ** 24 + at, length));
        const { placed, free } = packPrefixes(
          space,
          taken,
          lengths.map((length, i) => ({ key: String(i), length })),
        );
        const all = [...placed.values()];
        for (const [i, place] of all.entries()) {
          expect(covers(space[0]!, place)).toBe(true);
          expect(taken.some((other) => overlaps(place, other))).toBe(false);
          expect(all.slice(i + 1).some((other) => overlaps(place, other))).toBe(false);
          expect(free.some((other) => overlaps(place, other))).toBe(false);
        }
        const before = totalSize(freeBlocks(space, taken));
        expect(totalSize(all) + totalSize(free)).toBe(before);
      }),
    );
  });
  test('fills a space exactly when the sizes allow it', () => {
    const { unplaced, free } = packPrefixes(
      [p('10.0.0.0/24')],
      [],
      [26, 27, 27, 25].map((length, i) => ({ key: `${i}`, length })),
    );
    expect(unplaced).toEqual([]);
    expect(free).toEqual([]);
  });
  test('a preference is taken when free and reported when not', () => {
    const preferred = [p('10.0.20.0/24')];
    const { placed, displaced } = packPrefixes(
      [p('10.0.0.0/16')],
      [],
      [
        { key: 'a', length: 24, preferred },
        { key: 'b', length: 24, preferred },
      ],
    );
    expect(formatPrefix(placed.get('a')!)).toBe('10.0.20.0/24');
    expect(displaced).toEqual(['b']);
    // Best fit: the /24 that carving left beside the first one.
    expect(formatPrefix(placed.get('b') as Prefix)).toBe('10.0.21.0/24');
  });
  test('overlapping space is not counted twice', () => {
    expect(totalSize(freeBlocks([p('10.0.0.0/24'), p('10.0.0.0/25'), p('10.0.0.0/24')], []))).toBe(
      sizeOf(p('10.0.0.0/24')),
    );
  });
});

describe('special blocks and MAC addresses', () => {
  test.each([
    ['192.168.4.0/24', 'yes'],
    ['100.64.9.0/24', 'warn'],
    ['203.0.113.0/25', 'documentation'],
    ['127.0.0.0/24', 'no'],
    ['fd00:1::/64', 'yes'],
    ['2001:db8:4::/64', 'documentation'],
  ])('%s', (text, inside) => expect(specialBlockOf(p(text))?.inside).toBe(inside));
  test('ordinary public space is not special', () => expect(specialBlockOf(p('9.9.9.0/24'))).toBeNull());
  test.each(['00:00:5E:00:53:0a', '00-00-5e-00-53-0a', '0000.5e00.530a', '00005E00530A', '0:0:5e:0:53:a'])(
    'reads %s',
    (text) => expect(parseMac(text)).toBe('00:00:5E:00:53:0A'),
  );
  test.each(['00:00:5E:00:53', '00:00:5E:00:53:0G', 'hello', '', '00005E00530A11'])('refuses %p', (text) =>
    expect(parseMac(text)).toBeNull(),
  );
  test('knows group addresses', () =>
    expect([isGroupMac('01:00:5E:00:00:01'), isGroupMac('02:00:00:00:00:01')]).toEqual([true, false]));
});
