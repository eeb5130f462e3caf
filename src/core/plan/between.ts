import { type Step, netSteps } from './change';
import { type Plan, recordIn } from './plan';
import { type AnyRecord, tableNames } from './records';

/** The steps that turn one plan into another, record by record: how a plan file becomes a change to review. */
export function stepsBetween(from: Plan, to: Plan): Step[] {
  const steps: Step[] = [];
  for (const table of tableNames) {
    for (const record of from[table].values() as Iterable<AnyRecord>)
      steps.push({ table, id: record.id, before: record, after: recordIn(to, table, record.id) ?? null });
    for (const record of to[table].values() as Iterable<AnyRecord>)
      if (!recordIn(from, table, record.id))
        steps.push({ table, id: record.id, before: null, after: record });
  }
  return netSteps(steps);
}
