import type { SiteCheck } from '../../finding';
import { accessChecks } from './access';
import { cutOffChecks } from './cut-off';
import { hardeningChecks } from './hardening';
import { portChecks } from './ports';
import { serverChecks } from './servers';
import { trustChecks } from './trust';

/** What is checked of who is believed at which port. */
export const guardChecks: readonly SiteCheck[] = [...trustChecks, ...cutOffChecks, ...portChecks];
/** What is checked of who is let in at ports, and of how boxes were hardened. */
export const askingChecks: readonly SiteCheck[] = [...accessChecks, ...serverChecks, ...hardeningChecks];
