import { put } from '../../testing/gear';
import { radioOf, soundWireless, ssidNamed } from '../../testing/wireless';
import { beaconTime, beaconsOf } from './airtime';
import { channelsOf, spanOf, takenBy } from './channels';
import { lossBetween, pathLoss, reachOf } from './levels';
import { allowedOn, isKnownCountry, usableChannels } from './regulatory';
import { planOf } from '../../plan';

describe('channels', () => {
  test.each([
    ['2.4', 1, '20', 2402, 2422],
    ['2.4', 6, '40', 2427, 2467],
    ['2.4', 11, '40', 2432, 2472],
    ['5', 36, '20', 5170, 5190],
    ['5', 40, '40', 5170, 5210],
    ['5', 112, '80', 5490, 5570],
    ['5', 116, '80', 5570, 5650],
    ['5', 64, '160', 5170, 5330],
    ['6', 1, '20', 5945, 5965],
    ['6', 37, '160', 6105, 6265],
    ['6', 61, '320', 5945, 6265],
  ] as const)('%s GHz channel %i, %s MHz takes %i to %i MHz', (band, channel, width, from, to) =>
    expect(spanOf(band, channel, width)).toEqual({ from, to }),
  );

  test.each([
    ['5', 144, '160'],
    ['5', 165, '320'],
    ['6', 233, '40'],
    ['5', 38, '20'],
    ['2.4', 14, '20'],
  ] as const)('there is no %s GHz channel %i of %s MHz', (band, channel, width) =>
    expect(spanOf(band, channel, width)).toBeNull(),
  );

  test('a wide channel takes the narrow ones within it', () => {
    expect(takenBy('5', spanOf('5', 104, '80')!)).toEqual([100, 104, 108, 112]);
    expect(channelsOf['5']).toHaveLength(28);
    expect(channelsOf['6']).toHaveLength(59);
  });
});

describe('what is allowed', () => {
  test('Germany: radar from 5250 MHz on, ten minutes for weather radar, indoors below, no channel 14', () => {
    expect(allowedOn('DE', '5', 36, '20')).toEqual({ power: 23, indoors: true, wait: 0, silent: false });
    expect(allowedOn('DE', '5', 52, '20')).toMatchObject({ power: 20, wait: 60 });
    expect(allowedOn('DE', '5', 124, '20')).toMatchObject({ wait: 600 });
    expect(allowedOn('DE', '5', 36, '160')).toMatchObject({ power: 20, wait: 60 });
    expect(allowedOn('DE', '6', 93, '20')).toMatchObject({ indoors: true });
    expect(allowedOn('DE', '6', 97, '20')).toBeNull();
    expect(usableChannels('DE', '2.4', '20')).toContain(13);
  });

  test('the United States: up to 11 at 2.4 GHz, 6 GHz only with an approval of its own', () => {
    expect(usableChannels('US', '2.4', '20').at(-1)).toBe(11);
    expect(allowedOn('US', '6', 1, '20')).toMatchObject({ silent: true });
    expect(usableChannels('US', '6', '20')).toEqual([]);
  });

  test('of no known country: what nearly all allow, which is no more than any of many allow', () => {
    const nearly = usableChannels('', '2.4', '20');
    expect(nearly).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11]);
    expect(usableChannels('ZZ', '2.4', '20')).toEqual(nearly);
    for (const country of ['DE', 'US', 'JP', 'AU', 'BR'])
      for (const band of ['2.4', '5', '6'] as const)
        for (const channel of usableChannels('', band, '20')) {
          const there = allowedOn(country, band, channel, '20');
          // Nearly everywhere is not everywhere; in these it holds.
          expect([country, band, channel, there !== null]).toEqual([country, band, channel, true]);
        }
    expect([isKnownCountry('DE'), isKnownCountry('00'), isKnownCountry('')]).toEqual([true, false, false]);
  });
});

describe('levels', () => {
  test('loss over a distance as ITU-R P.1238 gives it', () => {
    // 20 log 2440 + 30 log 10 − 28 = 67.75 + 30 − 28.
    expect(pathLoss('2.4', 10)).toBeCloseTo(69.75, 1);
    expect(pathLoss('5', 10)).toBeCloseTo(77.8, 1);
    expect(pathLoss('5', 10, 2) - pathLoss('5', 10)).toBeCloseTo(20, 6);
    expect(reachOf('5', 20, 20 - pathLoss('5', 25))).toBeCloseTo(25, 6);
  });

  test('a wall between takes what it takes; one beside, or on another floor, nothing', () => {
    const wall = (id: string, floor: number, x: number) => ({
      id,
      floor,
      fromX: x,
      fromY: -500,
      toX: x,
      toY: 500,
      loss: 12,
    });
    const plan = planOf({ wall: [wall('w1', 0, 500), wall('w2', 0, 2000), wall('w3', 1, 500)] });
    const at = (x: number, floor = 0) => ({ floor, x, y: 0 });
    expect(lossBetween(plan, '5', at(0), at(1000)) - pathLoss('5', 10)).toBeCloseTo(12, 6);
    expect(lossBetween(plan, '5', at(600), at(1600))).toBeCloseTo(pathLoss('5', 10), 6);
    expect(lossBetween(plan, '5', at(0), at(0, 1))).toBeCloseTo(pathLoss('5', 3, 1), 6);
  });
});

describe('beacons', () => {
  test('at 1 Mbit/s with the long preamble, at 6 Mbit/s in symbols of 4 µs', () => {
    // 260 octets and the name: 192 + 8 · 265 µs.
    expect(beaconTime(5, 1)).toBe(2312);
    // 20 + 4 · ⌈(22 + 2120) / 24⌉.
    expect(beaconTime(5, 6)).toBe(380);
  });

  test('a name counts in octets of UTF-8', () => {
    const sound = soundWireless();
    const share = (name: string) => {
      const plan = put(sound, 'ssid', ssidNamed(sound, 'Office'), { name });
      return beaconsOf(plan, radioOf(plan, 'ap', '2.4')).share;
    };
    expect(share('ä')).toBe(share('ab'));
    expect(share('a')).toBeLessThan(share('ä'));
  });
});
