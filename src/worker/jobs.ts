import {
  type Formers,
  type OrderEdit,
  type WorkedOrder,
  diagnosing,
  siteTests,
  workedOrder,
  worksheetOf,
} from '@/core/commission';
import { importing } from '@/core/imports';
import { proposeChannels } from '@/core/model/wireless';
import type { Plan } from '@/core/plan';
import { singleFaults, whatIf } from '@/core/rehearse';
import { Benches } from './benches';
import { FormerReader } from './former-reader';
import type { FromWorker, JobResult, ToWorker } from './protocol';
import { Proposals } from './proposals';
import { Runs } from './runs';

type Asked = Extract<ToWorker, { readonly type: 'run' }>;

/** How long a slice of a job may keep the worker from hearing the page, in milliseconds. */
const SLICE = 40;

/** Runs one job at a time in slices, so that edits are followed meanwhile and the page can call it off. */
export class Jobs {
  private running: symbol | null = null;
  private readonly runs = new Runs();
  private readonly benches = new Benches();
  private readonly proposals = new Proposals();
  private readonly formers = new FormerReader();
  private worked: { readonly plan: Plan; readonly order: WorkedOrder } | null = null;

  constructor(private readonly say: (message: FromWorker) => void) {}

  run(plan: Plan, today: string | null, { id, job, formers }: Asked): void {
    const own = Symbol('job');
    this.running = own;
    if (job.kind === 'what-if') {
      this.say({ type: 'result', id, result: { kind: job.kind, impact: whatIf(plan, job.faults, today) } });
      return;
    }
    if (job.kind === 'tests') {
      this.say({ type: 'result', id, result: { kind: job.kind, tests: siteTests(plan, today) } });
      return;
    }
    if (job.kind === 'channels') {
      this.say({
        type: 'result',
        id,
        result: { kind: job.kind, proposals: proposeChannels(plan, job.wishes) },
      });
      return;
    }
    if (job.kind === 'order') this.order(own, plan, id, job.edits, this.formers.read(formers));
    else if (job.kind === 'run')
      this.inSlices(own, id, this.runs.sheetOf(plan, job.run, this.formers.read(formers)), (sheet) => ({
        kind: job.kind,
        ...sheet,
      }));
    else if (job.kind === 'bench')
      this.inSlices(own, id, this.benches.view(plan, job.actions, this.formers.read(formers)), (view) => ({
        kind: job.kind,
        view,
      }));
    else if (job.kind === 'proposals')
      this.inSlices(own, id, this.proposals.make(plan, job.accepted), (sheets) => ({
        kind: job.kind,
        sheets,
      }));
    else if (job.kind === 'import')
      this.inSlices(own, id, importing(plan, job.tables, job.seed), (read) => ({ kind: job.kind, read }));
    else if (job.kind === 'weaknesses')
      this.inSlices(own, id, this.proposals.weaknesses(), (byKey) => ({ kind: job.kind, byKey }));
    else if (job.kind === 'acceptance') {
      const steps = this.proposals.accept(plan, job.key, job.parts);
      this.say({ type: 'result', id, result: { kind: job.kind, steps } });
    } else if (job.kind === 'diagnosis')
      this.inSlices(own, id, diagnosing(plan, job.observed, today), (diagnosis) => ({
        kind: job.kind,
        diagnosis,
      }));
    else this.inSlices(own, id, singleFaults(plan, today), (ranked) => ({ kind: job.kind, ranked }));
  }

  /** What was worked out for a plan serves for everything that is done to the order by hand. */
  private order(own: symbol, plan: Plan, id: number, edits: readonly OrderEdit[], formers: Formers): void {
    const resultOf = (order: WorkedOrder): JobResult => {
      this.worked = { plan, order };
      return { kind: 'order', sheet: worksheetOf(plan, order, edits) };
    };
    if (this.worked?.plan === plan) this.say({ type: 'result', id, result: resultOf(this.worked.order) });
    else this.inSlices(own, id, workedOrder(plan, formers), resultOf);
  }

  private inSlices<R>(
    own: symbol,
    id: number,
    work: Generator<{ readonly done: number; readonly of: number }, R>,
    resultOf: (value: R) => JobResult,
  ): void {
    const slice = () => {
      if (this.running !== own) return;
      const until = performance.now() + SLICE;
      for (let next = work.next(); ; next = work.next()) {
        if (next.done) {
          this.say({ type: 'result', id, result: resultOf(next.value) });
          return;
        }
        if (performance.now() < until) continue;
        this.say({ type: 'progress', id, ...next.value });
        setTimeout(slice);
        return;
      }
    };
    slice();
  }

  cancel(): void {
    this.running = null;
  }
}
