import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Pool } from 'mysql2/promise';
import fc from 'fast-check';
import { type Call, encodePlan, vlansOf } from '../core/plan';
import {
  buildGear,
  damagedGear,
  deviceNamed,
  portNamed,
  put,
  soundGear,
  vlanFor,
} from '../core/testing/gear';
import { buildInternet, cardOf, damagedInternet, soundInternet } from '../core/testing/internet';
import { buildPolicy, damagedPolicy, soundPolicy } from '../core/testing/policy';
import { build, damagedSite, done, emptySite, prefix } from '../core/testing/plans';
import { openDatabase, rows, run } from './connection';
import { entriesSince, history, nameRevision, stepsBack, undoable } from './journal';
import { migrate } from './migrate';
import { archiveSite, deleteSite, listSites, loadPlan, revisionOf } from './sites';
import { AT, commit, none, stored, storedSite, testDatabase } from '../server/testing';

let pool: Pool;
beforeAll(async () => {
  pool = await testDatabase();
});
afterAll(() => pool.end());

const twoSegments = () =>
  done(done(emptySite(), 'addSegment', { purpose: 'staff' }), 'addSegment', { purpose: 'cameras' });

describe('plans in the database', () => {
  test('anything that is a finding is stored and read back the same', async () => {
    await fc.assert(
      fc.asyncProperty(damagedSite, async (site) => {
        const plan = build(site);
        const id = await storedSite(pool, plan);
        expect(encodePlan((await stored(pool, id)).plan)).toEqual(encodePlan(plan));
        expect(await deleteSite(pool, id)).toBe(true);
      }),
      { numRuns: 25, seed: 9 },
    );
  });

  test('gear with every mistake is stored, a port changed and a box removed in one change each', async () => {
    const sound = soundGear();
    await fc.assert(
      fc.asyncProperty(damagedGear, async (damage) => {
        const plan = buildGear(damage, sound);
        const id = await storedSite(pool, plan);
        expect(encodePlan((await stored(pool, id)).plan)).toEqual(encodePlan(plan));
        expect(await deleteSite(pool, id)).toBe(true);
      }),
      { numRuns: 15, seed: 3 },
    );
    const id = await storedSite(pool, sound);
    const vlan = vlanFor(sound, 'guest').id;
    const ports = [portNamed(sound, 'sw-a', 9).id];
    const first = done(sound, 'carryVlans', { ports, vlan, carry: false });
    const drop: Call = { operation: 'carryVlans', input: { ports, vlan, carry: false } };
    expect(await commit(pool, id, drop)).toMatchObject({ revision: expect.any(Number) });
    expect(encodePlan((await stored(pool, id)).plan)).toEqual(encodePlan(first));
    const device = deviceNamed(sound, 'sw-b').id;
    const remove: Call = { operation: 'removeDevice', input: { device } };
    expect(await commit(pool, id, remove)).toMatchObject({ revision: expect.any(Number) });
    expect((await stored(pool, id)).plan.port.group(device).size).toBe(0);
  });

  test('an Internet side with every mistake is stored; a host goes with the forwards to it', async () => {
    const sound = soundInternet();
    await fc.assert(
      fc.asyncProperty(damagedInternet, async (damage) => {
        const plan = buildInternet(damage, sound);
        const id = await storedSite(pool, plan);
        expect(encodePlan((await stored(pool, id)).plan)).toEqual(encodePlan(plan));
        expect(await deleteSite(pool, id)).toBe(true);
      }),
      { numRuns: 15, seed: 4 },
    );
    // Both families, as a file may bring them.
    const sources = [prefix('198.51.100.0/24'), prefix('2001:db8::/32')];
    const limited = put(sound, 'forward', [...sound.forward.values()][0]!, { sources });
    const id = await storedSite(pool, limited);
    expect(encodePlan((await stored(pool, id)).plan)).toEqual(encodePlan(limited));
    const card = cardOf(limited, 'desk').id;
    const { id: address } = [...limited.address.values()].find((item) => item.interface === card)!;
    const remove: Call = { operation: 'removeHosts', input: { addresses: [address] } };
    expect(await commit(pool, id, remove)).toMatchObject({ revision: expect.any(Number) });
    expect((await stored(pool, id)).plan.forward.size).toBe(0);
  });

  test('zones, cells and rules with every mistake are stored; a segment goes out of its zone and its rules', async () => {
    const sound = soundPolicy();
    await fc.assert(
      fc.asyncProperty(damagedPolicy, async (damage) => {
        const plan = buildPolicy(damage, sound);
        const id = await storedSite(pool, plan);
        expect(encodePlan((await stored(pool, id)).plan)).toEqual(encodePlan(plan));
        expect(await deleteSite(pool, id)).toBe(true);
      }),
      { numRuns: 15, seed: 6 },
    );
    const vlan = vlanFor(sound, 'guest').id;
    const ruled = done(sound, 'addRule', {
      action: 'deny',
      from: [{ vlan }],
      to: [{ prefix: '2001:db8::/32' }],
    });
    const id = await storedSite(pool, ruled);
    expect(encodePlan((await stored(pool, id)).plan)).toEqual(encodePlan(ruled));
    const remove: Call = { operation: 'removeSegment', input: { vlan } };
    expect(await commit(pool, id, remove)).toMatchObject({ revision: expect.any(Number) });
    const { plan } = await stored(pool, id);
    expect(plan.rule.size).toBe(ruled.rule.size - 1);
    expect([...plan.zone.values()].some(({ vlans }) => vlans.includes(vlan))).toBe(false);
  });

  test('names that differ only in case or a trailing space stay different', async () => {
    let plan = twoSegments();
    const [one, two] = vlansOf(plan);
    plan = done(plan, 'edit', { table: 'vlan', id: one!.id, set: { name: 'crew' } });
    plan = done(plan, 'edit', { table: 'vlan', id: two!.id, set: { name: 'Crew' } });
    const id = await storedSite(pool, plan);
    const [[count]] = (await rows(pool, "SELECT COUNT(*) FROM vlan WHERE site_id = ? AND name = 'crew'", [
      id,
    ])) as [[number]];
    expect(count).toBe(1);
    const [[padded]] = (await rows(pool, "SELECT COUNT(*) FROM vlan WHERE site_id = ? AND name = 'crew '", [
      id,
    ])) as [[number]];
    expect(padded).toBe(0);
  });

  test('migrating again, and twice at once, changes nothing', async () => {
    expect(await Promise.all([migrate(pool), migrate(pool)])).toEqual([[], []]);
  });

  test('the list is asked for what a name holds, in capitals or not', async () => {
    const ids: string[] = [];
    for (const name of ['Élan 100%_a', 'élan 100xya', 'Nadir'])
      ids.push(
        await storedSite(pool, done(emptySite(), 'edit', { table: 'site', id: 'site', set: { name } })),
      );
    const named = async (text: string) =>
      (await listSites(pool, '', { after: null, limit: 100, archived: true, named: text })).flatMap(
        ({ id, name }) => (ids.includes(id) ? name : []),
      );
    expect(await named('ÉLAN')).toHaveLength(2);
    expect(await named('%_A')).toEqual(['Élan 100%_a']);
    expect(await named('adi')).toEqual(['Nadir']);
    expect(await named('')).toHaveLength(3);
    for (const id of ids) await deleteSite(pool, id);
  });

  test('the list tells size and state; deleting leaves no row behind', async () => {
    const id = await storedSite(pool, twoSegments());
    await commit(pool, id, { operation: 'addSegment', input: { purpose: 'voice' } });
    await nameRevision(pool, id, 1, 'first', 'Ada', AT);
    expect((await listSites(pool)).find((site) => site.id === id)).toMatchObject({
      segments: 3,
      fixed: 0,
      revision: 1,
      archived: false,
    });
    await archiveSite(pool, id, AT);
    expect((await listSites(pool)).find((site) => site.id === id)!.archived).toBe(true);
    await deleteSite(pool, id);
    expect(await loadPlan(pool, id)).toBeNull();
    const tables = (await rows(
      pool,
      "SELECT table_name FROM information_schema.columns WHERE table_schema = DATABASE() AND column_name = 'site_id'",
    )) as [string][];
    expect(tables.length).toBeGreaterThan(10);
    for (const [table] of tables)
      expect(await rows(pool, `SELECT 1 FROM ${table} WHERE site_id = ?`, [id])).toEqual([]);
    expect(await archiveSite(pool, id, null)).toBe(false);
  });
});

describe('the journal', () => {
  test('leads back to any revision', async () => {
    const id = await storedSite(pool, twoSegments());
    const plans = [encodePlan((await stored(pool, id)).plan)];
    for (const purpose of ['voice', 'guest', 'iot'] as const) {
      await commit(pool, id, { operation: 'addSegment', input: { purpose } });
      plans.push(encodePlan((await stored(pool, id)).plan));
    }
    const removed = vlansOf((await stored(pool, id)).plan)[0]!;
    await commit(pool, id, { operation: 'removeSegment', input: { vlan: removed.id } });
    for (const revision of [2, 0, 3]) {
      await commit(pool, id, none, { kind: 'back', to: revision });
      expect(encodePlan((await stored(pool, id)).plan)).toEqual(plans[revision]);
    }
    expect((await history(pool, id, 99, 3)).map((entry) => entry.label)).toEqual([
      'Back to change 3',
      'Back to change 0',
      'Back to change 2',
    ]);
  });

  test('steps that an earlier version wrote under other names are gone back over', async () => {
    const sound = soundGear();
    const id = await storedSite(pool, sound);
    const device = deviceNamed(sound, 'desk').id;
    expect(await commit(pool, id, { operation: 'addListener', input: { device, port: 443 } })).toMatchObject({
      revision: 1,
    });
    expect((await stored(pool, id)).plan.listener.size).toBe(1);
    const changed = await run(
      pool,
      `UPDATE journal SET steps = REPLACE(steps, '"listener"', '"offer"'), format = 5 WHERE site_id = ?`,
      [id],
    );
    expect(changed).toBe(1);
    const { plan } = await stored(pool, id);
    expect(await stepsBack(pool, id, plan, 0)).toMatchObject([{ table: 'listener', after: null }]);
  });

  test('undo offers only what was done in that browser, whatever name was typed', async () => {
    const id = await storedSite(pool, twoSegments());
    await commit(pool, id, { operation: 'addSegment', input: { purpose: 'voice' } });
    const elsewhere = { browser: 'browser02' };
    await commit(pool, id, { operation: 'addSegment', input: { purpose: 'guest' } }, elsewhere);
    const { undo, redo } = await undoable(pool, id, 'browser01');
    expect(undo).toMatchObject({ revision: 1 });
    expect(redo).toBeNull();
    expect(await undoable(pool, id, 'browser03')).toEqual({ undo: null, redo: null });
  });

  test('is told in parts: so many entries, or so many bytes, and one at least', async () => {
    const id = await storedSite(pool, twoSegments());
    for (const notes of ['a', 'b'.repeat(3500), 'c', 'd'])
      await commit(pool, id, { operation: 'edit', input: { table: 'site', id: 'site', set: { notes } } });
    const told = async (since: number, entries: number, bytes: number) =>
      (await entriesSince(pool, id, since, { entries, bytes })).map(({ revision }) => revision);
    expect(await told(0, 2, 1e6)).toEqual([1, 2]);
    expect(await told(0, 9, 3000)).toEqual([1]);
    expect(await told(1, 9, 3000)).toEqual([2]);
    expect(await told(2, 9, 1e6)).toEqual([3, 4]);
    expect(await told(4, 9, 1e6)).toEqual([]);
  });

  test('a name given twice to a revision is the later one', async () => {
    const id = await storedSite(pool, twoSegments());
    await commit(pool, id, { operation: 'addSegment', input: { purpose: 'voice' } });
    await nameRevision(pool, id, 1, 'draft', 'Ada', AT);
    await nameRevision(pool, id, 1, 'as built', 'Ada', AT);
    expect((await history(pool, id, 99, 9))[0]).toMatchObject({ revision: 1, name: 'as built', at: AT });
  });
});

describe('a server killed while it works', () => {
  test('keeps every acknowledged change and no half of another', async () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'dianome-kill-'));
    const server = () => {
      const { stdout, stderr } = spawnSync(process.execPath, ['scripts/database.mjs', 'start', folder], {
        encoding: 'utf8',
      });
      if (!stdout) throw new Error(stderr);
      return JSON.parse(stdout) as { url: string; pid: number };
    };
    try {
      let acknowledged = 0;
      let named = 0;
      let site = '';
      for (let round = 0; round < 3; round++) {
        const { url, pid } = server();
        const own = openDatabase(url);
        await migrate(own);
        if (!site) site = await storedSite(own, emptySite());
        const { revision, plan } = await stored(own, site);
        // Acknowledged changes are all there; one more may have been durable before its answer got through.
        expect(revision).toBeGreaterThanOrEqual(acknowledged);
        expect(revision).toBeLessThanOrEqual(acknowledged + 1);
        expect(await entriesSince(own, site, 0)).toHaveLength(revision);
        expect(plan.site.get('site')!.notes).toBe(revision === 0 ? '' : `change ${revision}`);
        const names = (await history(own, site, revision + 1, 1000)).filter(({ name }) => name !== null);
        if (named > 0) expect(names.map((item) => item.revision)).toContain(named);
        acknowledged = revision;
        const stopAfter = acknowledged + 15;
        try {
          for (;;) {
            // From the fifteenth change on the kill is under way while the next ones are written.
            if (acknowledged === stopAfter) process.kill(pid, 'SIGKILL');
            const set = { notes: `change ${acknowledged + 1}` };
            const result = await commit(own, site, {
              operation: 'edit',
              input: { table: 'site', id: 'site', set },
            });
            acknowledged = result!.revision!;
            await nameRevision(own, site, acknowledged, `name ${acknowledged}`, 'Ada', AT);
            named = acknowledged;
          }
        } catch (error) {
          expect(String((error as { code?: string }).code)).toMatch(
            /ECONNRESET|ECONNREFUSED|PROTOCOL_CONNECTION_LOST|EPIPE/,
          );
        }
        await own.end().catch(() => {});
      }
      const { url } = server();
      const own = openDatabase(url);
      expect(await revisionOf(own, site)).toBeGreaterThanOrEqual(45);
      await run(own, 'DO 1');
      await own.end();
    } finally {
      spawnSync(process.execPath, ['scripts/database.mjs', 'stop', folder]);
      rmSync(folder, { recursive: true, force: true });
    }
  }, 600_000);
});
