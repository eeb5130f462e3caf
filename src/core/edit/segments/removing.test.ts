import fc from 'fast-check';
import { type Change, type TableName, vlansOf } from '../../plan';
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
      ports += hanging.ports;
      expect(hanging).toEqual({
        subnets: gone(change, 'subnet').length,
        pools: gone(change, 'pool').length,
        exclusions: gone(change, 'exclusion').length,
        fixed: addresses.length,
        interfaces: hanging.interfaces,
        ports: change.steps.filter(({ table, after }) => table === 'port' && after !== null).length,
      });
      // With the last address of a host its interfaces may go too.
      expect(gone(change, 'interface').length).toBeGreaterThanOrEqual(hanging.interfaces);
    }),
    { numRuns: runs(150) },
  );
  expect(Math.min(fixed, ports)).toBeGreaterThan(0);
});
