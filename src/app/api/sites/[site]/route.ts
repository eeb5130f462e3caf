import { routes } from '@/contract';
import { archiveSite, deleteSite, nameOf } from '@/db/sites';
import { application } from '@/server/application';
import { removePhotos } from '@/server/photos';
import { Problem, unknownSite } from '@/server/problems';
import { serve } from '../../_lib/serve';
import { found, now } from '../../_lib/sites';

/** Archives a site or takes it back. Renaming is a change of the plan. */
export const PATCH = serve(routes.sites.archive, async ({ site, body: { archived } }) => {
  if (!(await archiveSite(application().pool, site, archived ? now() : null))) throw unknownSite(site);
  return { archived };
});

/** Deletes a site for good; its name must be typed. */
export const DELETE = serve(routes.sites.remove, async ({ site, body: { name } }) => {
  const { pool } = application();
  const actual = found(site, await nameOf(pool, site));
  if (name.trim() !== actual)
    throw new Problem(
      422,
      'Name does not match',
      `You typed “${name.slice(0, 80)}”; the site is called “${actual}”.`,
      { path: ['name'] },
    );
  await deleteSite(pool, site);
  await removePhotos(site);
  return { deleted: true as const };
});
