import { equal } from './equal';
import { type Plan, recordIn, withRecord, withRecords } from './plan';
import { type AnyRecord, type TableName, tableNames } from './records';

/**
 * The smallest change: one record from `before` to `after`; null means absent. It applies only to a plan that holds
 * exactly `before`, and its inverse swaps the two.
 */
export interface Step {
  readonly table: TableName;
  readonly id: string;
  readonly before: AnyRecord | null;
  readonly after: AnyRecord | null;
}

/** So long a label may be, in UTF-16 units: the journal keeps no more of it. The records keep every text whole. */
export const LABEL_LENGTH = 500;
/** A label made to fit, cut between characters. */
export function fittedLabel(label: string): string {
  if (label.length <= LABEL_LENGTH) return label;
  const cut = label.slice(0, LABEL_LENGTH - 1);
  // Half a surrogate pair is no character.
  return `${cut.isWellFormed() ? cut : cut.slice(0, -1)}…`;
}

/** Steps that belong together under one plain-words label. All apply or none does. */
export interface Change {
  readonly label: string;
  readonly steps: readonly Step[];
}

export type Applied =
  | { readonly ok: true; readonly plan: Plan }
  | { readonly ok: false; readonly failed: Step; readonly found: AnyRecord | null };

/** Applies the steps in order; on the first that does not fit, says which and what was found instead. */
export function applySteps(plan: Plan, steps: readonly Step[]): Applied {
  if (steps.length >= MANY) return applyMany(plan, steps);
  let next = plan;
  for (const step of steps) {
    const found = recordIn(next, step.table, step.id) ?? null;
    if (!equal(found, step.before)) return { ok: false, failed: step, found };
    next = withRecord(next, step.table, step.id, step.after);
  }
  return { ok: true, plan: next };
}

/** From so many steps on they are put in at once: each alone would copy what it stands in. */
const MANY = 50;

function applyMany(plan: Plan, steps: readonly Step[]): Applied {
  const changes = new Map<TableName, Map<string, AnyRecord | null>>();
  for (const step of steps) {
    let records = changes.get(step.table);
    if (!records) changes.set(step.table, (records = new Map()));
    const pending = records.get(step.id);
    const found = pending === undefined ? (recordIn(plan, step.table, step.id) ?? null) : pending;
    if (!equal(found, step.before)) return { ok: false, failed: step, found };
    records.set(step.id, step.after);
  }
  return { ok: true, plan: withRecords(plan, changes) };
}

export const applyChange = (plan: Plan, change: Change): Applied => applySteps(plan, change.steps);

/** The steps that undo these: inverse steps in reverse order. applySteps(applySteps(p, s), invert(s)) is p. */
export const invertSteps = (steps: readonly Step[]): Step[] =>
  steps.map((step) => ({ ...step, before: step.after, after: step.before })).reverse();

/**
 * The net effect of many steps: one step per record, from the first `before` to the last `after`, without those that
 * end where they began, parents before children and deletions last in reverse order, so that references hold.
 */
export function netSteps(steps: readonly Step[]): Step[] {
  const net = new Map<string, Step>();
  for (const step of steps) {
    const key = `${step.table} ${step.id}`;
    net.set(key, { ...step, before: net.has(key) ? net.get(key)!.before : step.before });
  }
  const order = (step: Step) => tableNames.indexOf(step.table);
  const changed = [...net.values()].filter((step) => !equal(step.before, step.after));
  const written = changed.filter((step) => step.after !== null).sort((a, b) => order(a) - order(b));
  const removed = changed.filter((step) => step.after === null).sort((a, b) => order(b) - order(a));
  return [...written, ...removed];
}
