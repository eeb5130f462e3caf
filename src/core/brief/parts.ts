import {
  type AnyRecord,
  Draft,
  type Plan,
  type Step,
  type TableName,
  recordIn,
  removeRecord,
  stepsBetween,
} from '../plan';
import { type Accepted, acceptedKey } from './keyed';
import { type Part, type Proposal, parts } from './propose';

/** What of a proposal is accepted. */

/** Records that proposals made, as they were last accepted; what was there before and only changed is not among them. */
export function acceptedFrom(steps: readonly Step[]): Accepted {
  const accepted = new Map<string, AnyRecord>();
  for (const { table, id, before, after } of steps)
    if (before === null && after) accepted.set(acceptedKey(table, id), after);
  return accepted;
}

/** The part a step belongs to; what goes belongs to the part it was written for, as far as that is still known. */
const usualPart: Partial<Record<TableName, Part>> = {
  vlan: 'segments',
  subnet: 'segments',
  pool: 'segments',
  device: 'things',
  interface: 'things',
  address: 'addresses',
  box: 'boxes',
  port: 'boxes',
  cable: 'cables',
  bridge: 'cables',
  ssid: 'wireless',
  radio: 'wireless',
  uplink: 'internet',
  tunnel: 'internet',
  zone: 'policy',
  cell: 'policy',
  rule: 'policy',
  vlanGuard: 'guards',
  portGuard: 'guards',
  stpPort: 'guards',
  question: 'questions',
};
export const partOfStep = ({ partOf }: Pick<Proposal, 'partOf'>, { table, id }: Step): Part => {
  const written = partOf.get(acceptedKey(table, id));
  return (parts as readonly string[]).includes(written ?? '')
    ? (written as Part)
    : (usualPart[table] ?? 'things');
};

/** How many records of a part are new, otherwise or gone. */
export interface PartCount {
  readonly part: Part;
  readonly added: number;
  readonly changed: number;
  readonly removed: number;
}
/** All parts, also those in which nothing differs. */
export function countsOf(proposal: Pick<Proposal, 'partOf' | 'steps'>): PartCount[] {
  const counts = new Map(parts.map((part) => [part, { part, added: 0, changed: 0, removed: 0 }]));
  for (const step of proposal.steps) {
    const count = counts.get(partOfStep(proposal, step))!;
    if (step.before === null) count.added++;
    else if (step.after === null) count.removed++;
    else count.changed++;
  }
  return [...counts.values()];
}

/**
 * The steps of some parts of a proposal. What cannot be without a record of another part is left out with it; what only names
 * one forgets it.
 */
export function stepsOfParts(
  plan: Plan,
  proposal: Pick<Proposal, 'partOf' | 'steps'>,
  chosen: ReadonlySet<Part>,
): readonly Step[] {
  const isChosen = (step: Step) => chosen.has(partOfStep(proposal, step));
  if (proposal.steps.every(isChosen)) return proposal.steps;
  const whole = new Draft(plan, '');
  whole.putAll(proposal.steps);
  for (const step of [...proposal.steps].reverse()) {
    if (isChosen(step)) continue;
    const { table, id, before } = step;
    const standing = recordIn(whole.plan, table, id);
    if (before === null) {
      if (standing) removeRecord(whole, { table, id });
    } else whole.put(table, id, before as never);
  }
  return stepsBetween(plan, whole.plan);
}
