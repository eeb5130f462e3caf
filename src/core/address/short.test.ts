import fc from 'fast-check';
import { prefix } from '../testing/plans';
import { lastOf, networkOf, parseIpv4, parseAddressIn, shortAddress, shortRange } from './index';

const at = (text: string) => parseIpv4(text)!;

test('an address by what differs inside its subnet', () => {
  expect(shortAddress(at('10.20.30.4'), prefix('10.20.30.0/24'))).toBe('.4');
  expect(shortAddress(at('10.20.31.4'), prefix('10.20.30.0/23'))).toBe('.31.4');
  expect(shortAddress(at('10.20.31.4'), prefix('10.0.0.0/8'))).toBe('10.20.31.4');
  expect(shortAddress(at('10.20.31.4'), prefix('10.20.30.0/24'))).toBe('10.20.31.4');
  expect(shortAddress(0xfd00n << 112n, prefix('fd00::/64'))).toBe('fd00::');
  expect(shortRange({ start: at('10.1.2.3'), end: at('10.1.2.9') }, prefix('10.1.2.0/24'))).toBe('.3–.9');
});

test('what is shown beside a subnet is read back as that address, inside or not', () => {
  fc.assert(
    fc.property(
      fc.nat(2 ** 32 - 1),
      fc.integer({ min: 1, max: 32 }),
      fc.nat(2 ** 32 - 1),
      (near, length, n) => {
        const subnet = networkOf(near, length);
        const last = lastOf(subnet) as number;
        const inside = (subnet.address as number) + (n % (last - (subnet.address as number) + 1));
        for (const address of [inside, n])
          expect(parseAddressIn(shortAddress(address, subnet), subnet)).toBe(address);
      },
    ),
  );
});

test.each([
  ['24', '10.20.30.24'],
  [' .24 ', '10.20.30.24'],
  ['.31.24', '10.20.31.24'],
  ['.0.1.2', '10.0.1.2'],
  ['192.0.2.7', '192.0.2.7'],
])('%s beside 10.20.30.0/23 is %s', (text, meant) =>
  expect(parseAddressIn(text, prefix('10.20.30.0/23'))).toBe(at(meant)),
);

test.each(['.300', '31.24', '.1.2.3.4', '.', '', '1.2.3', 'x'])('%s is no address there', (text) =>
  expect(parseAddressIn(text, prefix('10.20.30.0/23'))).toBeNull(),
);

test('there is no short form of IPv6', () => {
  expect(parseAddressIn('.24', prefix('fd00::/64'))).toBeNull();
  expect(parseAddressIn('fd00::1', prefix('fd00::/64'))).toBe((0xfd00n << 112n) + 1n);
});
