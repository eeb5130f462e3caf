import { type BenchView, type Formers, Practice, type WireBenchAction } from '@/core/commission';
import type { Plan, Progress } from '@/core/plan';

/** The bench that was looked at last: it goes on from there as long as something is only added. */
export class Benches {
  private kept: {
    readonly plan: Plan;
    readonly done: readonly string[];
    readonly practice: Practice;
  } | null = null;

  *view(plan: Plan, actions: readonly WireBenchAction[], formers: Formers): Generator<Progress, BenchView> {
    const keys = actions.map((action) => JSON.stringify(action));
    const { kept } = this;
    const goesOn = kept?.plan === plan && kept.done.every((key, at) => keys[at] === key);
    const practice = goesOn ? kept.practice : new Practice(plan, formers);
    for (const action of actions.slice(goesOn ? kept.done.length : 0)) practice.do(action);
    this.kept = { plan, done: keys, practice };
    return yield* practice.view();
  }
}
