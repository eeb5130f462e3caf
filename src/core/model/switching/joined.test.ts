import fc from 'fast-check';
import { type Plan, vlansOf } from '../../plan';
import { buildGear, damagedGear, soundGear } from '../../testing/gear';
import { drawnNetwork, network } from '../../testing/networks';
import { buildTrees, damagedTrees, soundTrees } from '../../testing/trees';
import { flood, stateKey } from '../wiring';
import { joinedIn } from './joined';
import { fabric } from './reach';

import { moreThan, runs } from '../../testing/runs';

describe('who is on one wire', () => {
  /** Compares with floods; says whether there was anything to compare. */
  const compare = (plan: Plan): boolean => {
    const made = fabric(plan);
    const joined = joinedIn(plan);
    if (!joined) return false;
    const states = made.bridges.flatMap(({ box }, bridge) =>
      // In a box without VLANs a frame is by its tag; what is plugged in sends none.
      box.vlanAware ? vlansOf(plan).map(({ vid }) => ({ bridge, vid })) : [{ bridge, vid: 0 }],
    );
    for (const from of states) {
      const { came } = flood(made, { state: from }, 'boxes');
      for (const to of states)
        expect([from, to, joined.together(from, to)]).toEqual([from, to, came.has(stateKey(to))]);
    }
    return true;
  };

  test('is what floods say, for all VLANs and boxes, on drawn networks', () => {
    let compared = 0;
    fc.assert(
      fc.property(drawnNetwork, (drawn) => {
        if (compare(network(drawn))) compared++;
      }),
      { numRuns: runs(1500), seed: 17 },
    );
    expect(compared).toBeGreaterThan(moreThan(100));
  });

  test('is what floods say where trees block, and on sites gone wrong', () => {
    let compared = 0;
    const sound = soundTrees();
    fc.assert(
      fc.property(damagedTrees, (damage) => {
        if (compare(buildTrees(damage, sound))) compared++;
      }),
      { numRuns: runs(150), seed: 17 },
    );
    const gear = soundGear();
    fc.assert(
      fc.property(damagedGear, (damage) => {
        if (compare(buildGear(damage, gear))) compared++;
      }),
      { numRuns: runs(150), seed: 17 },
    );
    expect(compared).toBeGreaterThan(moreThan(50));
  });
});
