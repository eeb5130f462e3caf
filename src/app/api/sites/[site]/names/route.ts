import { z } from 'zod';
import { database } from '@/db/connection';
import { nameRevision } from '@/db/journal';
import { revisionOf } from '@/db/sites';
import { handle, json, readBody } from '../../../_lib/handle';
import { type SiteParams, authorSchema, now } from '../../../_lib/plans';
import { Problem, unknownSite } from '../../../_lib/problem';

const body = z.strictObject({
  revision: z.number().int().min(1),
  name: z.string().trim().min(1, 'the name is empty; write at least one character').max(80),
  author: authorSchema,
});

/** Gives a revision a name. */
export const POST = handle<SiteParams>(async (request, { site }) => {
  const { revision, name, author } = await readBody(request, body);
  const newest = await revisionOf(database(), site);
  if (newest === null) throw unknownSite(site);
  if (revision > newest)
    throw new Problem(422, 'Unknown revision', `There is no change ${revision}; the newest is ${newest}.`, {
      path: ['revision'],
    });
  await nameRevision(database(), site, revision, name, author, now());
  return json({ revision, name });
});
