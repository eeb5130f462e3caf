import fc from 'fast-check';
import { VERSION, readPlanFile, writePlanFile } from '../formats';
import { perform } from '../edit';
import { type TableLayout, Collection } from './collection';
import { build, damagedSite, damages, done, emptySite, nextSeed, walk } from '../testing/plans';
import { applySteps, invertSteps, netSteps } from './change';
import { stepsBetween } from './between';
import { equal } from './equal';
import { Refusal } from './refusal';
import { decodeStep, encodePlan, encodeStep } from './wire';
import { vlansOf } from './view';
import { runs } from '../testing/runs';

const same = (a: Parameters<typeof encodePlan>[0], b: typeof a) =>
  expect(encodePlan(a)).toEqual(encodePlan(b));
const applied = (plan: Parameters<typeof applySteps>[0], steps: Parameters<typeof applySteps>[1]) => {
  const result = applySteps(plan, steps);
  if (!result.ok) throw new Error(`does not apply at ${result.failed.table}`);
  return result.plan;
};

describe('steps', () => {
  test('inverting what was applied gives the plan back, and net steps do what all steps did', () => {
    fc.assert(
      fc.property(damagedSite, walk, (site, path) => {
        const start = build(site);
        let plan = start;
        const all = path.flatMap(([name, a, b]) => {
          const next = damages[name]!(plan, a, b);
          const steps = stepsBetween(plan, next);
          plan = next;
          return steps;
        });
        same(applied(start, all), plan);
        same(applied(plan, invertSteps(all)), start);
        same(applied(start, netSteps(all)), plan);
      }),
      { numRuns: runs(150), seed: 3 },
    );
  });
  test('a step applies only to exactly what it expects', () => {
    const plan = emptySite();
    const site = plan.site.get('site')!;
    const step = { table: 'site' as const, id: 'site', before: { ...site, name: 'Other' }, after: site };
    const result = applySteps(plan, [step]);
    expect(result).toEqual({ ok: false, failed: step, found: site });
  });
  test('a step survives JSON', () => {
    fc.assert(
      fc.property(damagedSite, (site) => {
        const steps = stepsBetween(emptySite(), build(site));
        const text = JSON.stringify(steps.map(encodeStep));
        expect((JSON.parse(text) as ReturnType<typeof encodeStep>[]).map(decodeStep)).toEqual(steps);
      }),
      { numRuns: runs(60), seed: 4 },
    );
  });
});

describe('the plan file', () => {
  test('reads back to the same plan and the same bytes', () => {
    fc.assert(
      fc.property(damagedSite, (site) => {
        const text = writePlanFile(build(site));
        const back = readPlanFile(text);
        expect(writePlanFile(back)).toBe(text);
      }),
      { numRuns: runs(100), seed: 6 },
    );
  });
  const file = () => JSON.parse(writePlanFile(done(emptySite(), 'addSegment', { purpose: 'staff' })));
  const refused = (text: string) => {
    try {
      readPlanFile(text);
    } catch (error) {
      if (error instanceof Refusal) return error.message;
      throw error;
    }
    return 'accepted';
  };
  test.each([
    ['not JSON', () => 'hello', /not JSON/],
    ['truncated', () => writePlanFile(emptySite()).slice(0, -200), /cut off/],
    ['another format', () => '{"format":"x"}', /not a plan file/],
    [
      'a newer version',
      () => JSON.stringify({ ...file(), version: VERSION + 1 }),
      new RegExp(`version ${VERSION + 1}.*up to version ${VERSION}`),
    ],
    [
      'an unknown reference',
      () => JSON.stringify(file()).replace(/"vlan":"[a-z0-9]+","prefix"/, '"vlan":"nowhere","prefix"'),
      /subnet\[0\]\.vlan.*nowhere/,
    ],
    [
      'a wrong value',
      () => JSON.stringify(file()).replace('"vid":10', '"vid":5000'),
      /vlan\[0\]\.vid.*5000.*1 to 4094/,
    ],
    ['no site', () => JSON.stringify({ ...file(), plan: { ...file().plan, site: [] } }), /exactly one site/],
    ['no LAN', () => JSON.stringify({ ...file(), plan: { site: file().plan.site } }), /at least one LAN/],
    [
      'an unknown field',
      () => JSON.stringify(file()).replace('"vid":10', '"vid":10,"secret":1'),
      /vlan\[0\]/,
    ],
  ])('refuses %s with the place', (_name, text, message) => expect(refused(text())).toMatch(message));
  test('refuses an id that stands twice', () => {
    const twice = file();
    twice.plan.vlan.push(twice.plan.vlan[0]);
    expect(refused(JSON.stringify(twice))).toMatch(/vlan\[1\].*twice/);
  });
});

describe('collections', () => {
  type Item = { id: string; group: string; value: number };
  const byGroup: TableLayout<Item> = {
    table: 0,
    bucket: ({ group }) => group,
    indexes: { value: ({ value }) => String(value), both: ({ group, value }) => [group, `${value}`] },
  };
  test('behave like a map and share untouched groups', () => {
    const edit = fc.tuple(fc.nat(20), fc.nat(3), fc.nat(9), fc.boolean());
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 60 }), (edits) => {
        const model = new Map<string, Item>();
        let collection = Collection.of<Item>(byGroup, []);
        let asBefore = collection;
        for (const [n, group, value, keep] of edits) {
          const record = { id: `r${n}`, group: `g${group}`, value };
          const others = ['g0', 'g1', 'g2', 'g3'].filter(
            (key) => key !== record.group && key !== model.get(record.id)?.group,
          );
          const before = others.map((key) => collection.group(key));
          collection = collection.with(record.id, keep ? record : null);
          if (keep) model.set(record.id, record);
          else model.delete(record.id);
          others.forEach((key, i) => expect(collection.group(key)).toBe(before[i]));
          const { ids, buckets, keys } = collection.differences(asBefore);
          expect([...ids]).toEqual(keep || asBefore.get(record.id) ? [record.id] : []);
          for (const key of ['g0', 'g1', 'g2', 'g3'])
            expect(buckets.has(key)).toBe(collection.group(key) !== asBefore.group(key));
          for (let n = 0; n <= 9; n++)
            if (!keys.get('value')!.has(String(n)))
              expect(collection.by('value', String(n))).toEqual(asBefore.by('value', String(n)));
          asBefore = collection;
        }
        const again = Collection.of<Item>(byGroup, collection.values());
        for (const key of ['g0', 'g1', 'g2', 'g3', '0', '1', '2'])
          expect(collection.by('both', key)).toEqual(again.by('both', key));
        expect(collection.size).toBe(model.size);
        for (let n = 0; n <= 20; n++) expect(collection.get(`r${n}`)).toEqual(model.get(`r${n}`));
        expect([...collection.values()].map((item) => item.id).sort()).toEqual([...model.keys()].sort());
      }),
    );
  });
  test('refuse an id twice', () => {
    const item = { id: 'a', group: 'g', value: 1 };
    expect(() => Collection.of<Item>(byGroup, [item, item])).toThrow('two records');
  });
});

describe('edits', () => {
  const plan = done(emptySite(), 'addSegment', { purpose: 'staff' });
  const vlan = vlansOf(plan)[0]!;
  const edit =
    (set: object, seen: object = {}) =>
    () =>
      perform(plan, { operation: 'edit', input: { table: 'vlan', id: vlan.id, set, seen } }, nextSeed());
  test('are labelled in plain words', () =>
    expect(edit({ vid: 77 })().label).toBe('Staff (VLAN 10): VLAN id 10 → 77'));
  test('are refused when somebody changed the value meanwhile, naming both', () =>
    expect(edit({ name: 'Crew' }, { name: 'People' })).toThrow(
      'name was People when you edited it and is Staff now',
    ));
  test('change no field that somebody set to the same meanwhile, and the others all the same', () => {
    expect(edit({ name: 'Staff' }, { name: 'People' })().steps).toEqual([]);
    const [step] = edit({ name: 'Staff', vid: 77 }, { name: 'People', vid: 10 })().steps;
    expect(step!.after).toMatchObject({ name: 'Staff', vid: 77 });
    expect(edit({ vid: 77 }, { name: 'People', vid: 10 })).toThrow('name was People');
  });
  test.each([
    [{ vid: 0 }, 'VLAN id is 0; write a whole number from 1 to 4094'],
    [{ vid: 4095 }, 'VLAN id is 4095; write a whole number from 1 to 4094'],
    [{ vid: 'x' }, 'VLAN id is not a number'],
    [{ code: 'toolong' }, 'The code needs two or three capital letters or digits'],
    [{ name: '' }, 'The segment’s name is empty'],
    [{ id: 'other' }, 'no field “id” to edit'],
    [{ nothing: 1 }, 'no field “nothing” to edit'],
    [{ purpose: 'party' }, /purpose/],
  ])('refuse %p', (set, message) => expect(edit(set)).toThrow(message));
  test('an unknown operation is a refusal', () =>
    expect(() => perform(plan, { operation: 'format disk', input: {} }, 'abcdef')).toThrow('no operation'));
  test('two runs with the same seed make the same steps', () => {
    const call = { operation: 'addSegment', input: { purpose: 'voice' } };
    expect(perform(plan, call, 'seed01')).toEqual(perform(plan, call, 'seed01'));
  });
  test('equality looks at values', () => {
    expect(equal({ a: [1n, { b: null }] }, { a: [1n, { b: null }] })).toBe(true);
    expect(equal({ a: 1 }, { a: 1, b: undefined })).toBe(false);
    expect(equal([1], { 0: 1 })).toBe(false);
  });
});
