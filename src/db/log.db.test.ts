import type { Pool } from 'mysql2/promise';
import type { NewEntry } from '../core/log';
import { emptySite } from '../core/testing/plans';
import { storedSite, testDatabase, unique } from '../server/testing';
import { addToLog, logSince, logsOf } from './log';
import { deleteSite } from './sites';

let pool: Pool;
beforeAll(async () => {
  pool = await testDatabase();
});
afterAll(() => pool.end());

const AT = '2026-05-04T10:20:30.456Z';
const SENT = Date.parse('2026-05-04T11:00:00Z');
const note = (text: string): NewEntry => ({
  id: unique('e'),
  author: 'Ada',
  at: AT,
  revision: 0,
  body: { kind: 'note', text, about: null, reading: '', photos: [] },
});
const add = (site: string, entries: readonly NewEntry[], behind = 0) =>
  addToLog(pool, site, { entries, sent: SENT, now: SENT + behind });

describe('the log', () => {
  test('keeps entries in their order with both clocks, and one sent again once', async () => {
    const site = await storedSite(pool, emptySite());
    const [one, two, three] = [note('one'), note('zwölf 🔌'), note('three')];
    const kept = await add(site, [one, two], 90_000);
    expect(kept).toMatchObject([
      { ...one, seq: 1, behind: 90_000, received: '2026-05-04T11:01:30.000Z' },
      { ...two, seq: 2 },
    ]);
    // The answer got lost: they come again, with another.
    const again = await add(site, [one, two, three], 95_000);
    expect(again).toMatchObject([{ seq: 1, behind: 90_000 }, { seq: 2 }, { ...three, seq: 3 }]);
    expect(await logSince(pool, site, 0, 10)).toEqual(again);
    expect(await logSince(pool, site, 1, 1)).toEqual([again![1]]);
    expect((await logsOf(pool)).get(site)).toBe(3);
  });

  test('of two who write at once, nobody’s entries are lost or numbered twice', async () => {
    const site = await storedSite(pool, emptySite());
    const batches = Array.from({ length: 8 }, (_, at) => [note(`a${at}`), note(`b${at}`)]);
    await Promise.all(batches.map((batch) => add(site, batch)));
    const all = await logSince(pool, site, 0, 100);
    expect(all.map(({ seq }) => seq)).toEqual(Array.from({ length: 16 }, (_, at) => at + 1));
    expect(new Set(all.map(({ id }) => id))).toEqual(new Set(batches.flat().map(({ id }) => id)));
    for (const [first, second] of batches) {
      const at = all.findIndex(({ id }) => id === first!.id);
      expect(all[at + 1]!.id).toBe(second!.id);
    }
  });

  test('goes with its site; a site that is not there has none', async () => {
    const site = await storedSite(pool, emptySite());
    await add(site, [note('one')]);
    await deleteSite(pool, site);
    expect(await logSince(pool, site, 0, 10)).toEqual([]);
    expect((await logsOf(pool)).has(site)).toBe(false);
    expect(await add(site, [note('late')])).toBeNull();
  });
});
