import type { Pool } from 'mysql2/promise';
import { emptySite } from '../core/testing/plans';
import { deleteSite } from '../db/sites';
import { Streams } from './streams';
import { commit, storedSite, testDatabase } from './testing';

let pool: Pool;
beforeAll(async () => {
  pool = await testDatabase();
});
afterAll(() => pool.end());

/** A stream that can be asked when something of a site is said. */
function listening(streams: Streams) {
  const said: string[] = [];
  let look = () => {};
  const remove = streams.add(
    (line) => {
      said.push(line);
      look();
    },
    () => {},
  );
  const hears = (part: string) =>
    new Promise<void>((resolve) => {
      look = () => said.some((line) => line.includes(part)) && resolve();
      look();
    });
  return { said, remove, hears };
}
const at = (site: string, revision: number) => JSON.stringify({ site, revision });
const add = { operation: 'addSegment', input: { purpose: 'staff' } };

test('what is saved as soon as a stream is open is told, and that a site is gone', async () => {
  const site = await storedSite(pool, emptySite());
  const streams = new Streams(pool);
  const one = listening(streams);
  await streams.looked();
  await commit(pool, site, add);
  await one.hears(at(site, 1));
  const other = listening(streams);
  await streams.looked();
  await commit(pool, site, add);
  await Promise.all([one.hears(at(site, 2)), other.hears(at(site, 2))]);
  expect(other.said.some((line) => line.includes(at(site, 1)))).toBe(false);
  other.remove();
  await deleteSite(pool, site);
  await one.hears(at(site, -1));
  expect(other.said.some((line) => line.includes(at(site, -1)))).toBe(false);
  one.remove();
  expect(streams.size).toBe(0);
});

test('a stream that is open after the last one was closed begins with what is so then', async () => {
  const site = await storedSite(pool, emptySite());
  const streams = new Streams(pool);
  const first = listening(streams);
  await streams.looked();
  first.remove();
  await commit(pool, site, add);
  const second = listening(streams);
  await streams.looked();
  await commit(pool, site, add);
  await second.hears(at(site, 2));
  expect(second.said.some((line) => line.includes(at(site, 1)))).toBe(false);
  second.remove();
});
