import type { StoreApi } from 'zustand/vanilla';
import { LIMIT_OF_ONE, MOST_LEFT_OUT, acceptanceOf } from '@/core/findings';
import type { Step } from '@/core/plan';
import type { FormerText, Job } from '@/worker/protocol';
import { type SiteState, isSolving } from './state';
import { type Findings, type JobEars, WorkerClient } from './worker-client';

/** Findings that take longer than this are worked out anew, watched check by check; in milliseconds. */
const LIMIT = 30_000;

/** Keeps the findings up with the plan, and says what a change made of them. */
export class FindingsFollower {
  private worker: WorkerClient;
  private awaited: { sequence: number; label: string; open: number } | null = null;
  /** What the worker was begun with, and every step since: to begin another where it failed. */
  private begun: { readonly text: string; readonly steps: Step[] } | null = null;

  /** How many answers of the worker are still to come. */
  private owed = 0;
  private watch: ReturnType<typeof setTimeout> | undefined;
  /** Checks that this plan does not get through, with why. */
  private leftOut: ReadonlyMap<string, string> = new Map();
  /** Watched check by check, with the one that is under way. */
  private closely = false;
  private at: string | null = null;

  constructor(private readonly store: StoreApi<SiteState>) {
    this.worker = this.another();
  }

  load(text: string, steps: readonly Step[]): void {
    this.begun = { text, steps: [...steps] };
    this.worker.load(text, steps, { leftOut: this.leftOut, closely: false });
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

  /** Begins another worker where one failed, with every check. */
  again(): void {
    this.leftOut = new Map();
    this.store.setState({ findingsFailed: '', findingsReady: false });
    this.anew(false);
  }

  run(job: Job, formers: readonly FormerText[], ears: JobEars): void {
    this.worker.run(job, formers, ears);
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
    const limit = this.at === null ? LIMIT : LIMIT_OF_ONE;
    this.watch = setTimeout(
      () => this.stuck(`it takes longer than ${limit / 1000} seconds on this plan`),
      limit,
    );
  }

  /** The worker does not go on: once more, watched check by check, and without the one that it is stuck at. */
  private stuck(why: string): void {
    const { at, closely } = this;
    if (closely && (at === null || this.leftOut.size >= MOST_LEFT_OUT)) {
      clearTimeout(this.watch);
      this.worker.close();
      this.store.setState({ findingsFailed: why });
      return;
    }
    if (at !== null) this.leftOut = new Map(this.leftOut).set(at, `I${why.slice(1)}.`);
    this.anew(true);
  }

  private anew(closely: boolean): void {
    this.worker.close();
    this.worker = this.another();
    [this.owed, this.awaited, this.at, this.closely] = [0, null, null, closely];
    if (!this.begun) return;
    const { text, steps } = this.begun;
    this.worker.load(text, steps, { leftOut: this.leftOut, closely });
    this.owe();
  }

  private another(): WorkerClient {
    return new WorkerClient({
      onChange: (findings, sequence) => this.show(findings, sequence),
      onFailed: (why) => this.stuck(`it failed: ${why}`),
      onBegun: (subject) => {
        this.at = subject;
        this.await();
      },
    });
  }

  private openCount(): number {
    const { findings, plan } = this.store.getState();
    let open = 0;
    for (const finding of findings.values()) if (!acceptanceOf(plan.acceptance, finding)) open++;
    return open;
  }

  private show(findings: Findings, sequence: number): void {
    this.owed = Math.max(0, this.owed - 1);
    [this.closely, this.at] = [false, null];
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
