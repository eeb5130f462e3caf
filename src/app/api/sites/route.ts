import { SITES_PART, routes } from '@/contract';
import { countArchived, listSites } from '@/db/sites';
import { application } from '@/server/application';
import { today } from '@/today';
import { serve, serveUnread } from '../_lib/serve';
import { newId, now } from '../_lib/sites';

export const dynamic = 'force-dynamic';

/** Where the next part of the list begins, as one text. */
const mark = ({ name, id }: { readonly name: string; readonly id: string }) =>
  Buffer.from(JSON.stringify([name, id])).toString('base64url');
function markedBy(text: string | undefined): readonly [string, string] | null {
  if (!text) return null;
  try {
    const [name, id] = JSON.parse(Buffer.from(text, 'base64url').toString()) as unknown[];
    return [String(name), String(id)];
  } catch {
    return null;
  }
}

/** Sites with their size and open findings. */
export const GET = serve(routes.sites.list, async ({ query }) => {
  const { pool, counting } = application();
  const limit = query.limit ?? SITES_PART;
  const archived = query.archived === 'yes';
  const found = await listSites(pool, today(), {
    after: markedBy(query.after),
    limit: limit + 1,
    archived,
    named: query.named ?? '',
  });
  const sites = found.slice(0, limit);
  counting.see(sites);
  return {
    sites: sites.map((site) => (site.exercise === 'open' ? { ...site, findings: null } : site)),
    archived: await countArchived(pool),
    next: found.length > limit ? mark(sites.at(-1)!) : null,
  };
});

/** A new site: from a few decisions, as a copy of another, or from a plan file (its text in `file`). */
export const POST = serveUnread(routes.sites.create, async ({ body: text }) => {
  const id = newId();
  await application().workers.run('makeSite', { id, at: now(), text });
  return { id };
});
