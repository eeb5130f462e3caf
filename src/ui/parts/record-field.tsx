'use client';

import { formatPrefix, parsePrefix } from '@/core/address';
import {
  toWire,
  type NamedField,
  fieldsOf,
  isNullable,
  type RecordOf,
  type TableName,
  kinds,
  badInput,
} from '@/core/plan';
import { useEdit, wholeNumber } from '../session/actions';
import { Field } from './field';
import { Property } from './property';

const isNone = (text: string) => text === '' || /^none$/i.test(text);
const capital = (text: string) => text.replace(/^./, (letter) => letter.toUpperCase());

/** What was typed into a field, as its kind writes it; the schema says what is wrong with it. */
export function typedValue(
  field: Pick<NamedField, 'name' | 'label' | 'stored' | 'schema'>,
  typed: string,
): unknown {
  const label = capital(field.label);
  if (isNone(typed) && isNullable(field.schema)) return null;
  switch (field.stored) {
    case 'whole':
      if (isNone(typed)) throw badInput(`${label} cannot be left empty; write a whole number.`, field.name);
      return wholeNumber(typed, label);
    case 'prefix': {
      // Host bits are cleared: what is meant is the network.
      const parsed = parsePrefix(typed);
      return parsed ? formatPrefix(parsed.prefix) : typed;
    }
    default:
      return typed;
  }
}

interface RecordFieldProps<T extends TableName> {
  readonly table: T;
  readonly record: RecordOf<T>;
  readonly field: keyof RecordOf<T> & string;
  readonly placeholder?: string;
}

/** A field of a record, edited in place. Its label, unit, limits and form are those of the kind. */
export function RecordField<T extends TableName>({ table, record, field, placeholder }: RecordFieldProps<T>) {
  const edit = useEdit();
  const known = fieldsOf(kinds[table].fields).find(({ name }) => name === field)!;
  const shown = toWire(table, record as never)[field];
  const label = capital(known.label);
  return (
    <Property label={label}>
      <Field
        mono={field !== 'name'}
        label={label}
        value={shown === null ? '' : String(shown)}
        placeholder={placeholder ?? 'none'}
        onCommit={(typed) => edit(table, record.id, field, typedValue(known, typed), shown)}
      />
    </Property>
  );
}
