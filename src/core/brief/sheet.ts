import { type AnyRecord, type Plan, type Refusal, type Step, kinds, recordTitle } from '../plan';
import type { Alternative } from './alternatives';
import { type Figures, figuresOf } from './figures';
import { type PartCount, countsOf, partOfStep } from './parts';
import { type Part, type Proposal, parts } from './propose';
import type { Decision } from './design';
import type { Unmet } from './lines';

/** A proposal as it is read: like a bill, part by part, with what would differ and why. */

/** A part of a proposal that is accepted or left. */
export interface PartSheet extends PartCount {
  readonly decisions: readonly Decision[];
  /** What would differ, record by record; the first of them. */
  readonly lines: readonly string[];
}

export interface ProposalSheet extends Pick<Alternative, 'key' | 'title' | 'about'> {
  readonly figures: Figures;
  readonly assumed: readonly string[];
  readonly unmet: readonly Unmet[];
  readonly parts: readonly PartSheet[];
}

/** Why a brief cannot be planned, and the records it is about. */
export interface NoProposal {
  readonly why: string;
  readonly records: Refusal['records'];
}

/** As many lines of a part as somebody reads. */
const MOST_LINES = 60;

const lineOf = (before: Plan, after: Plan, step: Step): string => {
  const sign = step.before === null ? '+' : step.after === null ? '−' : '±';
  const plan = step.after === null ? before : after;
  return `${sign} ${kinds[step.table].word} ${recordTitle(plan, step.table, (step.after ?? step.before) as AnyRecord)}`;
};

export function sheetOf(plan: Plan, alternative: Alternative, proposal: Proposal): ProposalSheet {
  const byPart = new Map<Part, Step[]>(parts.map((part) => [part, []]));
  for (const step of proposal.steps) byPart.get(partOfStep(proposal, step))!.push(step);
  const { key, title, about } = alternative;
  return {
    key,
    title,
    about,
    figures: figuresOf(proposal),
    assumed: proposal.brief.assumed,
    unmet: proposal.unmet,
    parts: countsOf(proposal).map((count) => ({
      ...count,
      decisions: proposal.decisions[count.part] ?? [],
      lines: byPart
        .get(count.part)!
        .slice(0, MOST_LINES)
        .map((step) => lineOf(plan, proposal.plan, step)),
    })),
  };
}
