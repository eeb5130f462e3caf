import { done } from '../../testing/plans';
import { RING, soundTrees } from '../../testing/trees';
import { deviceNamed, portNamed } from '../../testing/gear';
import { FindingsEngine } from '../../findings';
import { halvesOf } from './balance';
import { treesOf } from '../../model/tree';

const sound = soundTrees();
const id = (name: string) => deviceNamed(sound, name).id;
const input = { devices: RING.map(id), primary: id('sw-a'), secondary: id('sw-b') };

test('VLANs are shared out so that neither half has all the devices, and each is in one half', () => {
  const { first, second } = halvesOf(sound);
  const all = [...first, ...second].map(({ vid }) => vid).sort((a, b) => a - b);
  expect(all).toEqual([...new Set(all)]);
  expect(all).toHaveLength(sound.vlan.size - 1);
  const weight = (half: typeof first) => half.reduce((sum, { devices }) => sum + devices, 0);
  const largest = Math.max(...[...sound.vlan.values()].map(({ devices }) => devices));
  expect(Math.abs(weight(first) - weight(second))).toBeLessThanOrEqual(largest);
});

test('after balancing the box that hangs on both uses one link for each half, and nothing is found', () => {
  const plan = done(sound, 'balanceInstances', input);
  const stopped = (port: number) => treesOf(plan).blocked.get(portNamed(plan, 'sw-c', port).id)!;
  const { first, second } = halvesOf(sound);
  // By port 9 to sw-b, by port 10 to sw-a.
  for (const { vid } of first)
    expect([stopped(9).vids.has(vid) !== stopped(9).except, stopped(10).vids.has(vid)]).toEqual([
      true,
      false,
    ]);
  for (const { vid } of second)
    expect([stopped(9).vids.has(vid) !== stopped(9).except, stopped(10).vids.has(vid)]).toEqual([
      false,
      true,
    ]);
  expect(new FindingsEngine(plan, '2026-05-04').all().map(({ key }) => key)).toEqual([]);
});

test('two roots that are one, or one that does not take part, are refused with the reason', () => {
  const refused = (fields: object) => () => done(sound, 'balanceInstances', { ...input, ...fields });
  expect(refused({ secondary: input.primary })).toThrow('The two roots must be two boxes');
  expect(refused({ secondary: id('gw-1') })).toThrow('gw-1 is not among the boxes.');
});
