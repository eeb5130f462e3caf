import { ENTRIES_BYTES, ENTRIES_PART, routes } from '@/contract';
import { entriesSince } from '@/db/journal';
import { revisionOf } from '@/db/sites';
import { application } from '@/server/application';
import { jsonBytes, serve, serveUnread } from '../../../_lib/serve';
import { found, now } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

/** Runs an operation on the newest plan and saves what it says. */
export const POST = serveUnread(routes.journal.commit, async ({ site, body: text }) =>
  jsonBytes(await application().writer.commit({ site, text, at: now() })),
);

/** The changes after a revision, in parts. */
export const GET = serve(routes.journal.changes, async ({ site, query }) => {
  const { pool } = application();
  const revision = found(site, await revisionOf(pool, site));
  const entries = query.limit ?? ENTRIES_PART;
  const changes = await entriesSince(pool, site, query.since, { entries, bytes: ENTRIES_BYTES });
  const last = changes.at(-1)?.revision ?? query.since;
  return {
    revision: Math.max(revision, last),
    changes: changes.map((entry) => ({ ...entry, steps: [...entry.steps] })),
    more: changes.length > 0 && last < revision,
  };
});
