import { readFileSync } from 'node:fs';
import { readPlanFile } from '../../formats';
import { SpokenBench } from './index';

const house = readPlanFile(readFileSync('demo/1-row-house.json', 'utf8'));

test('a house is set up by typing', () => {
  const bench = new SpokenBench(house);
  expect(bench.answer('boxes')).toMatch(/^gw-1 +no answer +\d+ left$/m);
  expect(bench.answer('set sw-cellar 1')).toBe('Not done. The laptop is plugged in nowhere.');
  expect(bench.answer('sockets')).toMatch(/^ +1 {2}\S+ \d+$/m);
  expect(bench.answer('sit 1')).toMatch(/^The laptop is at /);
  expect(bench.answer('laptop 198.51.100.7/24')).toBe('The laptop has it');
  expect(bench.answer('boxes')).toContain('198.51.100.7 255.255.255.0');
  const before = bench.answer('left ap-flat').split('\n').length;
  expect(bench.answer('console ap-flat 1')).toMatch(/^Make VLAN /);
  expect(bench.answer('left ap-flat').split('\n')).toHaveLength(before - 1);
  // What was not saved is gone with the plug.
  expect(bench.answer('restart ap-flat')).toBe('It started again');
  expect(bench.answer('left ap-flat').split('\n')).toHaveLength(before);
  expect(bench.isFinished()).toBe(false);
  expect(bench.answer('next 2').split('\n').length).toBeGreaterThan(1);
  expect(bench.answer('next all')).toMatch(/Nothing is left to do\.[^]* answers +0 left/);
  expect(bench.isFinished()).toBe(true);
});

test('a command that is not understood says what is', () => {
  const bench = new SpokenBench(house);
  const before = bench.answer('boxes');
  for (const [typed, says] of [
    ['fly', '“fly” is no command; type: help'],
    ['left tower', '“tower” is no box that is set up; type: boxes'],
    ['set gw-1 99', '“99” is no number of what is left there'],
    ['sit 0', '“0” is no number of a place to sit; type: sockets'],
    ['next -1', '“-1” is no number of steps; type a number, or: next all'],
    ['laptop 10.0.0.300/24', '“10.0.0.300/24” is no address with a mask'],
    ['help', 'do what the order says next'],
  ] as const)
    expect(bench.answer(typed)).toContain(says);
  expect(bench.answer('boxes')).toBe(before);
});
