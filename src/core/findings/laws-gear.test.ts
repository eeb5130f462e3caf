import { buildGear, damagedGear, gearDamages, gearWalk, soundGear } from '../testing/gear';
import { findingLaws } from '../testing/laws';
import { gearChecks } from './checks/gear';

const sound = soundGear();
findingLaws({
  name: 'gear',
  drawn: damagedGear.map((damage) => () => buildGear(damage, sound)),
  walk: gearWalk,
  damages: gearDamages,
  checks: gearChecks,
  runs: 1500,
});
