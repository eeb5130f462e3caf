import { availableParallelism } from 'node:os';
import type { Progress } from '../core/plan';
import type { Told } from './holder';
import type { JobInput, JobName, JobResult } from './jobs';
import { Problem } from './problems';
import { LIMIT, type Thread as Open, openThread, threadFile } from './thread';
import type { ToThread } from './worker';

/** So many jobs wait at most. */
const WAITING = 200;
/** One thread is left to what somebody waits for who opens a page or saves a file. */
const THREADS = Math.max(2, Math.min(4, availableParallelism()));
const QUICK: ReadonlySet<JobName> = new Set<JobName>(['planText', 'back', 'file', 'makeSite']);

/** Who asks for a job, and what of it they want to know. */
interface Asker {
  /** Aborted when they have gone. */
  readonly signal?: AbortSignal;
  readonly hear?: (progress: Progress) => void;
  readonly begun?: (check: string) => void;
  /** How long the job may tell nothing once it has begun to tell, in milliseconds. */
  readonly silence?: number;
}

interface Waiting {
  readonly message: ToThread;
  readonly asker: Asker;
  readonly done: (result: unknown) => void;
  readonly failed: (error: Error) => void;
}
interface Thread {
  readonly open: Open;
  at: (Waiting & { readonly timer: NodeJS.Timeout; silent?: NodeJS.Timeout }) | null;
}

class CalledOff extends Error {}

/**
 * Threads for work that may take long: one job each, within a limit of time and memory; the rest waits in a row. A thread that
 * goes over a limit, or whose asker has gone, is ended and another takes its place.
 */
export class Workers {
  private readonly threads = new Set<Thread>();
  private readonly row: Waiting[] = [];
  private made = 0;

  constructor(
    private readonly url: string,
    private readonly file = threadFile(),
    private readonly limit = LIMIT,
  ) {}

  /** How many jobs are under way and how many wait. */
  get load(): { readonly running: number; readonly waiting: number } {
    return { running: [...this.threads].filter(({ at }) => at).length, waiting: this.row.length };
  }

  run<N extends JobName>(job: N, input: JobInput<N>, asker: Asker = {}): Promise<JobResult<N>> {
    const { signal } = asker;
    if (this.row.length >= WAITING)
      throw new Problem(503, 'Busy', 'Much is being worked out at the moment; ask again in a minute.');
    return new Promise<unknown>((done, failed) => {
      const message = { id: ++this.made, job, input };
      const gone = () => this.callOff(waiting);
      const hearNoMore = () => signal?.removeEventListener('abort', gone);
      const waiting: Waiting = {
        message,
        asker,
        done: (result) => (hearNoMore(), done(result)),
        failed: (error) => (hearNoMore(), failed(error)),
      };
      signal?.addEventListener('abort', gone);
      this.row.push(waiting);
      this.next();
    }) as Promise<JobResult<N>>;
  }

  close(): void {
    const gone = new CalledOff('the program ends');
    for (const waiting of this.row.splice(0)) waiting.failed(gone);
    for (const thread of [...this.threads]) this.drop(thread, gone);
  }

  private next(): void {
    for (;;) {
      const slow = [...this.threads].filter(({ at }) => at && !QUICK.has(at.message.job)).length;
      const next = this.row.findIndex(({ message }) => QUICK.has(message.job) || slow < THREADS - 1);
      const free = next < 0 ? null : ([...this.threads].find(({ at }) => at === null) ?? this.another());
      if (!free) return;
      const [waiting] = this.row.splice(next, 1) as [Waiting];
      const timer = setTimeout(() => this.over(free, this.limit.time), this.limit.time);
      free.at = { ...waiting, timer };
      free.open.send(waiting.message);
    }
  }

  private another(): Thread | null {
    if (this.threads.size >= THREADS) return null;
    const thread: Thread = {
      at: null,
      open: openThread({
        url: this.url,
        connections: 2,
        file: this.file,
        memory: this.limit.memory,
        hear: (said) => {
          if (thread.at?.message.id !== said.id) return;
          if ('told' in said) return this.hear(thread, said.told);
          const at = this.release(thread)!;
          if ('problem' in said) at.failed(Problem.of(said.problem));
          else at.done(said.result);
          this.next();
        },
        ended: (why, limit) => this.drop(thread, limit ? tooMuch(why) : new Error(why)),
      }),
    };
    this.threads.add(thread);
    return thread;
  }

  private hear(thread: Thread, told: Told): void {
    const at = thread.at!;
    const { hear, begun, silence } = at.asker;
    clearTimeout(at.silent);
    if (silence !== undefined) at.silent = setTimeout(() => this.over(thread, silence), silence);
    if ('begun' in told) begun?.(told.begun);
    else hear?.(told);
  }

  private release(thread: Thread) {
    const { at } = thread;
    thread.at = null;
    clearTimeout(at?.timer);
    clearTimeout(at?.silent);
    return at;
  }

  private drop(thread: Thread, why: Error): void {
    if (!this.threads.delete(thread)) return;
    this.release(thread)?.failed(why);
    thread.open.close();
    this.next();
  }

  private over(thread: Thread, limit: number): void {
    this.drop(thread, tooMuch(`It takes longer than ${limit / 1000} seconds on this plan`));
  }

  private callOff(waiting: Waiting): void {
    const at = this.row.indexOf(waiting);
    const gone = new CalledOff('nobody waits for it any more');
    if (at >= 0) {
      this.row.splice(at, 1);
      waiting.failed(gone);
      return;
    }
    const thread = [...this.threads].find((item) => item.at?.message === waiting.message);
    if (thread) this.drop(thread, gone);
  }
}

const tooMuch = (why: string) =>
  new Problem(503, 'Too much to work out', `${why} and was stopped; everything else goes on.`, {
    code: 'limit',
  });
