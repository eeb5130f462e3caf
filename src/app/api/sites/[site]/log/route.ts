import { LOG_PART, log } from '@/contract/log';
import { addToLog, logSince } from '@/db/log';
import { revisionOf } from '@/db/sites';
import { application } from '@/server/application';
import { serve } from '../../../_lib/serve';
import { found } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

/** The log after an entry. */
export const GET = serve(log.entries, async ({ site, query: { since } }) => {
  const { pool } = application();
  found(site, await revisionOf(pool, site));
  const entries = await logSince(pool, site, since, LOG_PART + 1);
  const part = entries.slice(0, LOG_PART);
  return { entries: part, more: entries.length > part.length };
});

/** Adds to the log. */
export const POST = serve(log.add, async ({ site, body: { sent, entries } }) => {
  const arrived = { entries, sent: Date.parse(sent), now: Date.now() };
  return { entries: found(site, await addToLog(application().pool, site, arrived)) };
});
