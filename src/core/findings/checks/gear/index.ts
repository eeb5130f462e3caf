import type { SiteCheck } from '../../finding';
import { boxChecks } from './boxes';
import { cableChecks } from './cables';
import { endChecks } from './ends';
import { managementChecks } from './management';
import { portChecks } from './ports';
import { wayChecks } from './ways';

/** Every check of boxes, ports and cables. */
export const gearChecks: readonly SiteCheck[] = [
  ...wayChecks,
  ...portChecks,
  ...endChecks,
  ...cableChecks,
  ...boxChecks,
  ...managementChecks,
];
