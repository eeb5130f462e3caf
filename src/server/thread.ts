import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { FromThread, ToThread } from './worker';

/** The program of a thread, as it is built. */
export const threadFile = (): string => path.join(process.cwd(), '.next/dianome/worker.mjs');

/** How long work may take, in milliseconds, and how much memory its thread may use, in MB. */
export const LIMIT = { time: Number(process.env.DIANOME_JOB_SECONDS || 60) * 1000, memory: 1536 };

export interface Thread {
  readonly send: (message: ToThread) => void;
  readonly close: () => void;
}

interface Opening {
  readonly url: string;
  /** To the database, at most. */
  readonly connections: number;
  readonly file: string;
  /** In MB. */
  readonly memory: number;
  readonly hear: (said: FromThread) => void;
  /** It ended by itself, and why; `limit` where it needed more memory than it may. */
  readonly ended: (why: string, limit: boolean) => void;
}

/** Another thread of this program; it alone does not keep the process. */
export function openThread({ url, connections, file, memory, hear, ended }: Opening): Thread {
  const worker = new Worker(file, {
    workerData: { url, connections },
    resourceLimits: { maxOldGenerationSizeMb: memory },
  });
  worker.unref();
  worker.on('message', hear);
  worker.on('error', (error: Error & { readonly code?: string }) => {
    const limit = error.code === 'ERR_WORKER_OUT_OF_MEMORY';
    ended(
      limit ? `It needs more than ${memory} MB of memory on this plan` : `A thread failed: ${error.message}`,
      limit,
    );
  });
  worker.on('exit', () => ended('A thread ended by itself', false));
  return {
    send: (message) => worker.postMessage(message),
    close: () => void worker.terminate(),
  };
}
