import type { Pool } from 'mysql2/promise';
import { applySteps, type WireCall, encodePlan, vlansOf } from '../core/plan';
import { done, emptySite } from '../core/testing/plans';
import { run } from '../db/connection';
import { stepsBack } from '../db/journal';
import { commit, none, stored, storedSite, testDatabase } from './testing';
import { verifySite } from './verify';

let pool: Pool;
beforeAll(async () => {
  pool = await testDatabase();
});
afterAll(() => pool.end());

const add = (purpose: string): WireCall => ({ operation: 'addSegment', input: { purpose } });

/** A site with changes of every sort in its journal. */
async function worked(): Promise<string> {
  const site = await storedSite(pool, done(emptySite(), 'addSegment', { purpose: 'staff' }));
  for (const purpose of ['guest', 'voice', 'cameras'])
    await commit(pool, site, add(purpose), { seed: `s${purpose}` });
  await commit(pool, site, none, { kind: 'undo', undoes: 'scameras', seed: 'undo01' } as never);
  await commit(pool, site, none, { kind: 'redo', undoes: 'undo01' } as never);
  const [vlan] = vlansOf((await stored(pool, site)).plan);
  await commit(pool, site, { operation: 'removeSegment', input: { vlan: vlan!.id } });
  await commit(pool, site, none, { kind: 'back', to: 1 } as never);
  return site;
}

test('a journal of every sort of change leads to the stored plan', async () => {
  const site = await worked();
  expect(await verifySite(pool, site)).toEqual({ site, revision: 7, entries: 7, wrong: '' });
  const { plan } = await stored(pool, site);
  const first = applySteps(plan, await stepsBack(pool, site, plan, 1));
  expect(first.ok && encodePlan(first.plan)).toEqual(encodePlan(plan));
  expect(await verifySite(pool, 'nosuchsite')).toBeNull();
});

test.each([
  [
    'a row changed past the journal',
    "UPDATE vlan SET name = 'Changed' WHERE site_id = ?",
    /cannot be (taken back|replayed)/,
  ],
  ['an entry taken out', 'DELETE FROM journal WHERE site_id = ? AND revision = 3', /change 3 is missing/],
  [
    'the last entry taken out',
    'DELETE FROM journal WHERE site_id = ? AND revision = 7',
    /ends with change 6/,
  ],
  [
    'steps written over',
    `UPDATE journal SET steps = REPLACE(steps, '"Voice"', '"Noise"') WHERE site_id = ? AND revision = 2`,
    /cannot be (taken back|replayed)/,
  ],
])('%s is found', async (_, sql, wrong) => {
  const site = await worked();
  await run(pool, sql, [site]);
  expect((await verifySite(pool, site))!.wrong).toMatch(wrong);
});
