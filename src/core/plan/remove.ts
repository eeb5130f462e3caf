import type * as z from 'zod';
import { Draft } from './draft';
import type { Definition, Gone } from './kinds/kind';
import type { Plan } from './plan';
import { type AnyRecord, type RecordOf, type TableName, kinds, tableNames } from './records';
import { type ReferenceField, referencedIds, referencesTo, referringTo } from './references';
import type { RecordRef } from './refusal';

/**
 * Deletes a record with everything that cannot be without it, as its kind and the kinds that refer to it say: what goes too,
 * what only forgets it, and what has a rule of its own. Throws a Refusal (missing) when it is gone already.
 */
export function removeRecord(draft: Draft, ref: RecordRef): void {
  draft.need(ref.table, ref.id);
  for (const reference of referencesTo(ref.table)) follow(draft, reference, ref);
  for (const table of tableNames) askRule(draft, table, ref);
  draft.remove(ref.table, ref.id);
}

type AnyFields = Partial<RecordOf<TableName>>;
const recordsOf = (plan: Plan, table: TableName): AnyRecord[] => [
  ...(plan[table].values() as Iterable<AnyRecord>),
];

function follow(draft: Draft, reference: ReferenceField, gone: RecordRef): void {
  const { table, field, onDelete } = reference;
  if (onDelete === 'hook') return;
  for (const { id } of referringTo(draft.plan, reference, new Set([gone.id]))) {
    // What went with another reference is there no more.
    const record = draft.plan[table].get(id) as AnyRecord | undefined;
    if (!record || !referencedIds(record, field).includes(gone.id)) continue;
    if (onDelete === 'removed') removeRecord(draft, { table, id });
    else if (onDelete === 'cleared') draft.update(table, id, { [field]: null } as AnyFields);
    else {
      const list = (record as unknown as Record<string, readonly unknown[]>)[field]!;
      const left = list.filter((item) => referencedIds({ [field]: item } as never, field)[0] !== gone.id);
      draft.update(table, id, { [field]: left } as AnyFields);
    }
  }
}

function askRule(draft: Draft, table: TableName, gone: RecordRef): void {
  const { without } = kinds[table] as unknown as Definition<z.ZodRawShape>;
  if (!without?.tables.includes(gone.table)) return;
  const rule = without.rule as (record: AnyRecord, gone: Gone) => AnyRecord | null;
  for (const record of recordsOf(draft.plan, table)) {
    const now = rule(record, gone);
    if (now === null) removeRecord(draft, { table, id: record.id });
    else if (now !== record) draft.put(table, record.id, now as never);
  }
}

/** What goes with some records, and what only changes: each record once, those asked about left out. */
export interface Removal {
  readonly removed: readonly RecordRef[];
  readonly changed: readonly RecordRef[];
}

/** What would become of a plan if records were deleted. */
export function removalOf(plan: Plan, refs: readonly RecordRef[]): Removal {
  const trial = new Draft(plan, 'x');
  for (const ref of refs) if (trial.plan[ref.table].get(ref.id)) removeRecord(trial, ref);
  const asked = new Set(refs.map(({ table, id }) => `${table} ${id}`));
  const steps = trial.change('').steps.filter(({ table, id }) => !asked.has(`${table} ${id}`));
  const named = ({ table, id }: RecordRef): RecordRef => ({ table, id });
  return {
    removed: steps.filter(({ after }) => after === null).map(named),
    changed: steps.filter(({ after }) => after !== null).map(named),
  };
}
