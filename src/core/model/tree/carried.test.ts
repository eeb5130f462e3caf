import fc from 'fast-check';
import { vlansOf } from '../../plan';
import { flood, stateKey } from '../wiring';
import { floodFrom } from '../switching';
import { afresh } from '../../testing/plans';
import { buildTrees, damagedTrees, soundTrees, treeDamages } from '../../testing/trees';
import { forwardingFabric } from './forwarding';
import { runs } from '../../testing/runs';

test('floods kept while trees change are those of the plan as it is now', () => {
  const sound = soundTrees();
  fc.assert(
    fc.property(damagedTrees, damagedTrees, (first, then) => {
      let plan = buildTrees(first, sound);
      const all = () => {
        const fresh = forwardingFabric(afresh(plan));
        for (const bridge of fresh.bridges.keys())
          for (const { vid } of vlansOf(plan)) {
            const state = { bridge, vid };
            const keys = (made: ReturnType<typeof flood>) => [...made.came.keys()].sort((a, b) => a - b);
            expect([stateKey(state), keys(floodFrom(plan, state))]).toEqual([
              stateKey(state),
              keys(flood(fresh, { state })),
            ]);
          }
      };
      all();
      for (const [name, a, b] of then) {
        plan = treeDamages[name]!(plan, a, b);
        all();
      }
    }),
    { numRuns: runs(150) },
  );
});
