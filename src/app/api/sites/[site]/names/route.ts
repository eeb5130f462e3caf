import { routes } from '@/contract';
import { nameRevision } from '@/db/journal';
import { revisionOf } from '@/db/sites';
import { application } from '@/server/application';
import { Problem } from '@/server/problems';
import { serve } from '../../../_lib/serve';
import { found, now } from '../../../_lib/sites';

/** Gives a revision a name. */
export const POST = serve(routes.journal.name, async ({ site, body: { revision, name, author } }) => {
  const { pool } = application();
  if (!(await nameRevision(pool, site, revision, name, author, now()))) {
    const newest = found(site, await revisionOf(pool, site));
    throw new Problem(422, 'Unknown revision', `There is no change ${revision}; the newest is ${newest}.`, {
      path: ['revision'],
    });
  }
  return { revision, name };
});
