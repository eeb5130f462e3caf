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
import { isNone, useEdit, wholeNumber } from '../session/actions';
import { Choice } from './choice';
import { Field } from './field';
import { Toggle } from './tick';
import { Property } from './property';

const capital = (text: string) => text.replace(/^./, (letter) => letter.toUpperCase());

/** A whole number; its unit may be typed behind it, and a minus before it where it may be below nought. */
function wholeTyped(
  { unit, min = 0 }: Pick<NamedField, 'unit' | 'min'>,
  label: string,
  typed: string,
): number {
  const plain = (unit ? typed.replace(unit, '') : typed).trim();
  return min < 0 && plain.startsWith('-') ? -wholeNumber(plain.slice(1), label) : wholeNumber(plain, label);
}

/** What was typed into a field, as its kind writes it; the schema says what is wrong with it. */
export function typedValue(
  field: Pick<NamedField, 'name' | 'label' | 'stored' | 'schema' | 'unit' | 'min' | 'example'>,
  typed: string,
): unknown {
  const label = capital(field.label);
  if (isNone(typed) && isNullable(field.schema)) return null;
  switch (field.stored) {
    case 'whole':
      if (isNone(typed)) throw badInput(`${label} cannot be left empty; write a whole number.`, field.name);
      return wholeTyped(field, label, typed);
    case 'code':
      // Codes of capital letters are mostly typed in small ones.
      return /[A-Z]/.test(field.example ?? '') ? typed.toUpperCase() : typed;
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
  /** What it is a field of, where several records are in view: the zone. */
  readonly of?: string;
  /** What its values are called, of a field with few; else they are said as they are. */
  readonly words?: Readonly<Record<string, string>>;
}

/** A field of a record, edited in place. Its label, unit, limits and form are those of the kind. */
export function RecordField<T extends TableName>(props: RecordFieldProps<T>) {
  const { table, record, field, placeholder, of, words } = props;
  const edit = useEdit();
  const known = fieldsOf(kinds[table].fields).find(({ name }) => name === field)!;
  const shown = toWire(table, record as never)[field];
  const set = (value: unknown) => edit(table, record.id, field, value, shown);
  const label = capital(known.label);
  const unitSaid = known.unit === undefined || known.label.split(' ').includes(known.unit);
  const named = of === undefined ? label : `${label} of ${of}`;
  if (known.stored === 'flag') return <Toggle label={known.label} checked={shown === true} onChange={set} />;
  return (
    <Property label={unitSaid ? label : `${label}, ${known.unit}`}>
      {known.stored === 'choice' ? (
        <Choice
          label={named}
          value={String(shown)}
          options={known.values!.map((value) => ({
            value,
            label: words?.[value] ?? value.replaceAll('-', ' '),
          }))}
          onChoose={set}
        />
      ) : (
        <Field
          mono={known.stored !== 'text' && known.stored !== 'long-text'}
          label={named}
          value={shown === null ? '' : String(shown)}
          placeholder={placeholder ?? 'none'}
          onCommit={(typed) => set(typedValue(known, typed))}
        />
      )}
    </Property>
  );
}
