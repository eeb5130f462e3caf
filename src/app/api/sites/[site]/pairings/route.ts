import { log } from '@/contract/log';
import { endPairings, offerRun } from '@/db/pairings';
import { revisionOf } from '@/db/sites';
import { application } from '@/server/application';
import { Problem } from '@/server/problems';
import { serve } from '../../../_lib/serve';
import { found } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

/** Offers a run to a phone. */
export const POST = serve(log.offer, async ({ site, body: { run } }) => {
  const { pool } = application();
  found(site, await revisionOf(pool, site));
  const origins = (process.env.DIANOME_LAN ?? '').split(' ').filter(Boolean);
  if (origins.length === 0)
    throw new Problem(
      409,
      'Loopback only',
      'Phones cannot reach this program: it answers this machine only. End it and start it with: npm start -- --lan',
    );
  const offer = await offerRun(pool, { site, run }, Date.now());
  return { urls: origins.map((origin) => `${origin}/pair?offer=${offer}`) };
});

/** Ends all pairings of a run. */
export const DELETE = serve(log.unpair, async ({ site, query: { run } }) => ({
  ended: await endPairings(application().pool, { site, run }),
}));
