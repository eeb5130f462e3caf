import type { Plan } from '../../../plan';
import { RING, RING_PORTS, buildTrees, longRing, soundTrees, treeDamages } from '../../../testing/trees';
import { deviceNamed, portNamed } from '../../../testing/gear';
import { done } from '../../../testing/plans';
import { FindingsEngine } from '../../engine';
import { questionChecks } from '../questions';
import { treeChecks } from './';

const sound = soundTrees();
const hurt = (...damage: (readonly [string, number, number])[]) => buildTrees(damage, sound);
const id = (name: string) => deviceNamed(sound, name).id;
const port = (name: string, number: number) => portNamed(sound, name, number).id;
const setPort = (ports: string[], set: object) => done(sound, 'setStpPort', { ports, set });
const setBox = (names: string[], set: object) => done(sound, 'setBridge', { devices: names.map(id), set });

const examples: readonly (readonly [string, string, () => Plan, RegExp])[] = [
  [
    'root-by-accident',
    'fix',
    () => hurt(['equal', 0, 0]),
    /^All 3 boxes have priority 32768, so the lowest MAC address decides: priority 32768 equal, …53:A0 .* would be a good root/,
  ],
  [
    'root-misplaced',
    'fix',
    () => setBox(['sw-c'], { priority: 0 }),
    /^It is 2 links from the router and sw-a 1, so traffic takes a detour\.$/,
  ],
  [
    'root-secondary',
    'note',
    () => hurt(['noSecond', 0, 0]),
    /^2 boxes share the next priority 32768; should the root fail/,
  ],
  [
    'tree-hops',
    'stop',
    () => longRing(6, 0),
    /is 8 links from the root, and messages live for 6: 3 boxes hear/,
  ],
  [
    'tree-priority',
    'fix',
    () => setBox(['sw-c'], { priority: 5000 }),
    /^5000 is no multiple of 4096; .* takes 4096/,
  ],
  [
    'tree-timers',
    'fix',
    () => setBox(['sw-c'], { hello: 10, forwardDelay: 4 }),
    /^2 × \(forward delay 4 − 1\) = 6 is less than max age 20, and max age 20 is less than 2 × \(hello 10 \+ 1\) = 22/,
  ],
  [
    'tree-cost-scales',
    'fix',
    () => setBox(['sw-c'], { costScale: 'short' }),
    /^sw-c counts by the short values .* the other 2 by the long ones/,
  ],
  [
    'mst-region',
    'fix',
    () => {
      const plan = setBox(RING, { mode: 'mst', region: 'yard' });
      const other = done(plan, 'setBridge', { devices: [id('sw-c')], set: { revision: 2 } });
      return done(other, 'setInstance', { devices: [id('sw-a'), id('sw-b')], number: 1, vids: '10,20-22' });
    },
    /^They differ in the revision, [02] and [02], and in the instance of VLAN 10, 20-22\. .* master port/,
  ],
  [
    'edge-at-switch',
    'fix',
    () => setPort([port('sw-b', 10)], { edge: true }),
    /^An edge port forwards at once/,
  ],
  [
    'guard-shut',
    'stop',
    () => setPort([port('sw-b', 10)], { guard: 'bpdu' }),
    /^Its BPDU guard hears the box at the other end/,
  ],
  [
    'ring-broken',
    'stop',
    () => hurt(['ring', 1, 1], ['unplug', 0, 0]),
    /^Followed from its first ring port it ends at sw-[abc]: its ring port leads to no box\./,
  ],
  ['ring-managers', 'stop', () => hurt(['ring', 1, 0]), /^sw-[ab] and sw-[ab] each keep a port shut/],
  [
    'ring-unmanaged',
    'stop',
    () => done(hurt(['ring', 1, 1]), 'setBridge', { devices: [id('sw-b')], set: { ringManager: false } }),
    /^Its ring ports run no spanning tree/,
  ],
  [
    'tree-spare-useless',
    'fix',
    () => hurt(['bare', 5, 0], ['bare', 4, 0], ['bare', 3, 0]),
    /^It is blocked and takes over when another link fails, but carries none/,
  ],
  [
    'question-unexpected',
    'fix',
    () => hurt(['unplug', 0, 0], ['unplug', 3, 0]),
    /^Stopped at desk: .* It is asked because the desk watches the door\.$/,
  ],
  [
    'tree-cuts-vlan',
    'stop',
    () => {
      const guarded = setPort(
        RING_PORTS.flatMap(([name, number]) => (name === 'sw-c' ? [] : [port(name, number)])),
        { guard: 'root' },
      );
      return done(guarded, 'setBridge', { devices: [id('sw-c')], set: { priority: 0 } });
    },
    /^VLAN \d+ is in 2 pieces .* although every link carries it/,
  ],
];

test.each(examples)('%s is a %s with its numbers', (check, severity, make, because) => {
  const found = new FindingsEngine(make(), '2026-05-04').all().filter((finding) => finding.check === check);
  expect(found.map((finding) => finding.because).join('\n')).toMatch(new RegExp(because, 'm'));
  expect(found[0]!.severity).toBe(severity);
});

test('every check of trees has an example', () => {
  expect(
    [...treeChecks, ...questionChecks]
      .map((check) => check.id)
      .filter((name) => !examples.some(([own]) => own === name)),
  ).toEqual([]);
  expect(Object.keys(treeDamages).length).toBeGreaterThan(10);
});
