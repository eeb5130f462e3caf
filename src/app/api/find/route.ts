import { findInPlan } from '@/core/find';
import { database } from '@/db/connection';
import { listSites } from '@/db/sites';
import { handle, json } from '../_lib/handle';
import { currentPlan } from '../_lib/plans';

export const dynamic = 'force-dynamic';

/** Finds in all sites: an address, prefix, MAC, VLAN id, name or code. */
export const GET = handle(async (request) => {
  const query = (new URL(request.url).searchParams.get('q') ?? '').slice(0, 100);
  // Exercises are copies: what is in them is found in their originals.
  const sites = (await listSites(database())).filter(({ exercise }) => exercise === null);
  const hits = await Promise.all(
    sites.map(async (site) => {
      const { plan } = await currentPlan(site.id);
      return findInPlan(plan, query, 10).map((hit) => ({ ...hit, site: site.id, siteName: site.name }));
    }),
  );
  return json({
    hits: hits
      .flat()
      .sort((a, b) => b.score - a.score)
      .slice(0, 30),
  });
});
