import { findingLaws } from '../testing/laws';
import { buildPolicy, damagedPolicy, policyDamages, soundPolicy } from '../testing/policy';
import { policyChecks } from './checks/policy';

const sound = soundPolicy();
findingLaws({
  name: 'who may talk',
  drawn: damagedPolicy.map((damage) => () => buildPolicy(damage, sound)),
  walk: damagedPolicy,
  damages: policyDamages,
  checks: policyChecks,
  runs: 1200,
});
