import { createHash, randomBytes } from 'node:crypto';
import type { Pool } from 'mysql2/promise';
import { toSqlTime } from './columns';
import { rows, run as execute } from './connection';

/**
 * Which phones may see a run. An offer is taken once, within minutes; what the phone holds afterwards ends after days. Both are
 * random, and only their digests are kept.
 */

export interface Paired {
  readonly site: string;
  readonly run: string;
}

/** How long an offer stands, and a phone stays paired, in milliseconds. */
export const OFFER_STANDS = 10 * 60_000;
export const PHONE_STAYS = 14 * 24 * 3_600_000;

const digestOf = (secret: string): Buffer => createHash('sha256').update(secret).digest();
const fresh = (): string => randomBytes(24).toString('base64url');
const at = (time: number): string => toSqlTime(new Date(time).toISOString());

async function keep(
  pool: Pool,
  kind: 'offer' | 'phone',
  { site, run }: Paired,
  until: number,
): Promise<string> {
  const secret = fresh();
  await execute(pool, 'INSERT INTO pairing (digest, site_id, run, kind, until) VALUES (?, ?, ?, ?, ?)', [
    digestOf(secret),
    site,
    run,
    kind,
    at(until),
  ]);
  return secret;
}

/** Offers a run to one phone; what is shown to it. What has run out goes. `now` in milliseconds since 1970. */
export async function offerRun(pool: Pool, paired: Paired, now: number): Promise<string> {
  await execute(pool, 'DELETE FROM pairing WHERE until < ?', [at(now)]);
  return keep(pool, 'offer', paired, now + OFFER_STANDS);
}

async function known(
  pool: Pool,
  kind: 'offer' | 'phone',
  secret: string,
  now: number,
): Promise<Paired | null> {
  const [row] = await rows(
    pool,
    'SELECT site_id, run FROM pairing WHERE digest = ? AND kind = ? AND until >= ?',
    [digestOf(secret), kind, at(now)],
  );
  return row ? { site: row[0] as string, run: row[1] as string } : null;
}

/** Takes an offer: what the phone holds from now on, and of which run. Null where it was taken, has run out, or is none. */
export async function takeOffer(
  pool: Pool,
  offer: string,
  now: number,
): Promise<(Paired & { readonly secret: string }) | null> {
  const paired = await known(pool, 'offer', offer, now);
  // Of two who take it at once, the one whose row goes has it.
  if (!paired || (await execute(pool, 'DELETE FROM pairing WHERE digest = ?', [digestOf(offer)])) === 0)
    return null;
  return { ...paired, secret: await keep(pool, 'phone', paired, now + PHONE_STAYS) };
}

/** The run that a phone may see by what it holds. */
export const pairedBy = (pool: Pool, secret: string, now: number): Promise<Paired | null> =>
  known(pool, 'phone', secret, now);

/** Ends all pairings of a run; how many there were. */
export const endPairings = (pool: Pool, { site, run }: Paired): Promise<number> =>
  execute(pool, 'DELETE FROM pairing WHERE site_id = ? AND run = ?', [site, run]);
