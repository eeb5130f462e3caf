import { LOG_PART, log } from '@/contract/log';
import { isOfRun, mayBeAdded } from '@/core/log';
import { addToLog, logSince } from '@/db/log';
import { revisionOf } from '@/db/sites';
import { application } from '@/server/application';
import { onlyRun } from '@/server/lan/limits';
import { Problem } from '@/server/problems';
import { serve } from '../../../_lib/serve';
import { found } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

/** The log after an entry. */
export const GET = serve(log.entries, async ({ site, query: { since }, request }) => {
  const { pool } = application();
  found(site, await revisionOf(pool, site));
  const entries = await logSince(pool, site, since, LOG_PART + 1);
  const part = entries.slice(0, LOG_PART);
  const run = onlyRun(request);
  return {
    entries: run === null ? part : part.filter((entry) => isOfRun(entry, run)),
    upTo: part.at(-1)?.seq ?? since,
    more: entries.length > part.length,
  };
});

/** Adds to the log. */
export const POST = serve(log.add, async ({ site, body: { sent, entries }, request }) => {
  const run = onlyRun(request);
  if (run !== null && !entries.every((entry) => mayBeAdded(entry, run)))
    throw new Problem(
      422,
      'Not of this run',
      'A paired phone writes down what became of its run; write anything else down at the laptop.',
      { path: ['entries'] },
    );
  const arrived = { entries, sent: Date.parse(sent), now: Date.now() };
  return { entries: found(site, await addToLog(application().pool, site, arrived)) };
});
