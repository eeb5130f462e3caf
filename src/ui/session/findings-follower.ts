import type { StoreApi } from 'zustand/vanilla';
import { acceptanceOf } from '@/core/findings';
import type { Step } from '@/core/plan';
import type { Job } from '@/worker/protocol';
import { type SiteState, isSolving } from './state';
import { type Findings, type JobEars, WorkerClient } from './worker-client';

/** A plan on which they take longer than this is said not to be checked, in milliseconds. */
const LIMIT = 90_000;

/** Keeps the findings up with the plan, and says what a change made of them. */
export class FindingsFollower {
  private worker: WorkerClient;
  private awaited: { sequence: number; label: string; open: number } | null = null;
  /** What the worker was begun with, and every step since: to begin another where it failed. */
  private begun: { readonly text: string; readonly steps: Step[] } | null = null;

  /** How many answers of the worker are still to come. */
  private owed = 0;
  private watch: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly store: StoreApi<SiteState>) {
    this.worker = this.another();
  }

  load(text: string, steps: readonly Step[]): void {
    this.begun = { text, steps: [...steps] };
    this.worker.load(text, steps);
    this.owe();
  }

  advance(steps: readonly Step[]): number {
    this.begun?.steps.push(...steps);
    this.owe();
    return this.worker.advance(steps);
  }

  /** Advances by a change of this window; its label is said with what it did to the findings. */
  follow(label: string, steps: readonly Step[]): void {
    const open = this.openCount();
    this.awaited = { sequence: this.advance(steps), label, open };
  }

  /** Begins another worker where one failed. */
  again(): void {
    this.worker.close();
    this.store.setState({ findingsFailed: '', findingsReady: false });
    this.worker = this.another();
    this.owed = 0;
    if (!this.begun) return;
    this.worker.load(this.begun.text, this.begun.steps);
    this.owe();
  }

  run(job: Job, ears: JobEars): void {
    this.worker.run(job, ears);
  }
  cancel(): void {
    this.worker.cancel();
  }
  close(): void {
    clearTimeout(this.watch);
    this.worker.close();
  }

  /** One answer more is to come; where none comes in time the worker is ended, and the rest of the page goes on. */
  private owe(): void {
    this.owed++;
    this.await();
  }
  private await(): void {
    clearTimeout(this.watch);
    if (this.owed === 0) return;
    this.watch = setTimeout(() => {
      this.worker.close();
      const seconds = LIMIT / 1000;
      this.store.setState({ findingsFailed: `they take longer than ${seconds} seconds on this plan` });
    }, LIMIT);
  }

  private another(): WorkerClient {
    return new WorkerClient(
      (findings, sequence) => this.show(findings, sequence),
      (why) => {
        clearTimeout(this.watch);
        this.store.setState({ findingsFailed: why });
      },
    );
  }

  private openCount(): number {
    const { findings, plan } = this.store.getState();
    let open = 0;
    for (const finding of findings.values()) if (!acceptanceOf(plan.acceptance, finding)) open++;
    return open;
  }

  private show(findings: Findings, sequence: number): void {
    this.owed = Math.max(0, this.owed - 1);
    this.await();
    this.store.setState({ findings, findingsReady: true });
    if (this.awaited?.sequence !== sequence) return;
    const difference = this.openCount() - this.awaited.open;
    const count = Math.abs(difference);
    const said = difference !== 0 && !isSolving(this.store.getState());
    const words = `${count === 1 ? 'one finding' : `${count} findings`} ${difference > 0 ? 'more' : 'fewer'}`;
    this.store.setState({
      lastChange: said ? `${this.awaited.label}; ${words}` : this.awaited.label,
    });
    this.awaited = null;
  }
}
