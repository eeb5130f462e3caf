import { customAlphabet } from 'nanoid';
import { type StoreApi, createStore } from 'zustand/vanilla';
import type { ExerciseView } from '@/core/exercises';
import { acceptanceOf } from '@/core/findings';
import { perform } from '@/core/edit';
import {
  type Change,
  applySteps,
  invertSteps,
  type Call,
  type Plan,
  planOf,
  Refusal,
  type WireStep,
  decodePlan,
  decodeStep,
  encodeStep,
} from '@/core/plan';
import { ApiProblem, Offline, getJson, getText, sendJson } from './api';
import { type Findings, WorkerClient, type JobEars } from './worker-client';
import type { Job } from '@/worker/protocol';
import { type Conflict, type Pending, rebase } from './pending';

export const newSeed = customAlphabet('0123456789abcdefghijklmnopqrstuvwxyz', 12);

/** A journal entry as the server tells it. */
export interface RemoteEntry {
  readonly revision: number;
  readonly seed: string;
  readonly kind: 'change' | 'undo' | 'redo';
  readonly label: string;
  readonly author: string;
  readonly steps: readonly WireStep[];
}

export type SaveState = 'saved' | 'saving' | 'offline' | 'deleted';

export interface SiteState {
  readonly status: 'loading' | 'ready' | 'missing' | 'failed';
  readonly problem: string;
  readonly plan: Plan;
  readonly revision: number;
  readonly saving: SaveState;
  readonly findings: Findings;
  readonly findingsReady: boolean;
  /** What the last change did, in one line. */
  readonly lastChange: string;
  readonly conflicts: readonly Conflict[];
  /** The exercise this site is; null for a site that is none. */
  readonly exercise: ExerciseView | null;
}

/** While faults are being looked for, nothing tells where they are. */
export const isSolving = ({ exercise }: Pick<SiteState, 'exercise'>): boolean =>
  exercise !== null && exercise.endedAt === null;

const RETRY = 2000;
/** Answers that mean: not now. */
const LATER: ReadonlySet<number> = new Set([408, 425, 429, 502, 503, 504]);
/** So often a change is sent that the server fails over. */
const TRIES = 3;

/**
 * One window's work on one site: the plan at once with this window's changes, the queue of those not confirmed yet,
 * and the journal of the others coming in. The server decides the order; this side runs its own changes again on it.
 */
export class SiteSession {
  readonly store: StoreApi<SiteState>;
  private confirmed: Plan = planOf({});
  private revision = 0;
  private queue: readonly Pending[] = [];
  private sending = false;
  private readonly worker: WorkerClient;
  private events: EventSource | null = null;
  private awaited: { sequence: number; label: string; open: number } | null = null;
  private closed = false;
  private undoing: Promise<void> = Promise.resolve();
  /** The change that the server failed over last, and how often in a row. */
  private failed = { seed: '', times: 0 };

  constructor(
    readonly siteId: string,
    private readonly author: () => string,
  ) {
    this.store = createStore<SiteState>(() => ({
      status: 'loading',
      problem: '',
      plan: this.confirmed,
      revision: 0,
      saving: 'saved',
      findings: new Map(),
      findingsReady: false,
      lastChange: '',
      conflicts: [],
      exercise: null,
    }));
    this.worker = new WorkerClient((findings, sequence) => this.showFindings(findings, sequence));
    void this.load();
  }

  get plan(): Plan {
    return this.store.getState().plan;
  }

  close(): void {
    this.closed = true;
    this.events?.close();
    this.worker.close();
  }

  /** What an operation would do to the plan now; throws its Refusal. */
  preview(call: Call): Change {
    return perform(this.plan, call, newSeed());
  }

  /** Does it: at once here, then on the server. Throws the Refusal when it makes no sense. */
  perform(call: Call, options: { reviewed?: boolean; kind?: Pending['kind']; undoes?: number } = {}): Change {
    const seed = newSeed();
    const change = perform(this.plan, call, seed);
    if (change.steps.length === 0) {
      this.store.setState({ lastChange: change.label });
      return change;
    }
    const applied = applySteps(this.plan, change.steps);
    if (!applied.ok) throw new Refusal('changed', 'The plan changed under this edit; try it again.');
    const { kind = 'change', undoes = null, reviewed = false } = options;
    this.queue = [...this.queue, { seed, kind, undoes, call, reviewed, ...change }];
    this.store.setState({ plan: applied.plan, saving: 'saving', lastChange: change.label });
    this.awaited = {
      sequence: this.worker.advance(change.steps),
      label: change.label,
      open: this.openCount(),
    };
    this.keepQueue();
    void this.pump();
    return change;
  }

  /** Reverts this author's latest change that is not undone, or with 'redo' their latest undo, as a new change. */
  undo(direction: 'undo' | 'redo'): Promise<void> {
    this.undoing = this.undoing
      .then(() => this.undoOnce(direction))
      .catch((error: Error) => {
        this.store.setState({ lastChange: error.message });
      });
    return this.undoing;
  }

  /** Long work in the worker, on the plan as it is now. */
  run(job: Job, ears: JobEars): void {
    this.worker.run(job, ears);
  }
  cancelRun(): void {
    this.worker.cancel();
  }

  /** The steps back to an earlier revision as a call to review. */
  async backTo(revision: number): Promise<Call> {
    await this.settled();
    const back = await getJson<{ steps: WireStep[] }>(`/api/sites/${this.siteId}/back?revision=${revision}`);
    return { operation: 'takeSteps', input: { label: `Back to change ${revision}`, steps: back.steps } };
  }

  dismiss(conflict: Conflict): void {
    this.store.setState(({ conflicts }) => ({ conflicts: conflicts.filter((other) => other !== conflict) }));
  }

  private async undoOnce(direction: 'undo' | 'redo'): Promise<void> {
    await this.settled();
    const who = encodeURIComponent(this.author());
    const found = await getJson<Record<'undo' | 'redo', RemoteEntry | null>>(
      `/api/sites/${this.siteId}/undo?author=${who}`,
    );
    const entry = found[direction];
    if (!entry) {
      this.store.setState({ lastChange: `Nothing of yours to ${direction}` });
      return;
    }
    if (entry.revision > this.revision) await this.catchUp();
    const steps = invertSteps(entry.steps.map(decodeStep)).map(encodeStep);
    const label = entry.label.replace(/^(Undo|Redo): /, '');
    const call = {
      operation: 'takeSteps',
      input: { label: `${direction === 'undo' ? 'Undo' : 'Redo'}: ${label}`, steps },
    } satisfies Call;
    try {
      this.perform(call, { kind: direction, undoes: entry.revision });
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      const conflict = { seed: newSeed(), label: call.input.label, call, why: error.message, between: [] };
      this.store.setState(({ conflicts }) => ({ conflicts: [...conflicts, conflict] }));
    }
    await this.settled();
  }

  /** Resolves when the queue is empty. */
  async settled(): Promise<void> {
    while (this.queue.length > 0 && !this.closed) await new Promise((resolve) => setTimeout(resolve, 20));
  }

  private async load(): Promise<void> {
    try {
      const [text] = await Promise.all([getText(`/api/sites/${this.siteId}/plan`), this.loadExercise()]);
      const { revision, plan } = JSON.parse(text);
      this.confirmed = decodePlan(plan);
      this.revision = revision;
      if (this.closed) return;
      const restored = rebase(this.storedQueue(), [], this.confirmed, ['the page was loaded again']);
      this.queue = restored.queue;
      const steps = restored.queue.flatMap((pending) => pending.steps);
      this.worker.load(text, steps);
      this.store.setState({
        status: 'ready',
        plan: restored.plan,
        revision,
        conflicts: restored.conflicts,
        saving: this.queue.length ? 'saving' : 'saved',
      });
      this.listen();
      void this.pump();
    } catch (error) {
      const missing = error instanceof ApiProblem && error.status === 404;
      this.store.setState({ status: missing ? 'missing' : 'failed', problem: (error as Error).message });
      if (error instanceof Offline) setTimeout(() => this.closed || void this.load(), RETRY);
    }
  }

  private listen(): void {
    if (this.closed) return;
    this.events?.close();
    const events = new EventSource(`/api/sites/${this.siteId}/events?since=${this.revision}`);
    this.events = events;
    events.onmessage = (event) => void this.receive([JSON.parse(event.data) as RemoteEntry]);
    events.addEventListener('deleted', () => {
      events.close();
      this.store.setState({ saving: 'deleted' });
    });
    events.onerror = () => {
      // The browser would reconnect with the old `since`; a stream of our own asks from where we are.
      events.close();
      setTimeout(() => this.listen(), RETRY);
    };
  }

  private async catchUp(): Promise<void> {
    const { changes } = await getJson<{ changes: RemoteEntry[] }>(
      `/api/sites/${this.siteId}/changes?since=${this.revision}`,
    );
    this.take(changes);
  }

  private async receive(entries: readonly RemoteEntry[]): Promise<void> {
    const first = entries.find((entry) => entry.revision > this.revision);
    if (first && first.revision > this.revision + 1) return this.catchUp();
    this.take(entries);
  }

  /** Takes journal entries in order: this window's own are confirmed, the others' are put under the queue. */
  private take(entries: readonly RemoteEntry[]): void {
    for (const entry of entries) {
      if (entry.revision !== this.revision + 1) continue;
      const steps = entry.steps.map(decodeStep);
      const applied = applySteps(this.confirmed, steps);
      if (!applied.ok) throw new Error(`change ${entry.revision} does not apply to the plan this page holds`);
      this.confirmed = applied.plan;
      this.revision = entry.revision;
      if (this.queue[0]?.seed === entry.seed) this.queue = this.queue.slice(1);
      else {
        const between = [`${entry.author}: ${entry.label}`];
        const result = rebase(this.queue, steps, this.confirmed, between);
        this.queue = result.queue;
        this.store.setState(({ conflicts }) => ({
          plan: result.plan,
          conflicts: [...conflicts, ...result.conflicts],
          lastChange: `${entry.author}: ${entry.label}`,
        }));
        this.worker.advance(result.steps);
      }
      this.keepQueue();
      this.store.setState({ revision: this.revision, saving: this.queue.length ? 'saving' : 'saved' });
    }
  }

  private async pump(): Promise<void> {
    if (this.sending || this.closed) return;
    this.sending = true;
    try {
      for (let head = this.queue[0]; head && !this.closed; head = this.queue[0]) await this.send(head);
    } catch (error) {
      if (error instanceof ApiProblem && error.status === 404) this.store.setState({ saving: 'deleted' });
      else {
        this.store.setState({ saving: 'offline' });
        setTimeout(() => void this.pump(), RETRY);
      }
    } finally {
      this.sending = false;
    }
  }

  private async send(head: Pending): Promise<void> {
    const { seed, kind, undoes, label, call, steps } = head;
    const body = {
      base: this.revision,
      seed,
      kind,
      undoes,
      label,
      operation: call.operation,
      // The steps stand beside it; storing them twice would double the journal.
      input: call.operation === 'takeSteps' ? null : call.input,
      author: this.author(),
      steps: steps.map(encodeStep),
    };
    try {
      const { revision } = await sendJson<{ revision: number }>(
        'POST',
        `/api/sites/${this.siteId}/changes`,
        body,
      );
      const entry = { revision, seed, kind, label, author: this.author(), steps: body.steps };
      await this.receive([entry]);
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      if (error.status === 409) this.take((error.problem.between as RemoteEntry[]) ?? []);
      else if (this.isRefused(seed, error.status)) this.reject(head, error.message);
      else throw error;
    }
  }

  /** Is it of no use to send a change again? Not where the site is gone, or the server asks to come later. */
  private isRefused(seed: string, status: number): boolean {
    if (status === 404 || LATER.has(status)) return false;
    if (status < 500) return true;
    this.failed = { seed, times: this.failed.seed === seed ? this.failed.times + 1 : 1 };
    return this.failed.times >= TRIES;
  }

  /** The server refuses the change for good: it leaves the queue and is shown, the rest is run again without it. */
  private reject(head: Pending, why: string): void {
    const back = invertSteps(this.queue.flatMap((pending) => pending.steps));
    const rest = this.queue.filter((pending) => pending !== head);
    const result = rebase(rest, [], this.confirmed, []);
    this.queue = result.queue;
    const { seed, label, call } = head;
    this.store.setState(({ conflicts }) => ({
      plan: result.plan,
      conflicts: [...conflicts, { seed, label, call, why, between: [] }, ...result.conflicts],
    }));
    this.worker.advance([...back, ...result.queue.flatMap((pending) => pending.steps)]);
    this.keepQueue();
  }

  /** Looks again how the exercise stands with what is saved. */
  async loadExercise(): Promise<void> {
    const { exercise } = await getJson<{ exercise: ExerciseView | null }>(
      `/api/sites/${this.siteId}/exercise`,
    );
    this.store.setState({ exercise });
  }

  private openCount(): number {
    const { findings, plan } = this.store.getState();
    let open = 0;
    for (const finding of findings.values()) if (!acceptanceOf(plan.acceptance, finding)) open++;
    return open;
  }

  private showFindings(findings: Findings, sequence: number): void {
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

  private get queueKey(): string {
    return `dianome.queue.${this.siteId}`;
  }

  /** Unconfirmed changes survive a reload of this window. */
  private keepQueue(): void {
    try {
      const kept = this.queue.map(({ steps: _steps, ...pending }) => pending);
      if (kept.length) sessionStorage.setItem(this.queueKey, JSON.stringify(kept));
      else sessionStorage.removeItem(this.queueKey);
    } catch {
      // Storage full or forbidden: the queue still lives in this window.
    }
  }

  private storedQueue(): Pending[] {
    try {
      const stored = JSON.parse(sessionStorage.getItem(this.queueKey) ?? '[]') as Omit<Pending, 'steps'>[];
      return stored.map((pending) => ({ ...pending, reviewed: false, steps: [] }));
    } catch {
      return [];
    }
  }
}
