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
export const removeRecord = (draft: Draft, { table, id }: RecordRef): void =>
  removeRecords(draft, table, new Set([id]));

/** Deletes many records of one kind, as one after the other would be. Throws a Refusal (missing) when one is gone already. */
export function removeRecords(draft: Draft, table: TableName, ids: ReadonlySet<string>): void {
  if (ids.size === 0) return;
  for (const id of ids) draft.need(table, id);
  for (const reference of referencesTo(table)) follow(draft, reference, ids);
  for (const other of tableNames) askRule(draft, other, table, ids);
  for (const id of ids) draft.remove(table, id);
}

type AnyFields = Partial<RecordOf<TableName>>;
const recordsOf = (plan: Plan, table: TableName): AnyRecord[] => [
  ...(plan[table].values() as Iterable<AnyRecord>),
];

function follow(draft: Draft, reference: ReferenceField, gone: ReadonlySet<string>): void {
  const { table, field, onDelete } = reference;
  if (onDelete === 'hook') return;
  const users = referringTo(draft.plan, reference, gone);
  if (onDelete === 'removed') return removeRecords(draft, table, new Set(users.map(({ id }) => id)));
  for (const user of users) {
    const list = (user as unknown as Record<string, readonly unknown[]>)[field]!;
    const left =
      onDelete === 'cleared'
        ? null
        : list.filter((item) => !gone.has(referencedIds({ [field]: item } as never, field)[0]!));
    draft.update(table, user.id, { [field]: left } as AnyFields);
  }
}

function askRule(draft: Draft, table: TableName, of: TableName, gone: ReadonlySet<string>): void {
  const { without } = kinds[table] as unknown as Definition<z.ZodRawShape>;
  if (!without?.tables.includes(of)) return;
  const rule = without.rule as (record: AnyRecord, gone: Gone) => AnyRecord | null;
  const ended = new Set<string>();
  for (const record of recordsOf(draft.plan, table)) {
    const now = rule(record, { table: of, ids: gone });
    if (now === null) ended.add(record.id);
    else if (now !== record) draft.put(table, record.id, now as never);
  }
  removeRecords(draft, table, ended);
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
