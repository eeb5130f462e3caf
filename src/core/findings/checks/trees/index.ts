import type { SiteCheck } from '../../finding';
import { linkChecks } from './links';
import { questionChecks } from './questions';
import { ringChecks } from './rings';
import { rootChecks } from './roots';
import { settingChecks } from './settings';

/** Every check of spanning trees, rings and kept questions. */
export const treeChecks: readonly SiteCheck[] = [
  ...rootChecks,
  ...settingChecks,
  ...ringChecks,
  ...linkChecks,
  ...questionChecks,
];
