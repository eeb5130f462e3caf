'use client';

import { type RecordOf, type TableName, fieldsOf, kinds, toWire } from '@/core/plan';
import { useEdit } from '../session/actions';
import { Choice, type Option } from './choice';
import { Field } from './field';
import { typedValue } from './record-field';
import { Tick } from './tick';

interface Props<T extends TableName> {
  readonly table: T;
  readonly record: RecordOf<T>;
  readonly field: keyof RecordOf<T> & string;
  /** What the record is called, for whoever does not see the column. */
  readonly of: string;
  readonly placeholder?: string;
  /** What its values are called, of a field with few. */
  readonly words?: Readonly<Record<string, string>>;
  /** The records it may name; an empty value for none. */
  readonly options?: readonly Option[];
}

/** A field of a record in a cell of a table: its head stands above the column. */
export function RecordValue<T extends TableName>(props: Props<T>) {
  const { table, record, field, of, placeholder = 'none', words, options } = props;
  const edit = useEdit();
  const known = fieldsOf(kinds[table].fields).find(({ name }) => name === field)!;
  const shown = toWire(table, record as never)[field];
  const set = (value: unknown) => edit(table, record.id, field, value, shown);
  const label = `${known.label.replace(/^./, (letter) => letter.toUpperCase())} of ${of}`;
  if (known.stored === 'flag')
    return (
      <span className="flex min-h-7 items-center px-1">
        <Tick label={label} checked={shown === true} onChange={(on) => set(on)} />
      </span>
    );
  if (options)
    return (
      <Choice
        label={label}
        value={shown === null ? '' : String(shown)}
        options={options}
        onChoose={(value) => set(value === '' ? null : value)}
      />
    );
  if (known.stored === 'choice')
    return (
      <Choice
        label={label}
        value={String(shown)}
        options={known.values!.map((value) => ({
          value,
          label: words?.[value] ?? value.replaceAll('-', ' '),
        }))}
        onChoose={set}
      />
    );
  return (
    <Field
      mono={known.stored !== 'text'}
      label={label}
      value={shown === null ? '' : String(shown)}
      placeholder={placeholder}
      onCommit={(typed) => set(typedValue(known, typed))}
    />
  );
}
