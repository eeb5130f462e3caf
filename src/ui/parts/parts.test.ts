import fc from 'fast-check';
import { prefix } from '@/core/testing/plans';
import { parseIpv4 } from '@/core/address';
import { purposeDefaults } from '@/core/model/segments';
import { contrast, luminance, textOn } from '@/core/model/segments';
import { cellsOf } from './pasted';
import { countText, shortAddress, shortRange } from './short';

describe('text on a jacket', () => {
  test('luminance and contrast as WCAG 2.2 works them out', () => {
    expect(luminance('#ffffff')).toBeCloseTo(1, 6);
    expect(luminance('#000000')).toBe(0);
    expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 6);
    expect(contrast('#767676', '#ffffff')).toBeCloseTo(4.54, 2);
  });
  test('reads on any colour, and well on the proposed ones', () => {
    const channel = fc.integer({ min: 0, max: 255 }).map((n) => n.toString(16).padStart(2, '0'));
    fc.assert(
      fc.property(channel, channel, channel, (r, g, b) => {
        expect(contrast(`#${r}${g}${b}`, textOn(`#${r}${g}${b}`))).toBeGreaterThan(3.9);
      }),
    );
    for (const { colour } of Object.values(purposeDefaults))
      expect(contrast(colour, textOn(colour))).toBeGreaterThanOrEqual(4.5);
  });
});

describe('short forms', () => {
  const at = (text: string) => parseIpv4(text)!;
  test('an address by what differs inside its subnet', () => {
    expect(shortAddress(at('10.20.30.4'), prefix('10.20.30.0/24'))).toBe('.4');
    expect(shortAddress(at('10.20.31.4'), prefix('10.20.30.0/23'))).toBe('.31.4');
    expect(shortAddress(at('10.20.31.4'), prefix('10.0.0.0/8'))).toBe('10.20.31.4');
    expect(shortAddress(at('10.20.31.4'), prefix('10.20.30.0/24'))).toBe('10.20.31.4');
    expect(shortAddress(0xfd00n << 112n, prefix('fd00::/64'))).toBe('fd00::');
    expect(shortRange({ start: at('10.1.2.3'), end: at('10.1.2.9') }, prefix('10.1.2.0/24'))).toBe('.3–.9');
  });
  test('a count people can read', () => {
    expect(countText(65534)).toBe('65,534');
    expect(countText(2 ** 64)).toBe('2^64');
  });
});

describe('cells copied from a spreadsheet', () => {
  test.each([
    [
      'a\tb\nc\td',
      [
        ['a', 'b'],
        ['c', 'd'],
      ],
    ],
    [
      'a,b\nc,d',
      [
        ['a', 'b'],
        ['c', 'd'],
      ],
    ],
    [
      'a;b\nc;d',
      [
        ['a', 'b'],
        ['c', 'd'],
      ],
    ],
    ['"x, y"\tz', [['x, y', 'z']]],
    ['10,20\tz', [['10,20', 'z']]],
  ])('%j', (text, cells) => expect(cellsOf(text)).toEqual(cells));
});
