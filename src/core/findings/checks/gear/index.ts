import type { BoxCheck, SiteCheck, VlanCheck } from '../../finding';
import { bundleChecks } from './bundles';
import { boxChecks, sizeOfGearChecks } from './boxes';
import { cableBoxChecks, cableChecks } from './cables';
import { endBoxChecks, endChecks } from './ends';
import { managementChecks } from './management';
import { portChecks } from './ports';
import { wayChecks, wayVlanChecks } from './ways';

/** Checks of boxes, ports and cables over the whole site. */
export const gearChecks: readonly SiteCheck[] = [
  ...wayChecks,
  ...endChecks,
  ...cableChecks,
  ...bundleChecks,
  ...sizeOfGearChecks,
];
/** Those of one box and what is plugged into it. */
export const gearBoxChecks: readonly BoxCheck[] = [
  ...portChecks,
  ...endBoxChecks,
  ...cableBoxChecks,
  ...boxChecks,
  ...managementChecks,
];
/** Those of one VLAN on all boxes. */
export const gearVlanChecks: readonly VlanCheck[] = wayVlanChecks;
