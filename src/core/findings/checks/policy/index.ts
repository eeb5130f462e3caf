import type { SiteCheck } from '../../finding';
import { ruleChecks } from './rules';
import { zoneChecks } from './zones';

/** Every check of who may talk. */
export const policyChecks: readonly SiteCheck[] = [...zoneChecks, ...ruleChecks];
