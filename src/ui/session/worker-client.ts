import type { Finding } from '@/core/findings';
import type { Step } from '@/core/plan';
import type { FormerText, FromWorker, Job, JobResult, ToWorker, Watching } from '@/worker/protocol';

export type Findings = ReadonlyMap<string, Finding>;

/** What the page does with a job on its way. */
export interface JobEars {
  readonly onProgress: (done: number, of: number) => void;
  readonly onResult: (result: JobResult) => void;
  /** Another job was started meanwhile. */
  readonly onCalledOff: () => void;
  /** What it needs could not be had. */
  readonly onProblem: (why: string) => void;
}

export interface WorkerEars {
  /** All findings, with the sequence number they belong to. */
  readonly onChange: (findings: Findings, sequence: number) => void;
  /** The worker could not be loaded, or ended with an error. */
  readonly onFailed: (why: string) => void;
  /** A check is begun; only told where it was asked for. */
  readonly onBegun: (subject: string) => void;
}

/** The page's end of the worker: findings, and long work when asked for. */
export class WorkerClient {
  private readonly worker = new Worker(new URL('../../worker/site.worker.ts', import.meta.url), {
    type: 'module',
  });
  private findings: Findings = new Map();
  private sequence = 0;
  private jobs = 0;
  private ears: JobEars | null = null;

  constructor({ onChange, onFailed, onBegun }: WorkerEars) {
    this.worker.onerror = (event) => {
      event.preventDefault();
      onFailed(event.message || 'its program could not be loaded');
    };
    this.worker.onmessage = ({ data }: MessageEvent<FromWorker>) => {
      if (data.type === 'begun') return onBegun(data.subject);
      if (data.type === 'progress' || data.type === 'result') {
        // What a job says that was called off or overtaken is not wanted any more.
        if (data.id !== this.jobs || !this.ears) return;
        if (data.type === 'progress') this.ears.onProgress(data.done, data.of);
        else {
          const { onResult } = this.ears;
          this.ears = null;
          onResult(data.result);
        }
        return;
      }
      if (data.type === 'all')
        this.findings = new Map(data.findings.map((finding) => [finding.key, finding]));
      else {
        const next = new Map(this.findings);
        for (const key of data.removed) next.delete(key);
        for (const finding of data.added) next.set(finding.key, finding);
        this.findings = next;
      }
      onChange(this.findings, data.type === 'all' ? 0 : data.sequence);
    };
  }

  load(plan: string, steps: readonly Step[], watching: Watching): void {
    this.send({ type: 'load', plan, steps, ...watching });
  }

  /** Returns the number that the answer to these steps will carry. */
  advance(steps: readonly Step[]): number {
    this.sequence++;
    this.send({ type: 'advance', sequence: this.sequence, steps });
    return this.sequence;
  }

  /** Starts a job on the plan as it is now; an earlier one is called off. */
  run(job: Job, formers: readonly FormerText[], ears: JobEars): void {
    this.ears?.onCalledOff();
    this.ears = ears;
    this.send({ type: 'run', id: ++this.jobs, job, formers });
  }

  cancel(): void {
    this.ears = null;
    this.send({ type: 'cancel' });
  }

  close(): void {
    this.ears?.onCalledOff();
    this.ears = null;
    this.worker.terminate();
  }

  private send(message: ToWorker): void {
    this.worker.postMessage(message);
  }
}
