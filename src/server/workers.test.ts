import type { Progress } from '../core/plan';
import type { SiteRow } from '../db/sites';
import { Counting } from './counting';
import { eachWithThread } from './testing-thread';
import { Workers } from './workers';

/** A thread that does what it is told: answers, tells, spins for ever, eats memory, dies or refuses. */
const THREAD = `
parentPort.on('message', ({ id, input }) => {
  if (input.site === 'tell') for (let done = 1; done < 4; done++) parentPort.postMessage({ id, told: { done, of: 4 } });
  if (input.site === 'counts') {
    const stuck = ['b', 'd'].find((check) => !input.leftOut.has(check));
    for (const begun of ['a', 'b', 'c', 'd']) {
      if (input.leftOut.has(begun)) continue;
      if (input.closely) parentPort.postMessage({ id, told: { begun } });
      if (begun === stuck) for (;;);
    }
  }
  if (input.site === 'spin') for (;;);
  if (input.site === 'eat') { const all = []; for (;;) all.push(new Array(1000000).fill(Math.random())); }
  if (input.site === 'die') process.exit(3);
  if (input.site === 'refuse')
    return parentPort.postMessage({ id, problem: { title: 'No', status: 422, detail: 'not so', path: ['site'] } });
  parentPort.postMessage({ id, result: input.site });
});
`;
const workers = eachWithThread(THREAD, (file) => new Workers('', file, { time: 5000, memory: 64 }));
/** With all the time there is, so that only memory runs out. */
const patient = eachWithThread(THREAD, (file) => new Workers('', file, { time: 600_000, memory: 64 }));
const ask = (site: string, signal?: AbortSignal) =>
  workers().run('planText', { site }, signal ? { signal } : {});
const slowly = (site: string) => workers().run('counts', { site, leftOut: new Map(), closely: false });

test('jobs are answered, each its own', async () => {
  const sites = Array.from({ length: 20 }, (_, i) => `s${i}`);
  expect(await Promise.all(sites.map((site) => ask(site)))).toEqual(sites);
  expect(workers().load).toEqual({ running: 0, waiting: 0 });
});

test.each([
  ['spin', workers, 'takes longer than 5 seconds'],
  ['eat', patient, 'needs more than 64 MB'],
])('one that goes over a limit is stopped, and the others go on: %s', async (site, on, why) => {
  const askThere = (it: string) => on().run('planText', { site: it });
  const over = askThere(site);
  const after = Promise.all(['a', 'b', 'c'].map(askThere));
  await expect(over).rejects.toMatchObject({
    status: 503,
    more: { code: 'limit' },
    detail: expect.stringContaining(why),
  });
  expect(await after).toEqual(['a', 'b', 'c']);
});

test('while slow work waits its turn, what somebody waits for goes first', async () => {
  const slow = Array.from({ length: 6 }, () => slowly('spin'));
  const ends: string[] = [];
  for (const one of slow) one.catch(() => ends.push('slow'));
  const plan = await workers().run('planText', { site: 'plan' });
  ends.push(String(plan));
  expect(ends).toEqual(['plan']);
  workers().close();
});

test('a problem of a job is the problem of who asked, and a thread that dies is no answer', async () => {
  await expect(ask('refuse')).rejects.toMatchObject({
    status: 422,
    detail: 'not so',
    more: { path: ['site'] },
  });
  await expect(ask('die')).rejects.toThrow('A thread ended by itself');
  expect(await ask('a')).toBe('a');
});

test('one whose asker has gone is stopped, waiting or running', async () => {
  const gone = new AbortController();
  const spinning = Array.from({ length: 8 }, () => ask('spin', gone.signal));
  const after = ask('a');
  gone.abort();
  for (const one of spinning) await expect(one).rejects.toThrow('nobody waits');
  expect(await after).toBe('a');
  expect(workers().load).toEqual({ running: 0, waiting: 0 });
});

test('what a job tells on its way is heard by who asked', async () => {
  const heard: Progress[] = [];
  const [told] = await Promise.all([
    workers().run('planText', { site: 'tell' }, { hear: (progress) => heard.push(progress) }),
    ask('a'),
  ]);
  expect(told).toBe('tell');
  expect(heard).toEqual([1, 2, 3].map((done) => ({ done, of: 4 })));
});

test('where counting takes too long, the checks that never end are left out, one by one', async () => {
  const kept: unknown[] = [];
  const pool = { execute: (...what: unknown[]) => (kept.push(what), Promise.resolve([[]])) };
  const asked = jest.spyOn(workers(), 'run');
  const counting = new Counting(pool as never, workers());
  counting.see([{ id: 'counts', revision: 3, counted: false, exercise: null } as SiteRow]);
  // Twice it is another that never ends; then the count is there.
  await waitFor(() => asked.mock.calls.length === 4);
  const counted = await asked.mock.results[3]!.value;
  expect(counted).toBe('counts');
  const last = asked.mock.calls[3]![1] as { readonly leftOut: ReadonlyMap<string, string> };
  expect([...last.leftOut.keys()]).toEqual(['b', 'd']);
  expect(last.leftOut.get('b')).toMatch(/^It takes longer than/);
  expect(kept).toEqual([]);
});

/** Resolves once it is so; looks whenever something happened. */
async function waitFor(isSo: () => boolean): Promise<void> {
  while (!isSo()) await new Promise(setImmediate);
}
