import { parentPort, workerData } from 'node:worker_threads';
import { openDatabase } from '../db/connection';
import { Commits } from './commit';
import type { Told } from './holder';
import { type JobName, jobs } from './jobs';
import { log } from './log';
import { Plans } from './plans';
import { problemOf } from './problems';
import type { ProblemDetails } from '../contract';

/** The thread's end: jobs on plans that it reads itself, so that nobody else has to hand them over. */

export interface ToThread {
  readonly id: number;
  readonly job: JobName;
  readonly input: unknown;
}
export type FromThread =
  | { readonly id: number; readonly told: Told }
  | { readonly id: number; readonly result: unknown }
  | { readonly id: number; readonly problem: ProblemDetails };

const { url, connections } = workerData as { readonly url: string; readonly connections: number };
const pool = openDatabase(url, connections);
const plans = new Plans(pool);
const holder = { pool, plans, commits: new Commits(pool, plans) };

parentPort!.on('message', async ({ id, job, input }: ToThread) => {
  let said: FromThread;
  try {
    said = {
      id,
      result: await jobs[job](holder, input as never, (told) =>
        parentPort!.postMessage({ id, told } satisfies FromThread),
      ),
    };
  } catch (error) {
    const problem = problemOf(error);
    if (problem.status === 500) log('error', { job, error });
    said = { id, problem: problem.details };
  }
  parentPort!.postMessage(said, 'result' in said ? buffersOf(said.result) : []);
});

/** What of a result is handed over without a copy: bytes, by themselves or as a member. */
function buffersOf(result: unknown): ArrayBuffer[] {
  if (typeof result !== 'object' || result === null) return [];
  return [result, ...Object.values(result instanceof Uint8Array ? {} : result)].flatMap((value) =>
    value instanceof Uint8Array ? [value.buffer as ArrayBuffer] : [],
  );
}
