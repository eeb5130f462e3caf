import { log } from '@/contract/log';
import { revisionOf } from '@/db/sites';
import { application } from '@/server/application';
import { keepPhoto, photoOf } from '@/server/photos';
import { Problem } from '@/server/problems';
import { serve } from '../../../_lib/serve';
import { found } from '../../../_lib/sites';

export const dynamic = 'force-dynamic';

/** A photo that hangs on an entry of the log. */
export const GET = serve(log.photo, async ({ site, query: { id } }) => {
  const bytes = await photoOf(site, id);
  if (!bytes) throw new Problem(404, 'Unknown photo', `There is no photo “${id}” at this site.`);
  // It never changes.
  const headers = { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=31536000, immutable' };
  return new Response(bytes, { headers });
});

/** Keeps a photo. */
export const POST = serve(log.addPhoto, async ({ site, body: { id, jpeg } }) => {
  found(site, await revisionOf(application().pool, site));
  await keepPhoto(site, id, Buffer.from(jpeg, 'base64'));
  return { id };
});
