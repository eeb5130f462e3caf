import type { SiteCheck } from '../../finding';

export const policyCheck = (id: string, find: SiteCheck['find']): SiteCheck => ({
  id,
  station: 'policy',
  scope: 'site',
  find,
});
