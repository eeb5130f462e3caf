import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Workers } from './workers';

/** A thread that does what it is told: answers, spins for ever, eats memory, dies or refuses. */
const THREAD = `
import { parentPort } from 'node:worker_threads';
parentPort.on('message', ({ id, input }) => {
  if (input.site === 'spin') for (;;);
  if (input.site === 'eat') { const all = []; for (;;) all.push(new Array(100000).fill(Math.random())); }
  if (input.site === 'die') process.exit(3);
  if (input.site === 'refuse')
    return parentPort.postMessage({ id, problem: { title: 'No', status: 422, detail: 'not so', path: ['site'] } });
  parentPort.postMessage({ id, result: input.site });
});
`;
let folder: string;
let workers: Workers;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dianome-threads-'));
  const file = path.join(folder, 'thread.mjs');
  writeFileSync(file, THREAD);
  workers = new Workers('', file, { time: 2000, memory: 64 });
});
afterEach(() => {
  workers.close();
  rmSync(folder, { recursive: true, force: true });
});
const ask = (site: string, signal: AbortSignal | null = null) => workers.run('counts', { site }, signal);

test('jobs are answered, each its own', async () => {
  const sites = Array.from({ length: 20 }, (_, i) => `s${i}`);
  expect(await Promise.all(sites.map((site) => ask(site)))).toEqual(sites);
  expect(workers.load).toEqual({ running: 0, waiting: 0 });
});

test.each([
  ['spin', 'takes longer than 2 seconds'],
  ['eat', 'needs more than 64 MB'],
])('one that goes over a limit is stopped, and the others go on: %s', async (site, why) => {
  const over = ask(site);
  const after = Promise.all([ask('a'), ask('b'), ask('c')]);
  await expect(over).rejects.toMatchObject({
    status: 503,
    more: { code: 'limit' },
    detail: expect.stringContaining(why),
  });
  expect(await after).toEqual(['a', 'b', 'c']);
});

test('while slow work waits its turn, what somebody waits for goes first', async () => {
  const slow = Array.from({ length: 6 }, () => ask('spin'));
  const ends: string[] = [];
  for (const one of slow) one.catch(() => ends.push('slow'));
  const plan = await workers.run('planText', { site: 'plan' });
  ends.push(plan);
  expect(ends).toEqual(['plan']);
  workers.close();
});

test('a problem of a job is the problem of who asked, and a thread that dies is no answer', async () => {
  await expect(ask('refuse')).rejects.toMatchObject({
    status: 422,
    detail: 'not so',
    more: { path: ['site'] },
  });
  await expect(ask('die')).rejects.toThrow('a thread ended by itself');
  expect(await ask('a')).toBe('a');
});

test('one whose asker has gone is stopped, waiting or running', async () => {
  const gone = new AbortController();
  const spinning = Array.from({ length: 8 }, () => ask('spin', gone.signal));
  const after = ask('a');
  gone.abort();
  for (const one of spinning) await expect(one).rejects.toThrow('nobody waits');
  expect(await after).toBe('a');
  expect(workers.load).toEqual({ running: 0, waiting: 0 });
});
