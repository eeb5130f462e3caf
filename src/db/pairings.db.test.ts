import type { Pool } from 'mysql2/promise';
import { emptySite } from '../core/testing/plans';
import { storedSite, testDatabase } from '../server/testing';
import { rows } from './connection';
import { OFFER_STANDS, PHONE_STAYS, endPairings, offerRun, pairedBy, takeOffer } from './pairings';
import { deleteSite } from './sites';

let pool: Pool;
beforeAll(async () => {
  pool = await testDatabase();
});
afterAll(() => pool.end());

const NOW = Date.parse('2026-05-04T10:00:00Z');
const offered = async (now = NOW) => {
  const paired = { site: await storedSite(pool, emptySite()), run: 'run00001' };
  return { paired, offer: await offerRun(pool, paired, now) };
};

describe('the pairing of phones', () => {
  test('an offer is taken once; of two who take it at once, one has it', async () => {
    const { paired, offer } = await offered();
    const taken = await Promise.all([takeOffer(pool, offer, NOW), takeOffer(pool, offer, NOW)]);
    const [got, ...others] = taken.filter((one) => one !== null);
    expect(others).toEqual([]);
    expect(got).toMatchObject(paired);
    expect(await takeOffer(pool, offer, NOW)).toBeNull();
    expect(await pairedBy(pool, got!.secret, NOW)).toEqual(paired);
    // Neither is the other.
    expect(await pairedBy(pool, offer, NOW)).toBeNull();
    expect(await takeOffer(pool, got!.secret, NOW)).toBeNull();
  });

  test('an offer and a pairing run out', async () => {
    const { offer } = await offered();
    expect(await takeOffer(pool, offer, NOW + OFFER_STANDS + 1)).toBeNull();
    const { secret } = (await takeOffer(pool, offer, NOW + OFFER_STANDS))!;
    expect(await pairedBy(pool, secret, NOW + OFFER_STANDS + PHONE_STAYS)).not.toBeNull();
    expect(await pairedBy(pool, secret, NOW + OFFER_STANDS + PHONE_STAYS + 1)).toBeNull();
  });

  test('is ended for a run, offers too, and with the site; the secrets themselves are not kept', async () => {
    const { paired, offer } = await offered();
    const { secret } = (await takeOffer(pool, offer, NOW))!;
    const next = await offerRun(pool, paired, NOW);
    const kept = await rows(pool, 'SELECT HEX(digest), LENGTH(digest) FROM pairing WHERE site_id = ?', [
      paired.site,
    ]);
    expect(kept.map(([, length]) => length)).toEqual([32, 32]);
    expect(JSON.stringify(kept)).not.toContain(Buffer.from(secret).toString('hex').toUpperCase());
    expect(await endPairings(pool, { ...paired, run: 'run00002' })).toBe(0);
    expect(await endPairings(pool, paired)).toBe(2);
    expect(await pairedBy(pool, secret, NOW)).toBeNull();
    expect(await takeOffer(pool, next, NOW)).toBeNull();
    await offerRun(pool, paired, NOW);
    await deleteSite(pool, paired.site);
    expect(await rows(pool, 'SELECT 1 FROM pairing WHERE site_id = ?', [paired.site])).toEqual([]);
  });
});
