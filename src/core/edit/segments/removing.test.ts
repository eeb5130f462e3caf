import fc from 'fast-check';
import { type Change, type TableName, applyChange, portTitle, vlansOf } from '../../plan';
import { damagedGear, buildGear, soundGear } from '../../testing/gear';
import { nextSeed } from '../../testing/plans';
import { runs } from '../../testing/runs';
import { perform } from '../operations';
import { hangingOn } from './operations';

const sound = soundGear();
const gone = (change: Change, table: TableName) =>
  change.steps.filter((step) => step.table === table && step.after === null);

test('what is said to hang on a segment is what its removal takes along', () => {
  let [fixed, ports] = [0, 0];
  fc.assert(
    fc.property(damagedGear, fc.nat(30), (damage, n) => {
      const plan = buildGear(damage, sound);
      const vlans = vlansOf(plan);
      const vlan = vlans[n % vlans.length]!;
      const hanging = hangingOn(plan, vlan.id);
      const change = perform(plan, { operation: 'removeSegment', input: { vlan: vlan.id } }, nextSeed());
      const addresses = gone(change, 'address').filter(({ id }) => !plan.address.get(id)!.gateway);
      fixed += addresses.length;
      const named = [...hanging.undecided, ...hanging.trunks];
      ports += named.length;
      const changed = change.steps.flatMap(({ table, id, after }) =>
        table === 'port' && after !== null ? [plan.port.get(id)!] : [],
      );
      expect(hanging).toEqual({
        subnets: gone(change, 'subnet').length,
        pools: gone(change, 'pool').length,
        exclusions: gone(change, 'exclusion').length,
        fixed: addresses.length,
        interfaces: hanging.interfaces,
        undecided: expect.any(Array),
        trunks: expect.any(Array),
      });
      expect(named.sort()).toEqual(changed.map((port) => portTitle(plan, port)).sort());
      const without = applyChange(plan, change);
      if (!without.ok) throw new Error('the removal does not apply');
      for (const { id, role } of changed)
        if (role === 'access') expect(without.plan.port.get(id)).toMatchObject({ pvid: null });
      // With the last address of a host its interfaces may go too.
      expect(gone(change, 'interface').length).toBeGreaterThanOrEqual(hanging.interfaces);
    }),
    { numRuns: runs(150) },
  );
  expect(Math.min(fixed, ports)).toBeGreaterThan(0);
});
