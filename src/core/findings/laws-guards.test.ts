import { buildGuards, damagedGuards, guardDamages, soundGuards } from '../testing/guards';
import { findingLaws } from '../testing/laws';
import { guardChecks } from './checks/guards';

const sound = soundGuards();
findingLaws({
  name: 'guards',
  drawn: damagedGuards.map((path) => () => buildGuards(path, sound)),
  walk: damagedGuards,
  damages: guardDamages,
  checks: guardChecks,
  runs: 800,
});
