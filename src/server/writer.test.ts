import { eachWithThread } from './testing-thread';
import { Writer } from './writer';

/** A thread that answers when the next change comes, spins for ever, eats memory, dies or refuses. */
const THREAD = `
const held = [];
parentPort.on('message', ({ id, input }) => {
  if (input.site === 'spin') for (;;);
  if (input.site === 'eat') { const all = []; for (;;) all.push(new Array(100000).fill(Math.random())); }
  if (input.site === 'die') process.exit(3);
  if (input.site === 'refuse')
    return parentPort.postMessage({ id, problem: { title: 'No', status: 422, detail: 'not so', path: ['site'] } });
  if (input.site === 'hold') return held.push(id);
  for (const one of held.splice(0)) parentPort.postMessage({ id: one, result: 'held' });
  parentPort.postMessage({ id, result: input.text });
});
`;
const writer = eachWithThread(THREAD, (file) => new Writer('', file, { time: 10_000, memory: 64 }));
const commit = (site: string, text = '') => writer().commit({ site, text, at: '' });

test('changes of several sites are under way together, and each gets its own answer', async () => {
  const first = commit('hold');
  const others = Array.from({ length: 5 }, (_, at) => commit(`s${at}`, `answer ${at}`));
  expect(await first).toBe('held');
  expect(await Promise.all(others)).toEqual([0, 1, 2, 3, 4].map((at) => `answer ${at}`));
});

test('a refusal is the problem of who asked', async () => {
  await expect(commit('refuse')).rejects.toMatchObject({
    status: 422,
    detail: 'not so',
    more: { path: ['site'] },
  });
});

test('a change that never ends is stopped; those behind it are to be sent again, and the next is saved', async () => {
  const endless = commit('spin');
  const behind = commit('s1', 'one');
  await expect(endless).rejects.toMatchObject({
    status: 500,
    detail: 'It takes longer than 10 seconds on this plan, and saving was stopped. Send the change again.',
  });
  await expect(behind).rejects.toMatchObject({ status: 503 });
  expect(await commit('s1', 'one')).toBe('one');
});

test.each(['die', 'eat'])(
  'a thread that ends fails what it held, and the next change begins another: %s',
  async (site) => {
    await expect(commit(site)).rejects.toMatchObject({ status: 500, more: { code: 'limit' } });
    expect(await commit('s1', 'one')).toBe('one');
  },
);
