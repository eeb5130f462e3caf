import { findingLaws } from '../testing/laws';
import { build, damagedSite, damages, walk } from '../testing/plans';
import { gearBoxChecks, gearChecks, gearVlanChecks } from './checks/gear';
import { askingChecks, guardChecks } from './checks/guards';
import { internetChecks } from './checks/internet';
import { policyChecks } from './checks/policy';
import { questionChecks } from './checks/questions';
import { treeChecks } from './checks/trees';
import { wirelessChecks } from './checks/wireless';
import { allChecks } from './engine';

const others = [
  ...gearChecks,
  ...gearBoxChecks,
  ...gearVlanChecks,
  ...internetChecks,
  ...policyChecks,
  ...treeChecks,
  ...questionChecks,
  ...wirelessChecks,
  ...guardChecks,
  ...askingChecks,
];
findingLaws({
  name: 'addresses',
  drawn: damagedSite.map((site) => () => build(site)),
  walk,
  damages,
  checks: allChecks.filter((check) => !others.includes(check as never)),
  runs: 2000,
});
