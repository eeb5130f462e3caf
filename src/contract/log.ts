import * as z from 'zod';
import { entryId, logEntrySchema, newEntrySchema } from '../core/log';
import { MEGABYTE, route, siteGone } from './route';
import { count } from './shapes';

/** So many entries are sent or told at once. */
export const LOG_PART = 200;

export const log = {
  add: route({
    method: 'POST',
    path: '/api/sites/{site}/log',
    says: 'Adds entries to the log of a site, in their order. One that is there already, by its id, stays as it is.',
    body: z.strictObject({
      /** The clock of the device while it sends. */
      sent: z.iso.datetime(),
      entries: z.array(newEntrySchema).min(1).max(LOG_PART),
    }),
    limit: 8 * MEGABYTE,
    answer: z.object({ entries: z.array(logEntrySchema) }),
    problems: { ...siteGone, 503: 'The database is away or full.' },
  }),
  entries: route({
    method: 'GET',
    path: '/api/sites/{site}/log',
    says: 'The entries of the log after a number, in parts.',
    query: z.object({ since: count() }),
    answer: z.object({
      entries: z.array(logEntrySchema),
      /** The number of the last entry that was looked at: not all are told to everybody. */
      upTo: z.int().min(0),
      more: z.boolean(),
    }),
    problems: siteGone,
  }),
  addPhoto: route({
    method: 'POST',
    path: '/api/sites/{site}/photos',
    says: 'Keeps a photo that entries of the log speak of. One that is there already, by its id, stays as it is.',
    body: z.strictObject({ id: entryId, jpeg: z.base64() }),
    limit: 6 * MEGABYTE,
    answer: z.object({ id: z.string() }),
    problems: { ...siteGone, 422: 'It is no JPEG picture.' },
  }),
  offer: route({
    method: 'POST',
    path: '/api/sites/{site}/pairings',
    says: 'Offers a run to one phone: addresses with a code that is taken once, within ten minutes.',
    body: z.strictObject({ run: entryId }),
    answer: z.object({ urls: z.array(z.string()) }),
    problems: { ...siteGone, 409: 'The program was started for this machine only.' },
  }),
  unpair: route({
    method: 'DELETE',
    path: '/api/sites/{site}/pairings',
    says: 'Ends all pairings of a run.',
    query: z.object({ run: entryId }),
    answer: z.object({ ended: z.int().min(0) }),
    problems: siteGone,
  }),
  photo: route({
    method: 'GET',
    path: '/api/sites/{site}/photos',
    says: 'A photo.',
    query: z.object({ id: entryId }),
    answer: { type: 'image/jpeg', says: 'The photo, scaled down where it was taken.' },
    problems: { 404: 'There is no such photo.' },
  }),
};
