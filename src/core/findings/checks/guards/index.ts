import type { PortCheck, SiteCheck } from '../../finding';
import { accessChecks } from './access';
import { cutOffChecks } from './cut-off';
import { hardeningChecks } from './hardening';
import { portChecks } from './ports';
import { serverChecks } from './servers';
import { telephoneChecks } from './telephones';
import { trustChecks } from './trust';

/** What is checked of who is believed at which port. */
export const guardChecks: readonly (SiteCheck | PortCheck)[] = [
  ...trustChecks,
  ...cutOffChecks,
  ...portChecks,
];
/** What is checked of who is let in at ports, of how boxes were hardened, and of telephones. */
export const askingChecks: readonly (SiteCheck | PortCheck)[] = [
  ...accessChecks,
  ...serverChecks,
  ...hardeningChecks,
  ...telephoneChecks,
];
