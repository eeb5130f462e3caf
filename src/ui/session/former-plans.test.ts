import 'fake-indexeddb/auto';
import { type Plan, encodePlan } from '@/core/plan';
import { soundGear } from '@/core/testing/gear';
import { done } from '@/core/testing/plans';
import { FormerPlans, formersIn } from './former-plans';

const before = soundGear();
const textAt = (revision: number) => JSON.stringify({ revision, plan: encodePlan(before) });
/** Boxes as planned at some changes. */
const plannedAt = (changes: readonly number[]): Plan =>
  changes.reduce(
    (made, asOf, i) =>
      done(made, 'setPresent', {
        devices: [[...made.box.values()].filter(({ vlanAware }) => vlanAware)[i]!.device],
        set: { state: 'as-planned', asOf },
      }),
    before,
  );
const one = plannedAt([3]);
const plan = plannedAt([3, 5]);

type Server = 'answers' | 'is away' | 'knows none';
let server: Server;
const asked: string[] = [];
globalThis.fetch = (async (path: string) => {
  asked.push(path);
  if (server === 'is away') throw new TypeError('fetch failed');
  if (server === 'knows none')
    return new Response('{"detail":"There is no such revision."}', { status: 422 });
  return new Response(textAt(Number(new URL(path, 'http://site').searchParams.get('at'))));
}) as typeof fetch;
beforeEach(() => {
  asked.length = 0;
  server = 'answers';
});

const both = [3, 5].map((revision) => ({ revision, text: textAt(revision) }));

test('each is asked for once, and read as the plan it is', async () => {
  const formers = new FormerPlans('one');
  expect(await formers.neededBy(plan)).toEqual(both);
  expect(await formers.neededBy(plan)).toEqual(both);
  expect(asked).toEqual(['/api/sites/one/plan?at=3', '/api/sites/one/plan?at=5']);
  expect([...formersIn(both)].map(([revision, former]) => [revision, encodePlan(former)])).toEqual([
    [3, encodePlan(before)],
    [5, encodePlan(before)],
  ]);
  expect(await formers.neededBy(before)).toEqual([]);
});

test('without a server, those that were asked for here in any window are there', async () => {
  await new FormerPlans('two').neededBy(plan);
  server = 'is away';
  expect(await new FormerPlans('two').neededBy(plan)).toEqual(both);
  await expect(new FormerPlans('three').neededBy(one)).rejects.toThrow('The server cannot be reached');
});

test('what failed is asked for again', async () => {
  const formers = new FormerPlans('four');
  server = 'is away';
  await expect(formers.neededBy(one)).rejects.toThrow();
  server = 'answers';
  expect(await formers.neededBy(one)).toEqual([both[0]]);
});

test('what the server says goes before what is kept: the site may have been begun anew', async () => {
  await new FormerPlans('five').neededBy(plan);
  server = 'knows none';
  await expect(new FormerPlans('five').neededBy(one)).rejects.toThrow('There is no such revision.');
});

test('where nothing may be kept, they come from the server', async () => {
  const open = jest.spyOn(indexedDB, 'open').mockImplementation(() => {
    throw new DOMException('forbidden', 'SecurityError');
  });
  expect(await new FormerPlans('six').neededBy(plan)).toEqual(both);
  expect(open).toHaveBeenCalled();
  open.mockRestore();
});
