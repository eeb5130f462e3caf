import type { JobInput, JobResult } from './jobs';
import { Problem } from './problems';
import { LIMIT, type Thread, openThread, threadFile } from './thread';

interface Asked {
  readonly done: (saved: JobResult<'commit'>) => void;
  readonly failed: (error: Error) => void;
  readonly timer: NodeJS.Timeout;
}

/**
 * The thread that saves changes. What an operation works out, and the plans it works on, keep nobody waiting but who writes
 * too. Changes of several sites are under way in it together, as most of their time is the disk's.
 */
export class Writer {
  private thread: Thread | null = null;
  private readonly asked = new Map<number, Asked>();
  private made = 0;

  constructor(
    private readonly url: string,
    private readonly file = threadFile(),
    private readonly limit = LIMIT,
  ) {
    this.thread = this.another();
  }

  /** Throws the Problem of a change that is refused. Nobody stops one that is under way: it may be saved already. */
  commit(input: JobInput<'commit'>): Promise<JobResult<'commit'>> {
    const thread = (this.thread ??= this.another());
    const id = ++this.made;
    return new Promise((done, failed) => {
      const timer = setTimeout(() => this.over(id), this.limit.time);
      this.asked.set(id, { done, failed, timer });
      thread.send({ id, job: 'commit', input });
    });
  }

  close(): void {
    this.drop(new Error('the program ends'));
  }

  private another(): Thread {
    const thread: Thread = openThread({
      url: this.url,
      connections: 8,
      file: this.file,
      memory: this.limit.memory,
      hear: (said) => {
        if ('problem' in said) this.take(said.id)?.failed(Problem.of(said.problem));
        else if ('result' in said) this.take(said.id)?.done(said.result as JobResult<'commit'>);
      },
      // A change that ended the thread would end the next one too: it is not to be sent for ever.
      ended: (why) => thread === this.thread && this.drop(notSaved(500, why)),
    });
    return thread;
  }

  private take(id: number): Asked | undefined {
    const asked = this.asked.get(id);
    this.asked.delete(id);
    clearTimeout(asked?.timer);
    return asked;
  }

  private over(id: number): void {
    this.take(id)?.failed(
      notSaved(500, `It takes longer than ${this.limit.time / 1000} seconds on this plan`),
    );
    this.drop(notSaved(503, 'Another change had to be stopped'));
  }

  /** Ends the thread; the next change begins another. */
  private drop(why: Error): void {
    const { thread } = this;
    this.thread = null;
    thread?.close();
    for (const id of [...this.asked.keys()]) this.take(id)?.failed(why);
  }
}

/** Whether it came to be saved before the thread ended is known by its seed when it is sent again. */
const notSaved = (status: number, why: string) =>
  new Problem(status, 'Stopped', `${why}, and saving was stopped. Send the change again.`, { code: 'limit' });
