import { accessDamages, buildAccess, damagedAccess, soundAccess } from '../testing/access';
import { findingLaws } from '../testing/laws';
import { askingChecks } from './checks/guards';

const sound = soundAccess();
findingLaws({
  name: 'who is let in',
  drawn: damagedAccess.map((path) => () => buildAccess(path, sound)),
  walk: damagedAccess,
  damages: accessDamages,
  checks: askingChecks,
  runs: 800,
});
