import {
  type Alternative,
  type NoProposal,
  type Part,
  type Proposal,
  type ProposalSheet,
  type Weakness,
  acceptedFrom,
  alternativesOf,
  propose,
  sheetOf,
  stepsOfParts,
  weaknessOf,
} from '@/core/brief';
import {
  type Plan,
  type Progress,
  Refusal,
  type WireStep,
  type Work,
  decodeStep,
  encodeStep,
} from '@/core/plan';

/** The proposals that were made last: what is asked about them afterwards needs them whole. */
export class Proposals {
  private made: readonly { readonly alternative: Alternative; readonly proposal: Proposal }[] = [];

  *make(plan: Plan, accepted: readonly WireStep[]): Work<readonly ProposalSheet[] | NoProposal, Progress> {
    this.made = [];
    const known = acceptedFrom(accepted.map((step) => decodeStep(step)));
    const alternatives = alternativesOf(plan);
    const sheets: ProposalSheet[] = [];
    for (const [i, alternative] of alternatives.entries()) {
      try {
        const proposal = yield* ofAll(propose(plan, alternative.choice, known), i, alternatives.length);
        this.made = [...this.made, { alternative, proposal }];
        sheets.push(sheetOf(plan, alternative, proposal));
      } catch (error) {
        if (!(error instanceof Refusal)) throw error;
        // Another way to build it may not fit where the first does.
        if (i === 0) return { why: error.message, records: error.records };
      }
    }
    return sheets;
  }

  *weaknesses(): Work<ReadonlyMap<string, Weakness>, Progress> {
    const found = new Map<string, Weakness>();
    for (const [i, { alternative, proposal }] of this.made.entries())
      found.set(alternative.key, yield* ofAll(weaknessOf(proposal), i, this.made.length));
    return found;
  }

  accept(plan: Plan, key: string, parts: readonly Part[]): WireStep[] {
    const proposal = this.made.find(({ alternative }) => alternative.key === key)?.proposal;
    return proposal ? stepsOfParts(plan, proposal, new Set(parts)).map(encodeStep) : [];
  }
}

/** Work that is one of so many of about the same size. */
function* ofAll<T>(work: Work<T, Progress>, at: number, count: number): Work<T, Progress> {
  for (;;) {
    const next = work.next();
    if (next.done) return next.value;
    const { done, of } = next.value;
    yield { done: at * of + done, of: of * count };
  }
}
