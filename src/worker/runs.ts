import {
  type Formers,
  type Rest,
  type RunSheet,
  madeOf,
  restAfter,
  runSheetOf,
  workedOrder,
} from '@/core/commission';
import { resultsOf } from '@/core/log';
import type { Plan, Progress } from '@/core/plan';
import type { RunAsked } from './protocol';

interface Kept {
  readonly plan: Plan;
  readonly run: string;
  /** The entries it is after. */
  readonly ids: readonly string[];
  readonly rest: Rest;
}

/** What is left of the run that was looked at last: it goes on from there as long as nobody took anything back. */
export class Runs {
  private kept: Kept | null = null;

  *sheetOf(plan: Plan, { id, edits, results }: RunAsked, formers: Formers): Generator<Progress, RunSheet> {
    const { kept } = this;
    const goesOn =
      kept?.plan === plan && kept.run === id && kept.ids.every((one, at) => results[at]?.id === one);
    const before = goesOn
      ? kept.rest
      : { after: 0, entries: madeOf(yield* workedOrder(plan, formers), edits).entries };
    const said = resultsOf(results);
    const rest = yield* restAfter(plan, before, said, formers);
    this.kept = { plan, run: id, ids: results.map((one) => one.id), rest };
    return runSheetOf(plan, said, rest.entries, formers);
  }
}
