import { type Change, applySteps } from './change';
import { type Plan } from './plan';
import { toWire } from './record-wire';
import { equal } from './equal';
import type { TableName } from './records';
import { fieldName, fieldText, recordTitle } from './words';

/** One line of a change as a person reviews it: what, which field, from, to. */
export interface FieldDifference {
  readonly table: TableName;
  readonly id: string;
  readonly what: string;
  readonly kind: 'added' | 'removed' | 'changed';
  readonly field: string;
  readonly before: string;
  readonly after: string;
}

const hidden = new Set(['id', 'rank']);

/** Lists what a change does to the plan, one line per record added or removed and per field changed. */
export function describeChange(plan: Plan, change: Change): FieldDifference[] {
  const applied = applySteps(plan, change.steps);
  const after = applied.ok ? applied.plan : plan;
  return change.steps.flatMap((step): FieldDifference[] => {
    const { table, id } = step;
    if (step.before === null || step.after === null) {
      const record = (step.after ?? step.before)!;
      const what = recordTitle(step.after ? after : plan, table, record);
      return [{ table, id, what, kind: step.after ? 'added' : 'removed', field: '', before: '', after: '' }];
    }
    const was = toWire(table, step.before);
    const is = toWire(table, step.after);
    const what = recordTitle(plan, table, step.before);
    return Object.keys(is)
      .filter((field) => !hidden.has(field) && !equal(was[field], is[field]))
      .map((field) => ({
        table,
        id,
        what,
        kind: 'changed',
        field: fieldName(table, field),
        before: fieldText(plan, table, field, was[field]),
        after: fieldText(after, table, field, is[field]),
      }));
  });
}
