import type { Step } from './change';
import { type Plan, recordIn } from './plan';
import { requireShape } from './record-wire';
import { type AnyRecord, type TableName, kinds } from './records';
import { referencedIds, references, referencesTo, referringTo } from './references';
import { Refusal, missing } from './refusal';
import { recordTitle } from './words';

/**
 * Refuses what no plan may come to by these steps, whoever made them: a record that its kind does not allow, one that refers to
 * nothing, one that went while another refers to it. `plan` is the plan after them.
 */
export function requireSound(plan: Plan, steps: readonly Step[]): void {
  const gone = new Map<TableName, Map<string, AnyRecord>>();
  for (const { table, id, before, after } of steps)
    if (after) {
      requireShape(table, after);
      requireReferences(plan, table, after);
    } else if (before) {
      if (!gone.has(table)) gone.set(table, new Map());
      gone.get(table)!.set(id, before);
    }
  for (const [table, records] of gone) requireUnused(plan, table, records);
}

function requireReferences(plan: Plan, table: TableName, record: AnyRecord): void {
  for (const { field, to } of references[table])
    for (const id of referencedIds(record, field)) if (!recordIn(plan, to, id)) throw missing(to, id);
}

function requireUnused(plan: Plan, table: TableName, gone: ReadonlyMap<string, AnyRecord>): void {
  for (const reference of referencesTo(table)) {
    const [user] = referringTo(plan, reference, new Set(gone.keys()));
    if (!user) continue;
    const used = referencedIds(user, reference.field).find((id) => gone.has(id))!;
    const [it, by] = [named(plan, table, gone.get(used)!), named(plan, reference.table, user)];
    throw new Refusal('in-use', `The ${it} is still used by the ${by}. Change or remove that first.`, [
      { table: reference.table, id: user.id },
    ]);
  }
}

const named = (plan: Plan, table: TableName, record: AnyRecord): string =>
  `${kinds[table].word} “${recordTitle(plan, table, record)}”`;
