import { database } from '@/db/connection';
import { undoable } from '@/db/journal';
import { revisionOf } from '@/db/sites';
import { decode, handle, json } from '../../../_lib/handle';
import { type SiteParams, authorSchema } from '../../../_lib/plans';
import { unknownSite } from '../../../_lib/problem';

export const dynamic = 'force-dynamic';

/** The entries that undo and redo would revert for `author`. */
export const GET = handle<SiteParams>(async (request, { site }) => {
  const author = decode(authorSchema, new URL(request.url).searchParams.get('author') ?? '');
  if ((await revisionOf(database(), site)) === null) throw unknownSite(site);
  return json(await undoable(database(), site, author));
});
