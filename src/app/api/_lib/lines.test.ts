import { ApiProblem, Offline, ask } from '@/ui/session/api';
import { routes } from '@/contract';
import type { Progress } from '@/core/plan';
import { inLines } from './lines';

/** The server's end and the client's, one against the other. */

const order = { seed: 1, level: 1, count: 1, learner: 'Ada' } as const;
type Work = (hear: (progress: Progress) => void) => Promise<Response>;
async function asked(work: Work) {
  const heard: Progress[] = [];
  jest.spyOn(globalThis, 'fetch').mockImplementation((_path, init) => {
    expect(new Headers(init?.headers).get('accept')).toContain('application/x-ndjson');
    return inLines(work);
  });
  const hear = (progress: Progress) => heard.push(progress);
  const answer = ask(routes.rehearsal.setExercise, { site: 'site', body: order, hear });
  return { heard, answer: await answer.catch((error: Error) => error) };
}
const parts = (count: number): Progress[] =>
  Array.from({ length: count }, (_, at) => ({ done: at + 1, of: count }));
/** Tells so many parts, one after the other, and answers. */
const telling =
  (count: number, answer: () => Response): Work =>
  async (hear) => {
    for (const part of parts(count)) {
      hear(part);
      await new Promise(setImmediate);
    }
    return answer();
  };
afterEach(() => jest.restoreAllMocks());

test.each([0, 1, 40])('%d parts are heard in order, then the answer comes', async (count) => {
  const { heard, answer } = await asked(telling(count, () => Response.json({ id: 'abc' }, { status: 201 })));
  expect(answer).toEqual({ id: 'abc' });
  expect(heard).toEqual(parts(count));
});

test.each([0, 3])('a problem after %d parts is a problem with its status', async (count) => {
  const problem = { type: 'about:blank', title: 'No', status: 422, detail: 'no such fault fits' };
  const { answer } = await asked(telling(count, () => Response.json(problem, { status: 422 })));
  expect(answer).toBeInstanceOf(ApiProblem);
  expect(answer).toMatchObject({ status: 422, message: 'no such fault fits' });
});

test('lines that break off are a server that is not reached', async () => {
  jest.spyOn(globalThis, 'fetch').mockResolvedValue(
    new Response('{"progress":{"done":1,"of":2}}\n{"ans', {
      headers: { 'content-type': 'application/x-ndjson' },
    }),
  );
  const hear = jest.fn();
  await expect(ask(routes.rehearsal.setExercise, { site: 'site', body: order, hear })).rejects.toThrow(
    Offline,
  );
  expect(hear).toHaveBeenCalledWith({ done: 1, of: 2 });
});
