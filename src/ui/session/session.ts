import { type StoreApi, createStore } from 'zustand/vanilla';
import { routes } from '@/contract';
import { perform } from '@/core/edit';
import {
  type Call,
  type Change,
  type Plan,
  Refusal,
  type Step,
  applySteps,
  decodePlan,
  decodeStep,
  encodePlan,
  encodeStep,
  equal,
  invertSteps,
  planOf,
  planOfLists,
} from '@/core/plan';
import type { Job } from '@/worker/protocol';
import { ApiProblem, Offline, ask, askText } from './api';
import { newSeed } from './author';
import { FindingsFollower } from './findings-follower';
import { FormerPlans } from './former-plans';
import { formerQueue } from './former-queue';
import type { KeptHere, KeptPlan } from './kept-here';
import type { Heard, News } from './news';
import {
  type Conflict,
  type Intent,
  type Pending,
  keptOf,
  pendingOf,
  rebase,
  revertible,
  reverting,
} from './pending';
import { Sender, type Sending, type Told } from './sender';
import type { Outcome, SiteState } from './state';
import type { JobEars } from './worker-client';

const RETRY = 2000;
/** So many records of one change are told apart; of more, nobody sees each. */
const MOST_MARKED = 200;
/** Who works in this window, and what it holds together with the others of the browser. */
export interface Surroundings {
  readonly author: () => string;
  readonly browser: () => string;
  readonly kept: KeptHere;
  readonly news: News;
}

interface Options {
  readonly reviewed?: boolean;
  readonly intent?: Intent | undefined;
}

/**
 * One window's work on one site: the plan at once with this window's changes, the queue of those not confirmed yet,
 * and the journal of the others coming in. The server decides the order; this side runs its own changes again on it.
 */
export class SiteSession {
  readonly store: StoreApi<SiteState>;
  private confirmed: Plan = planOf({});
  private revision = 0;
  private queue: readonly Pending[] = [];
  private readonly sender: Sender;
  private readonly findings: FindingsFollower;
  private readonly stopHearing: () => void;
  private closed = false;
  /** Whether the stream of news is open; before it is known it counts as open. */
  private reached = true;
  private timer: ReturnType<typeof setTimeout> | undefined;
  readonly formers: FormerPlans;
  /** Counts the jobs, so that one that waits for a plan knows that it is overtaken. */
  private asked = 0;
  private undoing: Promise<void> = Promise.resolve();
  private catching: Promise<void> | null = null;
  /** There may be changes that were not asked for yet. */
  private behind = false;

  constructor(
    readonly siteId: string,
    private readonly around: Surroundings,
  ) {
    this.store = createStore<SiteState>(() => ({
      status: 'loading',
      problem: '',
      plan: this.confirmed,
      revision: 0,
      saving: 'saved',
      trouble: '',
      unsaved: 0,
      findings: new Map(),
      findingsReady: false,
      findingsFailed: '',
      lastChange: '',
      outcome: null,
      conflicts: [],
      exercise: null,
    }));
    this.findings = new FindingsFollower(this.store);
    this.formers = new FormerPlans(siteId);
    this.sender = new Sender(this.sending());
    this.stopHearing = around.news.hear((heard) => this.hear(heard));
    void this.load();
  }

  get plan(): Plan {
    return this.store.getState().plan;
  }

  close(): void {
    this.closed = true;
    clearTimeout(this.timer);
    this.stopHearing();
    this.findings.close();
    this.around.kept.close();
  }

  /** What an operation would do to the plan now; throws its Refusal. */
  preview(call: Call): Change {
    return perform(this.plan, call, newSeed());
  }

  /** Does it: at once here, then on the server. Throws the Refusal when it makes no sense. */
  perform(call: Call, { reviewed = false, intent = { kind: 'change' } }: Options = {}): Change {
    const seed = newSeed();
    const change = perform(this.plan, call, seed);
    if (change.steps.length === 0) {
      this.tell(change.label);
      return change;
    }
    const applied = applySteps(this.plan, change.steps);
    if (!applied.ok) throw new Refusal('changed', 'The plan changed under this edit; try it again.');
    const { operation, input } = call;
    const asked = { operation, input };
    this.queue = [...this.queue, { ...intent, seed, call: asked, reviewed, ...change }];
    this.findings.follow(change.label, change.steps);
    this.store.setState({ plan: applied.plan });
    this.tell(change.label, change.steps, intent.kind === 'undo' ? 'redo' : 'undo');
    this.keep();
    void this.pump();
    return change;
  }

  /** Reverts the latest change of this browser that is not undone, or with 'redo' its latest undo, as a new change. */
  undo(direction: 'undo' | 'redo'): Promise<void> {
    this.undoing = this.undoing
      .then(() => this.undoOnce(direction))
      .catch((error: Error) => {
        const away = error instanceof Offline;
        this.tell(
          away
            ? `Nothing was ${direction === 'undo' ? 'undone' : 'redone'}: what is saved already needs the server for that.`
            : error.message,
        );
      });
    return this.undoing;
  }

  /** Long work in the worker, on the plan as it is now; what is about boxes as they are also on the plans they were set up by. */
  run(job: Job, ears: JobEars): void {
    const own = ++this.asked;
    if (job.kind !== 'order' && job.kind !== 'run' && job.kind !== 'bench')
      return this.findings.run(job, [], ears);
    this.formers.neededBy(this.plan).then(
      (formers) =>
        own === this.asked && !this.closed ? this.findings.run(job, formers, ears) : ears.onCalledOff(),
      (error: Error) => ears.onProblem(error.message),
    );
  }
  cancelRun(): void {
    this.asked++;
    this.findings.cancel();
  }

  /** Says that boxes are set up as the plan is now, once all of it is saved. Throws Offline when it cannot be saved now. */
  async recordPlanned(devices: readonly string[]): Promise<void> {
    await this.settled();
    const set = { state: 'as-planned' as const, asOf: this.revision };
    this.perform({ operation: 'setPresent', input: { devices: [...devices], set } });
  }
  /** Works the findings out anew, where the worker failed. */
  findAgain(): void {
    this.findings.again();
  }

  /** The steps back to an earlier revision as a call to review. */
  async backTo(revision: number): Promise<Call> {
    await this.settled();
    const { steps } = await ask(routes.journal.back, { site: this.siteId, query: { revision } });
    return { operation: 'takeSteps', input: { label: `Back to change ${revision}`, steps } };
  }

  dismiss(conflict: Conflict): void {
    this.store.setState(({ conflicts }) => ({ conflicts: conflicts.filter((other) => other !== conflict) }));
    this.keep();
  }

  /** Resolves when the queue is empty; throws Offline when it cannot be emptied now. */
  settled(): Promise<void> {
    return new Promise((resolve, reject) => {
      const look = ({ saving }: SiteState) => {
        if (this.queue.length > 0 && saving === 'saving' && !this.closed) return false;
        if (this.queue.length > 0) reject(new Offline());
        else resolve();
        return true;
      };
      if (look(this.store.getState())) return;
      const stop = this.store.subscribe((state) => look(state) && stop());
    });
  }

  /** Looks again how the exercise stands with what is saved. */
  async loadExercise(): Promise<void> {
    this.store.setState(await ask(routes.rehearsal.exercise, { site: this.siteId }));
  }

  /** What was done here, or why it was not. */
  private tell(lastChange: string, steps: readonly Step[] = [], back: Outcome['back'] = null): void {
    const touched = steps.slice(0, MOST_MARKED).map(({ id }) => id);
    this.store.setState(({ outcome }) => ({
      lastChange,
      outcome: { number: (outcome?.number ?? 0) + 1, touched, back },
    }));
  }

  private async undoOnce(direction: 'undo' | 'redo'): Promise<void> {
    const waiting = revertible(this.queue, direction);
    if (waiting) return void this.revert(direction, waiting);
    await this.settled();
    if (!this.reached) throw new Offline();
    const found = await ask(routes.journal.undoable, {
      site: this.siteId,
      query: { browser: this.around.browser() },
    });
    const entry = found[direction];
    if (!entry) {
      this.tell(`Nothing of yours to ${direction}`);
      return;
    }
    if (entry.revision > this.revision) await this.catchUp();
    this.revert(direction, { ...entry, steps: entry.steps.map(decodeStep) });
    await this.settled();
  }

  private revert(direction: 'undo' | 'redo', target: Pick<Pending, 'seed' | 'label' | 'steps'>): void {
    const label = `${direction === 'undo' ? 'Undo' : 'Redo'}: ${target.label.replace(/^(Undo|Redo): /, '')}`;
    const call = reverting(label, target.steps);
    try {
      this.perform(call, { intent: { kind: direction, undoes: target.seed } });
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      this.conflict([{ seed: newSeed(), label, call, why: error.message, between: [] }]);
    }
  }

  private conflict(more: readonly Conflict[]): void {
    if (more.length === 0) return;
    this.store.setState(({ conflicts }) => ({ conflicts: [...conflicts, ...more] }));
  }

  private async load(): Promise<void> {
    const { kept } = this.around;
    try {
      const [text] = await Promise.all([
        askText(routes.sites.plan, { site: this.siteId }),
        this.loadExercise(),
      ]);
      void kept.keepPlan(this.siteId, text);
      await this.begin({ text, entries: [] });
    } catch (error) {
      const missing = error instanceof ApiProblem && error.status === 404;
      const known = missing ? null : await kept.plan(this.siteId);
      if (known && !this.closed && (await this.beginWithout(known))) return;
      this.store.setState({ status: missing ? 'missing' : 'failed', problem: (error as Error).message });
      if (!missing) this.timer = setTimeout(() => this.closed || void this.load(), RETRY);
    }
  }

  /** Begins with a plan as it was kept here; false when that cannot be read any more. */
  private async beginWithout(known: KeptPlan): Promise<boolean> {
    this.reached = false;
    try {
      // It may be of an earlier version of this program, so it is read as a file is.
      const { revision, plan } = routes.sites.plan.answer.parse(JSON.parse(known.text));
      const text = JSON.stringify({ revision, plan: encodePlan(planOfLists(plan)) });
      await this.begin({ ...known, text });
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      await this.around.kept.forget(this.siteId);
      return false;
    }
    this.later();
    return true;
  }

  /** Begins with a plan as the server told it, and with what windows before this one left. */
  private async begin({ text, entries }: KeptPlan): Promise<void> {
    const { revision, plan } = routes.sites.plan.answer.parse(JSON.parse(text));
    this.confirmed = decodePlan(plan);
    this.revision = revision;
    const since: Step[] = [];
    for (const entry of entries) {
      if (entry.revision !== this.revision + 1) continue;
      const steps = entry.steps.map(decodeStep);
      const applied = applySteps(this.confirmed, steps);
      if (!applied.ok) break;
      this.confirmed = applied.plan;
      this.revision = entry.revision;
      since.push(...steps);
    }
    if (this.closed) return;
    const left = await this.around.kept.takeOver(this.siteId);
    const former = formerQueue(this.siteId);
    const queue = await this.unsaved([...former.queue, ...left.queue].map(pendingOf));
    if (this.closed) return;
    const restored = rebase(queue, [], this.confirmed, ['the page was loaded again']);
    this.queue = restored.queue;
    this.findings.load(text, [...since, ...restored.queue.flatMap((pending) => pending.steps)]);
    this.store.setState({
      status: 'ready',
      plan: restored.plan,
      revision: this.revision,
      conflicts: [...left.conflicts, ...former.conflicts, ...restored.conflicts],
    });
    this.keep();
    if (this.behind) void this.catchUp().catch(() => this.later());
    void this.pump();
  }

  /** Without those that are saved: their answer was lost. What is saved after the plan comes with the journal. */
  private async unsaved(queue: readonly Pending[]): Promise<readonly Pending[]> {
    if (queue.length === 0 || !this.reached) return queue;
    const seeds = queue.map(({ seed }) => seed);
    const { saved } = await ask(routes.journal.saved, { site: this.siteId, body: { seeds } });
    const known = new Set(saved.filter((item) => item.revision <= this.revision).map(({ seed }) => seed));
    return queue.filter(({ seed }) => !known.has(seed));
  }

  private hear(heard: Heard): void {
    if ('log' in heard) return;
    if ('open' in heard) {
      this.reached = heard.open;
      this.look();
      if (!heard.open) return;
    } else if (heard.site !== this.siteId || (heard.revision >= 0 && heard.revision <= this.revision)) return;
    else if (heard.revision < 0) return this.gone();
    this.behind = true;
    // The plan that is on its way may be older than the news.
    if (this.store.getState().status !== 'ready') return;
    void this.catchUp().catch(() => this.later());
    void this.pump();
  }

  private gone(): void {
    this.store.setState({ saving: 'deleted' });
  }

  /** Says anew where everything is. */
  private look(trouble = ''): void {
    if (this.store.getState().saving === 'deleted') return;
    const unsaved = this.queue.length;
    const saving = trouble ? 'trouble' : !this.reached ? 'offline' : unsaved ? 'saving' : 'saved';
    this.store.setState({ revision: this.revision, saving, trouble, unsaved });
  }

  /** Fetches what came after the revision that is here; once more where this is asked while an answer is on its way. */
  private catchUp(): Promise<void> {
    this.behind = true;
    this.catching ??= (async () => {
      try {
        while (this.behind && !this.closed) {
          this.behind = false;
          const query = { since: this.revision };
          const told = await ask(routes.journal.changes, { site: this.siteId, query });
          this.take(told.changes);
          this.behind ||= told.more;
        }
        this.reached = true;
        this.look();
      } catch (error) {
        if (error instanceof ApiProblem && error.status === 404) return this.gone();
        throw error;
      } finally {
        this.catching = null;
      }
    })();
    return this.catching;
  }

  /** Takes journal entries in order: this window's own are confirmed, the others' are put under the queue. */
  private take(entries: readonly Told[]): void {
    for (const entry of entries) {
      if (entry.revision !== this.revision + 1) continue;
      const own = this.queue.find(({ seed }) => seed === entry.seed);
      const steps = entry.steps?.map(decodeStep) ?? own?.steps;
      if (!steps) throw new Error(`change ${entry.revision} came without its steps`);
      const applied = applySteps(this.confirmed, steps);
      if (!applied.ok) throw new Error(`change ${entry.revision} does not apply to the plan this page holds`);
      this.confirmed = applied.plan;
      this.revision = entry.revision;
      void this.around.kept.keepEntry(this.siteId, entry.revision, entry.steps ?? steps.map(encodeStep));
      if (own && own === this.queue[0] && (entry.steps === null || equal(steps, own.steps)))
        this.queue = this.queue.slice(1);
      else {
        const between = own ? [] : [`${entry.author}: ${entry.label}`];
        this.put(
          this.queue,
          this.queue.filter((pending) => pending !== own),
          steps,
          between,
        );
        if (!own) this.store.setState({ lastChange: `${entry.author}: ${entry.label}` });
      }
      this.keep();
    }
  }

  /** Puts a queue on the confirmed plan in place of the one that was, after steps of others. */
  private put(
    was: readonly Pending[],
    queue: readonly Pending[],
    remote: readonly Step[],
    between: readonly string[],
  ): void {
    const result = rebase(queue, remote, this.confirmed, between);
    this.queue = result.queue;
    this.store.setState({ plan: result.plan });
    this.conflict(result.conflicts);
    const back = invertSteps(was.flatMap((pending) => pending.steps));
    this.findings.advance([...back, ...remote, ...result.queue.flatMap((pending) => pending.steps)]);
  }

  /** Keeps what waits. Once the session is closed that is another one's, which takes it over. */
  private keep(): void {
    if (this.closed) return;
    this.look(this.store.getState().trouble);
    const { conflicts } = this.store.getState();
    void this.around.kept.leave(this.siteId, { queue: this.queue.map(keptOf), conflicts });
  }

  private pump(): Promise<void> {
    // With nothing to send it is the changes of others that are asked for once more.
    if (this.queue.length > 0) clearTimeout(this.timer);
    return this.sender.pump();
  }

  private sending(): Sending {
    return {
      ...this.around,
      siteId: this.siteId,
      head: () => (this.closed || this.store.getState().saving === 'deleted' ? undefined : this.queue[0]),
      revision: () => this.revision,
      reached: () => (this.reached = true),
      saved: (seed, entries, more) => this.saved(seed, entries, more),
      catchUp: () => this.catchUp(),
      refused: (head, why) => this.reject(head, why),
      gone: () => this.gone(),
      failed: (away, why) => {
        if (away) this.reached = false;
        this.look(away ? '' : why);
        this.later();
      },
    };
  }

  private async saved(seed: string, entries: readonly Told[], more: boolean): Promise<void> {
    this.take(entries);
    // It changes nothing on the newest plan, or was saved before what is known here.
    const rest = this.queue.filter((pending) => pending.seed !== seed);
    if (more) await this.catchUp();
    else if (rest.length < this.queue.length) this.put(this.queue, rest, [], []);
    this.keep();
    this.look();
  }

  /** Tries again in a while to get rid of what waits and to hear what came between. */
  private later(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      if (this.closed) return;
      if (this.queue.length > 0) void this.pump();
      else void this.catchUp().catch(() => this.later());
    }, RETRY);
  }

  /** The server refuses the change for good: it leaves the queue and is shown, the rest is run again without it. */
  private reject(head: Pending, why: string): void {
    const { seed, label, call } = head;
    this.put(
      this.queue,
      this.queue.filter((pending) => pending !== head),
      [],
      [],
    );
    this.conflict([{ seed, label, call, why, between: [] }]);
    this.keep();
  }
}
