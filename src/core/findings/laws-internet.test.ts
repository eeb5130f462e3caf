import { buildInternet, damagedInternet, internetDamages, soundInternet } from '../testing/internet';
import { findingLaws } from '../testing/laws';
import { internetChecks } from './checks/internet';

const sound = soundInternet();
findingLaws({
  name: 'the Internet side',
  drawn: damagedInternet.map((damage) => () => buildInternet(damage, sound)),
  walk: damagedInternet,
  damages: internetDamages,
  checks: internetChecks,
  runs: 1500,
});
