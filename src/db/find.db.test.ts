import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { Pool } from 'mysql2/promise';
import { findInPlan } from '../core/find';
import { readPlanFile } from '../core/formats';
import type { Plan } from '../core/plan';
import { findEverywhere } from './find';
import { storedSite, testDatabase } from '../server/testing';

let pool: Pool;
const sites = new Map<string, Plan>();
beforeAll(async () => {
  pool = await testDatabase();
  for (const name of ['1-row-house', '2-clinic', '3-creamery']) {
    const plan = readPlanFile(readFileSync(path.join('demo', `${name}.json`), 'utf8'));
    sites.set(await storedSite(pool, plan), plan);
  }
});
afterAll(() => pool.end());

test.each([
  '10.20.30.11',
  '192.168.20.1',
  '192.168.20.0/24',
  '10.0.0.0/8',
  'fd00::/8',
  '.11',
  '.20.11',
  '.300',
  '5e:00:53:4',
  '00-00-5E-00-53-01',
  '20',
  'vlan 30',
  'cam',
  'guest',
  'GW-1',
  'sw-a 7',
  'sw-',
  'office',
  '100%',
  'a_b',
  'no such thing',
])('“%s” is found in all sites as in each of them', async (query) => {
  const expected = [...sites].flatMap(([site, plan]) =>
    findInPlan(plan, query, 1000).map((hit) => ({ site, ...hit })),
  );
  const { hits } = await findEverywhere(pool, query, 0, 1000);
  const mine = hits.filter((hit) => sites.has(hit.site)).map(({ siteName: _, ...hit }) => hit);
  const key = (hit: (typeof mine)[number]) =>
    [hit.site, hit.kind, hit.vlan, hit.address, hit.device, hit.port].join();
  const byKey = (list: typeof mine) => [...list].sort((a, b) => (key(a) < key(b) ? -1 : 1));
  expect(byKey(mine)).toEqual(byKey(expected));
});

test('pages go on where the last one ended, each hit once', async () => {
  const whole = (await findEverywhere(pool, 'filler', 0, 1000)).hits;
  expect(whole.length).toBeGreaterThan(1);
  const first = await findEverywhere(pool, 'filler', 0, 1);
  const second = await findEverywhere(pool, 'filler', 1, 1000);
  expect([first.more, second.more]).toEqual([true, false]);
  expect([...first.hits, ...second.hits]).toEqual(whole);
});
