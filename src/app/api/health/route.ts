import { database, rows } from '@/db/connection';
import { handle, json } from '../_lib/handle';

export const dynamic = 'force-dynamic';

/** Answers once the database does. */
export const GET = handle(async () => {
  await rows(database(), 'SELECT 1');
  return json({ ok: true });
});
