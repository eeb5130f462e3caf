import type { SiteCheck } from '../../finding';
import { cutOffChecks } from './cut-off';
import { portChecks } from './ports';
import { trustChecks } from './trust';

/** Everything that is checked of guards. */
export const guardChecks: readonly SiteCheck[] = [...trustChecks, ...cutOffChecks, ...portChecks];
