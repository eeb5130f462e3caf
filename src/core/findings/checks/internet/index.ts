import type { SiteCheck } from '../../finding';
import { forwardChecks } from './forwards';
import { routingChecks } from './routing';
import { innerRouterChecks } from './inner-routers';
import { usedChecks } from './used';
import { uplinkChecks } from './uplinks';
import { upstreamChecks } from './upstream';
import { voiceBoxChecks } from './voice-boxes';

/** Every check of the Internet side. */
export const internetChecks: readonly SiteCheck[] = [
  ...uplinkChecks,
  ...upstreamChecks,
  ...forwardChecks,
  ...routingChecks,
  ...voiceBoxChecks,
  ...usedChecks,
  ...innerRouterChecks,
];
