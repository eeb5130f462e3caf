import * as z from 'zod';
import { operation, kinds } from '../../plan';

const shape = kinds.acceptance.fields;

/** Accepts a finding with a reason and a name. It comes back when its evidence changes. */
export const acceptFinding = operation(
  'acceptFinding',
  z.strictObject({
    finding: shape.finding,
    what: z.string().max(200),
    evidence: shape.evidence,
    reason: shape.reason,
    who: shape.who,
    at: shape.at,
  }),
  (draft, { finding, what, evidence, reason, who, at }) => {
    for (const known of [...draft.plan.acceptance.values()].filter((other) => other.finding === finding))
      draft.remove('acceptance', known.id);
    draft.insert('acceptance', { finding, evidence, reason, who, at });
    return `Accepted: ${what} (${reason})`;
  },
);

export const withdrawAcceptance = operation(
  'withdrawAcceptance',
  z.strictObject({ id: z.string() }),
  (draft, { id }) => {
    const acceptance = draft.need('acceptance', id);
    draft.remove('acceptance', id);
    return `Acceptance withdrawn: ${acceptance.reason}`;
  },
);
