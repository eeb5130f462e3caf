import { routes } from '@/contract';
import { type Entry, undoable } from '@/db/journal';
import { revisionOf } from '@/db/sites';
import { application } from '@/server/application';
import { serve } from '../../../_lib/serve';
import { found } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

const shown = (entry: Entry | null) => entry && { ...entry, steps: [...entry.steps] };

/** The entries that undo and redo would revert for a browser. */
export const GET = serve(routes.journal.undoable, async ({ site, query }) => {
  const { pool } = application();
  found(site, await revisionOf(pool, site));
  const { undo, redo } = await undoable(pool, site, query.browser);
  return { undo: shown(undo), redo: shown(redo) };
});
