import { buildGear, damagedGear, gearDamages, gearWalk, soundGear } from '../testing/gear';
import { findingLaws } from '../testing/laws';
import { gearBoxChecks, gearChecks, gearVlanChecks } from './checks/gear';

const sound = soundGear();
findingLaws({
  name: 'gear',
  drawn: damagedGear.map((damage) => () => buildGear(damage, sound)),
  walk: gearWalk,
  damages: gearDamages,
  checks: [...gearChecks, ...gearBoxChecks, ...gearVlanChecks],
  runs: 1500,
});
