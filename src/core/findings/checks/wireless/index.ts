import type { Check, SiteCheck } from '../../finding';
import { nameChecks } from './names';
import { networkChecks } from './networks';
import { radioChecks, radioSiteChecks } from './radios';
import { wiredChecks } from './wired';

export { radioChecks } from './radios';
/** Checks of the air over the whole site: networks, and the wire behind them. */
export const wirelessSiteChecks: readonly SiteCheck[] = [
  ...nameChecks,
  ...networkChecks,
  ...radioSiteChecks,
  ...wiredChecks,
];
/** Everything that is checked of the air. */
export const wirelessChecks: readonly Check[] = [...wirelessSiteChecks, ...radioChecks];
