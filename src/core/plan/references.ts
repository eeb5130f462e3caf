import { fieldOf, type OnDelete } from './kinds/fields';
import type * as z from 'zod';
import { type Definition, fieldsOf } from './kinds/kind';
import type { Plan } from './plan';
import { type AnyRecord, type TableName, kinds, tableNames } from './records';

/** Which fields of records point at which others, read off the kinds. */

export interface ReferenceField {
  readonly table: TableName;
  readonly field: string;
  readonly to: TableName;
  readonly onDelete: OnDelete;
}

/** Every reference by the table it is in. Those that only a rule of the kind knows of are not among them. */
export const references = Object.fromEntries(
  tableNames.map((table) => [
    table,
    fieldsOf(kinds[table].fields).flatMap(({ name, reference }): ReferenceField[] =>
      reference ? [{ table, field: name, to: reference.to as TableName, onDelete: reference.onDelete }] : [],
    ),
  ]),
) as unknown as { readonly [T in TableName]: readonly ReferenceField[] };

/** The references to a table. */
export const referencesTo = (to: TableName): ReferenceField[] =>
  tableNames.flatMap((table) => references[table].filter((reference) => reference.to === to));

/** The ids a record points at through one of its reference fields. */
export function referencedIds(record: AnyRecord, field: string): string[] {
  const value = (record as unknown as Record<string, unknown>)[field];
  if (value === null || value === undefined) return [];
  if (typeof value === 'string') return [value];
  const list: unknown[] = Array.isArray(value) ? value : [value];
  return list.flatMap((item) => {
    if (typeof item === 'string') return [item];
    const target = (item as { interface?: string }).interface;
    return target === undefined ? [] : [target];
  });
}

/** The records that refer to any of these through one field; found by its index where there is one. */
export function referringTo(
  plan: Plan,
  { table, field }: ReferenceField,
  ids: ReadonlySet<string>,
): AnyRecord[] {
  return mayRefer(plan, table, field, ids).filter((record) =>
    referencedIds(record, field).some((id) => ids.has(id)),
  );
}

function mayRefer(plan: Plan, table: TableName, field: string, ids: ReadonlySet<string>): AnyRecord[] {
  const { indexes, bucket } = kinds[table] as unknown as Definition<z.ZodRawShape>;
  const few = ids.size < plan[table].size;
  if (few && indexes?.[field])
    return [...ids].flatMap((id) => plan[table].by(field, id) as readonly AnyRecord[]);
  if (few && bucket === field)
    return [...ids].flatMap((id) => [...plan[table].group(id).values()] as AnyRecord[]);
  return [...(plan[table].values() as Iterable<AnyRecord>)];
}

/** May a field be set by an edit? Ids never, references only where the field says so. */
export function isEdited(table: TableName, field: string): boolean {
  const shape = kinds[table].fields as Readonly<Record<string, Parameters<typeof fieldOf>[0]>>;
  const known = shape[field] && fieldOf(shape[field]);
  return known !== undefined && (known.reference === undefined || known.edited === true);
}
