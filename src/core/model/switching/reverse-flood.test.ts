import fc from 'fast-check';
import { drawnNetwork, network } from '../../testing/networks';
import { fabricOf, flood, stateKey } from '../wiring';
import { reverseFlood } from './reverse-flood';
import { moreThan, runs } from '../../testing/runs';

describe('a flood asked the other way round', () => {
  test('names every box that is heard, in every VLAN, and only those that one link more would make heard', () => {
    let heard = 0;
    fc.assert(
      fc.property(drawnNetwork, (drawn) => {
        const fabric = fabricOf(network(drawn));
        const states = fabric.bridges.flatMap((_, bridge) => [1, 10, 20, 30].map((vid) => ({ bridge, vid })));
        const floods = new Map(states.map((state) => [stateKey(state), flood(fabric, { state })]));
        for (const target of states) {
          const reachers = reverseFlood(fabric, target);
          for (const from of states) {
            const gets = floods.get(stateKey(from))!.came.has(stateKey(target));
            if (gets) heard++;
            // A frame never leaves by the port it came in by, which a look backwards does not know of: it may name more,
            // and never less.
            if (gets) expect(reachers.has(stateKey(from))).toBe(true);
          }
          for (const key of reachers) {
            if (key === stateKey(target)) continue;
            const state = { bridge: Math.floor(key / 4096), vid: key % 4096 };
            const next = flood(fabric, { state }).came;
            expect([...next.keys()].some((at) => at !== key && reachers.has(at))).toBe(true);
          }
        }
      }),
      { numRuns: runs(300) },
    );
    expect(heard).toBeGreaterThan(moreThan(2000));
  });
});
