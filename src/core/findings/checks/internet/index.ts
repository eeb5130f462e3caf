import type { SiteCheck } from '../../finding';
import { beyondChecks } from './beyond';
import { forwardChecks } from './forwards';
import { uplinkChecks } from './uplinks';

/** Every check of the Internet side. */
export const internetChecks: readonly SiteCheck[] = [...uplinkChecks, ...forwardChecks, ...beyondChecks];
