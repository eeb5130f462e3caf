import { findingLaws } from '../testing/laws';
import { buildWireless, damagedWireless, soundWireless, wirelessDamages } from '../testing/wireless';
import { wirelessChecks } from './checks/wireless';

const sound = soundWireless();
findingLaws({
  name: 'the air',
  drawn: damagedWireless.map((damage) => () => buildWireless(damage, sound)),
  walk: damagedWireless,
  damages: wirelessDamages,
  checks: wirelessChecks,
  runs: 1300,
});
