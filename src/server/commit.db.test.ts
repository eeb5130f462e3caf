import type { Pool } from 'mysql2/promise';
import { perform } from '../core/edit';
import { type WireCall, digestOf, encodePlan, encodeStep, vlansOf } from '../core/plan';
import { done, emptySite } from '../core/testing/plans';
import { openDatabase } from '../db/connection';
import { acceptedSteps, entriesSince } from '../db/journal';
import { deleteSite, revisionOf } from '../db/sites';
import { AT, bodyOf, none, stored, storedSite, testDatabase } from './testing';
import { Commits, Overtaken } from './commit';
import { Plans } from './plans';

let pool: Pool;
let commits: Commits;
beforeAll(async () => {
  pool = await testDatabase();
});
beforeEach(() => {
  commits = process1();
});
afterAll(() => pool.end());

/** A process with plans of its own. */
const process1 = (on = pool) => new Commits(on, new Plans(on));
const twoSegments = () =>
  done(done(emptySite(), 'addSegment', { purpose: 'staff' }), 'addSegment', { purpose: 'cameras' });
const add = (purpose: string): WireCall => ({ operation: 'addSegment', input: { purpose } });
const rename = (id: string, from: string, to: string): WireCall => ({
  operation: 'edit',
  input: { table: 'vlan', id, set: { name: to }, seen: { name: from } },
});
const nameOf = async (site: string, id: string) => (await stored(pool, site)).plan.vlan.get(id)!.name;

describe('a change', () => {
  test('is what the operation says on the newest plan, whatever revision it was asked on', async () => {
    const plan = twoSegments();
    const site = await storedSite(pool, plan);
    const [staff, cameras] = [vlansOf(plan)[0]!, vlansOf(plan)[1]!];
    await commits.save(site, bodyOf(0, rename(staff.id, 'Staff', 'Crew')), AT);
    const saved = await commits.save(site, bodyOf(0, rename(cameras.id, 'Cameras', 'Eyes')), AT);
    expect(saved).toMatchObject({ revision: 2, more: false });
    expect(saved!.entries.map(({ revision }) => revision)).toEqual([1, 2]);
    expect([await nameOf(site, staff.id), await nameOf(site, cameras.id)]).toEqual(['Crew', 'Eyes']);
  });

  test('of a field that somebody else changed is refused, and overwrites nothing', async () => {
    const plan = twoSegments();
    const site = await storedSite(pool, plan);
    const staff = vlansOf(plan)[0]!;
    await commits.save(site, bodyOf(0, rename(staff.id, 'Staff', 'Crew')), AT);
    await expect(commits.save(site, bodyOf(0, rename(staff.id, 'Staff', 'Team')), AT)).rejects.toMatchObject({
      code: 'changed',
    });
    expect(await nameOf(site, staff.id)).toBe('Crew');
    expect(await revisionOf(pool, site)).toBe(1);
  });

  test('is not undone where somebody built on it, nor where what it stood on is gone', async () => {
    const site = await storedSite(pool, twoSegments());
    const made = bodyOf(0, add('voice'));
    await commits.save(site, made, AT);
    const voice = vlansOf((await stored(pool, site)).plan).at(-1)!.id;
    const subnet = { vlan: voice, prefix: '10.99.0.0/24' };
    const built = bodyOf(1, { operation: 'addSubnet', input: subnet }, { browser: 'browser02' });
    await commits.save(site, built, AT);
    const undo = bodyOf(2, none, { kind: 'undo', undoes: made.seed } as never);
    await expect(commits.save(site, undo, AT)).rejects.toMatchObject({ code: 'in-use' });
    expect(await revisionOf(pool, site)).toBe(2);

    const { plan } = await stored(pool, site);
    const leased = [...plan.pool.values()].find(({ subnet }) => plan.subnet.get(subnet)!.vlan === voice)!;
    const taken = bodyOf(2, { operation: 'removeRange', input: { table: 'pool', id: leased.id } });
    await commits.save(site, taken, AT);
    await commits.save(site, bodyOf(3, { operation: 'removeSegment', input: { vlan: voice } }), AT);
    const back = bodyOf(4, none, { kind: 'undo', undoes: taken.seed } as never);
    await expect(commits.save(site, back, AT)).rejects.toMatchObject({ code: 'missing' });
  });

  test('that was reviewed is refused where its result would be another', async () => {
    const plan = twoSegments();
    const site = await storedSite(pool, plan);
    const body = bodyOf(0, add('guest'), { reviewed: true });
    const digest = digestOf(perform(plan, add('guest'), body.seed).steps.map(encodeStep));
    await commits.save(site, bodyOf(0, add('voice')), AT);
    await expect(commits.save(site, { ...body, digest }, AT)).rejects.toBeInstanceOf(Overtaken);
    const alone = await storedSite(pool, plan);
    const saved = await commits.save(alone, { ...body, digest }, AT);
    // The client worked out the same, so it is not told its own steps again.
    expect(saved).toMatchObject({ revision: 1, entries: [{ steps: null }] });
  });

  test('sent twice is saved once, and its answer is the same', async () => {
    const site = await storedSite(pool, twoSegments());
    const body = bodyOf(0, add('voice'));
    const first = await commits.save(site, body, AT);
    expect(await commits.save(site, body, AT)).toEqual(first);
    expect(await process1().save(site, body, AT)).toEqual(first);
    expect(await entriesSince(pool, site, 0)).toHaveLength(1);
  });

  test('that changes nothing is no change', async () => {
    const plan = twoSegments();
    const site = await storedSite(pool, plan);
    const staff = vlansOf(plan)[0]!;
    expect(await commits.save(site, bodyOf(0, rename(staff.id, 'Staff', 'Staff')), AT)).toEqual({
      revision: null,
      entries: [],
      more: false,
    });
    expect(await revisionOf(pool, site)).toBe(0);
  });

  test('cannot bring steps of its own, nor an operation that is none', async () => {
    const site = await storedSite(pool, twoSegments());
    const steps = [{ table: 'site', id: 'site', before: {}, after: null }];
    for (const call of [
      { operation: 'takeSteps', input: { label: 'mine', steps } },
      { operation: 'nosuch', input: {} },
    ])
      await expect(commits.save(site, bodyOf(0, call), AT)).rejects.toMatchObject({
        path: ['operation'],
      });
    expect(await commits.save('nosuchsite', bodyOf(0, add('voice')), AT)).toBeNull();
  });

  test('is undone and redone by its seed, in the browser that made it and in no other', async () => {
    const plan = twoSegments();
    const site = await storedSite(pool, plan);
    const made = bodyOf(0, add('voice'));
    await commits.save(site, made, AT);
    const after = (await stored(pool, site)).plan;
    const undo = bodyOf(1, none, { kind: 'undo', undoes: made.seed } as never);
    await expect(commits.save(site, { ...undo, browser: 'browser02' }, AT)).rejects.toMatchObject({
      path: ['undoes'],
    });
    await commits.save(site, undo, AT);
    expect(encodePlan((await stored(pool, site)).plan)).toEqual(encodePlan(plan));
    const redo = bodyOf(2, none, { kind: 'redo', undoes: undo.seed } as never);
    await commits.save(site, redo, AT);
    expect(encodePlan((await stored(pool, site)).plan)).toEqual(encodePlan(after));
    expect((await entriesSince(pool, site, 0)).map(({ label, undoes }) => [label, undoes])).toEqual([
      ['Voice added as VLAN 30, 10.20.30.0/24', null],
      ['Undo: Voice added as VLAN 30, 10.20.30.0/24', 1],
      ['Redo: Voice added as VLAN 30, 10.20.30.0/24', 2],
    ]);
  });

  test('of what was accepted of a proposal is told apart from others, until it is undone', async () => {
    const plan = twoSegments();
    const site = await storedSite(pool, plan);
    const vlan = [...plan.vlan.values()][0]!;
    const renamed = (name: string, before = vlan) =>
      encodeStep({ table: 'vlan', id: vlan.id, before, after: { ...vlan, name } });
    const accept = (revision: number, step: unknown) =>
      bodyOf(revision, { operation: 'acceptProposal', input: { label: 'Proposal accepted', steps: [step] } });
    const names = async () =>
      (await acceptedSteps(pool, site)).map(({ after }) => (after as { name: string }).name);
    await commits.save(site, bodyOf(0, add('voice')), AT);
    expect(await names()).toEqual([]);
    const first = accept(1, renamed('Proposed'));
    await commits.save(site, first, AT);
    await commits.save(site, accept(2, renamed('Proposed anew', { ...vlan, name: 'Proposed' })), AT);
    expect(await names()).toEqual(['Proposed anew']);
    // It was there before any of them.
    expect((await acceptedSteps(pool, site))[0]!.before).toMatchObject({ name: vlan.name });
    // What it meets is otherwise by now: it is refused like any other.
    await expect(commits.save(site, accept(3, renamed('Too late')), AT)).rejects.toMatchObject({
      code: 'changed',
    });
    const last = accept(3, renamed('Last', { ...vlan, name: 'Proposed anew' }));
    await commits.save(site, last, AT);
    const undo = bodyOf(4, none, { kind: 'undo', undoes: last.seed } as never);
    await commits.save(site, undo, AT);
    expect(await names()).toEqual(['Proposed anew']);
    await commits.save(site, bodyOf(5, none, { kind: 'redo', undoes: undo.seed } as never), AT);
    expect(await names()).toEqual(['Last']);
  });

  test('whose rows are not what this process takes them for is made on what they are', async () => {
    const site = await storedSite(pool, twoSegments());
    const other = process1();
    await commits.save(site, bodyOf(0, add('voice')), AT);
    await other.save(site, bodyOf(0, add('guest')), AT);
    await deleteSite(pool, site);
    expect(await commits.save(site, bodyOf(0, add('iot')), AT)).toBeNull();
  });
});

describe('many writers', () => {
  test('of two processes on one site: all is saved, in one order, and the plan is what the journal says', async () => {
    const plan = twoSegments();
    const site = await storedSite(pool, plan);
    const second = openDatabase(process.env.TEST_DATABASE_URL!);
    const processes = [commits, process1(second)];
    const staff = vlansOf(plan)[0]!.id;
    const edits = Array.from({ length: 60 }, (_, i) =>
      processes[i % 2]!.save(
        site,
        bodyOf(0, { operation: 'edit', input: { table: 'vlan', id: staff, set: { devices: i } } }),
        AT,
      ),
    );
    const saved = await Promise.all(edits);
    expect(new Set(saved.map((item) => item!.revision).filter((item) => item !== null)).size).toBe(
      saved.filter((item) => item!.revision !== null).length,
    );
    const entries = await entriesSince(pool, site, 0);
    const last = entries.at(-1)!;
    expect((await stored(pool, site)).plan.vlan.get(staff)!.devices).toBe(last.steps[0]!.after!.devices);
    await second.end();
  });

  test('while the site is deleted: each is saved or told that it is gone, none fails', async () => {
    const site = await storedSite(pool, twoSegments());
    const second = openDatabase(process.env.TEST_DATABASE_URL!);
    const processes = [commits, process1(second)];
    const edits = Array.from({ length: 40 }, (_, i) =>
      processes[i % 2]!.save(
        site,
        bodyOf(0, { operation: 'edit', input: { table: 'site', id: 'site', set: { notes: `n ${i}` } } }),
        AT,
      ),
    );
    const removal = deleteSite(pool, site);
    const results = await Promise.all(edits);
    expect(await removal).toBe(true);
    expect(results.filter((item) => item === null).length).toBeGreaterThan(0);
    expect(await entriesSince(pool, site, 0)).toEqual([]);
    await second.end();
  });
});
