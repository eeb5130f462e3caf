import fc from 'fast-check';
import { purposeDefaults } from '@/core/model/segments';
import { contrast, luminance, textOn } from '@/core/model/segments';
import { cellsOf } from './pasted';
import { countText } from './count-text';

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

describe('counts', () => {
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
    [
      '\n\tb\r\nc\t\r\n \n',
      [
        ['', 'b'],
        ['c', ''],
      ],
    ],
    ["'-K1\tdesk;'=F1", [['-K1', 'desk;=F1']]],
  ])('%j', (text, cells) => expect(cellsOf(text)).toEqual(cells));
});
