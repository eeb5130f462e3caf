import type * as z from 'zod';
import {
  type NamedField,
  fieldsOf,
  isNullable,
  itemsOf,
  shapeOf,
  type TableName,
  kinds,
  tableNames,
} from '../core/plan';
import {
  type FieldColumns,
  addressColumn,
  addressList,
  flagColumn,
  momentColumn,
  numbers,
  optionalPrefix,
  plainColumn,
  prefixColumn,
  words,
} from './columns';

/** How each kind of record is stored: read off its fields, so that there is nothing to keep in step. */

/** A list inside a record, kept as rows of its own in order. */
export interface ChildTable {
  readonly field: string;
  readonly sql: string;
  readonly columns: readonly FieldColumns[];
  /** What the columns are made of. */
  readonly fields: readonly NamedField[];
  /** From the fields of a row to the item of the list, and back. */
  readonly item: (fields: Record<string, unknown>) => unknown;
  readonly values: (item: never) => Record<string, unknown>;
}

export interface TableMap {
  readonly sql: string;
  readonly columns: readonly FieldColumns[];
  readonly fields: readonly NamedField[];
  readonly children: readonly ChildTable[];
}

const snake = (name: string) => name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);
/** The column of a field, or what its columns begin with. */
export const columnName = ({ name, column, stored }: NamedField): string =>
  column ?? (stored === 'id' ? `${snake(name)}_id` : snake(name));

function columnOf(field: NamedField): FieldColumns {
  const { name, stored } = field;
  const column = columnName(field);
  switch (stored) {
    case 'flag':
      return flagColumn(name, column);
    case 'address':
      return addressColumn(name, column);
    case 'addresses':
      return addressList(name, column);
    case 'prefix':
      return (isNullable(field.schema) ? optionalPrefix : prefixColumn)(name, column);
    case 'moment':
      return momentColumn(name, column);
    case 'words':
      return words(name, column);
    case 'parts':
      return numbers(
        name,
        Object.fromEntries(fieldsOf(shapeOf(field.schema)).map((part) => [part.name, columnName(part)])),
      );
    default:
      return plainColumn(name, column);
  }
}

const present = (fields: Record<string, unknown>) =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== null));

/** What a row of a list holds: the item itself, its fields, or one of several forms, each with fields of its own. */
function childOf(field: NamedField): ChildTable {
  const items = itemsOf(field.schema);
  const base = { field: field.name, sql: field.table! };
  const made = (fields: readonly NamedField[]) => ({ fields, columns: fields.map(columnOf) });
  if ('forms' in items) {
    const fields = items.forms.flatMap((form) => fieldsOf(form)).map(orAbsent);
    const none = Object.fromEntries(fields.map(({ name }) => [name, null]));
    return { ...base, ...made(fields), item: present, values: (item: object) => ({ ...none, ...item }) };
  }
  if ('shape' in items)
    return {
      ...base,
      ...made(fieldsOf(items.shape)),
      item: (fields) => fields,
      values: (item: object) => ({ ...item }),
    };
  // The single column of a list of ids or prefixes is called by what it refers to.
  const [known] = fieldsOf({ item: items.value as z.ZodType });
  const name = known!.reference?.to ?? (known!.stored === 'id' ? field.name.replace(/s$/, '') : 'prefix');
  return {
    ...base,
    ...made([{ ...known!, name }]),
    item: (fields) => fields[name],
    values: (item: unknown) => ({ [name]: item }),
  };
}

/** One of several forms: its columns are empty in the others. */
const orAbsent = (field: NamedField): NamedField => ({
  ...field,
  schema: (field.schema as z.ZodType).nullable(),
});

const mapOf = (table: TableName): TableMap => {
  const all = fieldsOf(kinds[table].fields);
  const fields = all.filter(({ stored }) => stored !== 'list');
  return {
    sql: kinds[table].table,
    fields,
    columns: fields.map(columnOf),
    children: all.filter(({ stored }) => stored === 'list').map(childOf),
  };
};

/** Parents come before children, as in the register of kinds. */
export const tables = Object.fromEntries(tableNames.map((table) => [table, mapOf(table)])) as {
  readonly [T in TableName]: TableMap;
};
