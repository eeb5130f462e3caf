import type { SiteCheck } from '../../finding';
import { reachChecks } from './reach';
import { rehearsedChecks } from './rehearsed';
import { ruleChecks } from './rules';
import { zoneChecks } from './zones';

/** Every check of who may talk. */
export const policyChecks: readonly SiteCheck[] = [
  ...zoneChecks,
  ...ruleChecks,
  ...rehearsedChecks,
  ...reachChecks,
];
