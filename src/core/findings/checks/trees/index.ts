import type { SiteCheck } from '../../finding';
import { linkChecks } from './links';
import { ringChecks } from './rings';
import { rootChecks } from './roots';
import { settingChecks } from './settings';

/** Every check of spanning trees and rings. */
export const treeChecks: readonly SiteCheck[] = [
  ...rootChecks,
  ...settingChecks,
  ...ringChecks,
  ...linkChecks,
];
