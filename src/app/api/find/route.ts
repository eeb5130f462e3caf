import { routes } from '@/contract';
import { findEverywhere } from '@/db/find';
import { application } from '@/server/application';
import { serve } from '../_lib/serve';

export const dynamic = 'force-dynamic';

const PART = 30;

/** Finds in all sites: an address, prefix, MAC, VLAN id, name or code. */
export const GET = serve(routes.sites.find, async ({ query: { q, after = 0 } }) => {
  const { hits, more } = await findEverywhere(application().pool, q.slice(0, 100), after, PART);
  return { hits, next: more ? after + hits.length : null };
});
